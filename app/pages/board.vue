<script setup lang="ts">
import { daysBetween } from '#core/calendar'
import type { Board } from '#shared/schemas/challenge'
import { challenges as calls } from '~/week-calls'

definePageMeta({ layout: 'wall' })
useHead({ title: 'Board' })

/** A wall's screen asks again this often. */
const AGAIN_MS = 5 * 60_000

const route = useRoute()
const board = ref<Board | null>(null)
const { problem, tell } = useTelling()
const look = () =>
  tell(async () => {
    board.value = await calls.board(route.hash.slice(1))
  })
onMounted(look)
useIntervalFn(look, AGAIN_MS)

const left = computed(() => (board.value ? daysBetween(board.value.today, board.value.endsOn) : 0))
const leftSaid = computed(() => {
  if (board.value?.closed) return 'closed'
  if (left.value < 0) return 'over'
  return left.value === 0 ? 'the last day' : `${left.value} ${left.value === 1 ? 'day' : 'days'} to go`
})
type Row = Board['groups'][number]['rows'][number]
const shared = (rows: Row[], i: number) => {
  const own = rows[i]?.place ?? null
  return own !== null && rows.filter(({ place }) => place === own).length > 1
}
/** Until a loss is beyond the error of measuring nobody has a place, and bars would show noise. */
const hasPlaces = (rows: Row[]) => rows.some(({ place }) => place !== null)
const edge = (rows: Row[], i: number) => ({
  top: rows[i - 1]?.place !== rows[i]?.place,
  bottom: rows[i + 1]?.place !== rows[i]?.place,
})
</script>

<template>
  <div v-if="board" class="flex flex-1 flex-col gap-[2vh]" data-board>
    <header class="flex items-baseline gap-[2vw]">
      <h1 class="text-[clamp(28px,5vw,88px)] leading-none font-bold">{{ board.name }}</h1>
      <p class="ml-auto text-[clamp(18px,2.4vw,44px)] whitespace-nowrap text-faded">{{ leftSaid }}</p>
    </header>
    <div
      class="grid flex-1 content-start gap-x-[4vw] gap-y-[3vh]"
      :class="{ 'lg:grid-cols-2': board.groups.length > 1 }"
    >
      <section v-for="group in board.groups" :key="group.name" :aria-label="group.name || 'Everybody'">
        <h2 v-if="group.name" class="mb-[1vh] text-[clamp(18px,2.4vw,40px)] font-bold">{{ group.name }}</h2>
        <ol>
          <li
            v-for="(row, i) in group.rows"
            :key="row.name"
            class="grid grid-cols-[2.4em_minmax(0,1fr)_1.6em] items-center gap-[1vw] text-[clamp(18px,2.6vw,46px)] leading-[1.15]"
            :data-row="row.place ?? ''"
          >
            <span
              class="figure flex h-[2.1em] items-center pl-[0.3em] font-bold"
              :class="
                shared(group.rows, i)
                  ? [
                      'border-l-4 border-ink',
                      { 'border-t-4': edge(group.rows, i).top, 'border-b-4': edge(group.rows, i).bottom },
                    ]
                  : ''
              "
              ><span :class="{ 'sr-only': row.place !== null && !edge(group.rows, i).top }">{{
                row.place ?? '–'
              }}</span></span
            >
            <span class="min-w-0">
              <span class="block truncate">{{ row.name }}</span>
              <span v-if="hasPlaces(group.rows)" class="block h-[0.35em] border-l-3 border-ink bg-wash">
                <span class="block h-full bg-brass" :style="{ width: `${100 * row.share}%` }" />
              </span>
            </span>
            <ChanceRing v-if="hasPlaces(group.rows)" :chance="row.first" />
          </li>
        </ol>
        <p v-if="!hasPlaces(group.rows)" class="mt-[1vh] text-[clamp(16px,1.8vw,32px)] text-faded">
          No first place yet: no loss is beyond the error of measuring.
        </p>
      </section>
    </div>
    <p v-if="board.groups.length === 0" class="text-[clamp(18px,2.6vw,46px)] text-faded">
      The board fills with the second measurings.
    </p>
    <footer class="flex flex-wrap items-center gap-x-[2vw] text-[clamp(14px,1.4vw,24px)] text-faded">
      <template v-if="board.groups.some(({ rows }) => hasPlaces(rows))">
        <span>A bracket: they share the place.</span>
        <span class="inline-flex items-center gap-2"><ChanceRing :chance="0.4" /> the chance of being first.</span>
      </template>
      <span v-if="board.hidden > 0">{{ board.hidden }} more take part unshown.</span>
      <span class="ml-auto">{{ board.studioName }}</span>
    </footer>
  </div>
  <p v-else-if="problem" role="alert" class="m-auto text-3xl">{{ problem }}</p>
</template>
