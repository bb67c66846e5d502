<script setup lang="ts">
import { oddsSaid, verdictSaid } from '#core/following'
import type { KindLooked } from '#core/trials'
import { formatNumber } from '#core/units'

/** One kind of simulated client: how many were told a change, and one of them check-in by check-in. */
const props = defineProps<{ title: string; kind: KindLooked; of: number; weeksApart: number; losing?: boolean }>()

const place = ref(0)
watch(
  () => props.kind,
  () => (place.value = 0),
)
const person = computed(() => props.kind.people[place.value % props.kind.people.length])

const rules = computed(() => [
  { id: 'old', name: 'Old rule', share: props.kind.everOld, median: props.kind.medianOld },
  { id: 'odds', name: 'Odds', share: props.kind.everReal, median: props.kind.medianReal },
])
const said = (share: number) => `${Math.round(share * props.of)} of ${props.of}`

/** What they were told: wrong where nothing changed. */
function told({ median }: { median: number | null }): string {
  if (!props.losing) return 'wrongly told of a change'
  return median === null ? 'told so' : `told so, the middle one at check-in ${median}`
}

const HEIGHT = 84
const columns = computed(() => {
  const own = person.value
  if (!own) return []
  const bounds = own.looks.flatMap(({ low, high }) => [low, high].map((change) => (own.sums[0] ?? 0) + change))
  const [bottom, top] = [Math.min(...own.sums, ...bounds), Math.max(...own.sums, ...bounds)]
  const up = (mm: number) => 6 + ((top - mm) / Math.max(1, top - bottom)) * (HEIGHT - 12)
  return own.sums.map((mm, i) => {
    const look = own.looks[i - 1]
    const start = own.sums[0] ?? 0
    return {
      week: own.weeks[i] ?? 0,
      mm,
      y: up(mm),
      look,
      from: look ? up(start + look.high) : 0,
      to: look ? up(start + look.low) : 0,
    }
  })
})
</script>

<template>
  <section :aria-label="title">
    <h3 class="border-b border-ink pb-1 font-semibold">{{ title }}</h3>
    <dl class="mt-2 grid gap-1">
      <div
        v-for="rule in rules"
        :key="rule.id"
        class="grid grid-cols-[5rem_minmax(0,1fr)] sm:grid-cols-[5rem_minmax(4rem,1fr)_23rem] items-center gap-x-3"
        :data-rule="rule.id"
      >
        <dt>{{ rule.name }}</dt>
        <dd class="h-3 rounded-full bg-wash" aria-hidden="true">
          <div
            class="h-3 rounded-full"
            :class="losing ? 'bg-lean' : 'bg-alert'"
            :style="{ width: `${100 * rule.share}%` }"
          />
        </dd>
        <dd class="max-sm:col-start-2">
          <span class="figure font-bold">{{ said(rule.share) }}</span> {{ told(rule) }}
        </dd>
      </div>
    </dl>
    <div v-if="person" class="mt-3">
      <div class="flex items-baseline gap-3">
        <p class="text-[15px] text-faded">
          One of them: sum of folds from <span class="figure">{{ formatNumber(person.sums[0] ?? 0) }}</span> to
          <span class="figure">{{ formatNumber(person.sums.at(-1) ?? 0) }}</span> mm; shade: where it has gone to since
          the start, 95 %
        </p>
        <button class="ml-auto min-h-9 shrink-0 underline underline-offset-4" @click="place += 1">Another one</button>
      </div>
      <ScrollTable :label="`${title}: one client, check-in by check-in`">
        <table class="w-full min-w-[560px] table-fixed border-collapse text-center text-sm">
          <caption class="sr-only">
            What each rule says at every check-in
          </caption>
          <tbody>
            <tr>
              <th scope="row" class="w-20 text-left font-normal text-faded">Sum</th>
              <td v-for="one in columns" :key="one.week" class="p-0">
                <svg
                  :viewBox="`0 0 20 ${HEIGHT}`"
                  class="h-[84px] w-full text-sum"
                  preserveAspectRatio="none"
                  aria-hidden="true"
                >
                  <rect
                    v-if="one.look"
                    x="4"
                    :y="one.from"
                    width="12"
                    :height="Math.max(1, one.to - one.from)"
                    fill="currentColor"
                    opacity="0.16"
                  />
                  <line x1="5" x2="15" :y1="one.y" :y2="one.y" stroke="currentColor" stroke-width="3" />
                </svg>
                <span class="sr-only">{{ formatNumber(one.mm) }} mm</span>
              </td>
            </tr>
            <tr class="border-t border-rule">
              <th scope="row" class="py-1 text-left font-normal text-faded">Week</th>
              <td v-for="one in columns" :key="one.week" class="figure text-faded">{{ one.week }}</td>
            </tr>
            <tr class="border-t border-rule">
              <th scope="row" class="py-1 text-left font-normal whitespace-nowrap">Old rule</th>
              <td v-for="one in columns" :key="one.week">
                <span v-if="one.look?.old" class="font-bold" :class="losing ? 'text-lean' : 'text-alert'">yes</span>
                <span v-else-if="one.look" class="text-faded">·</span>
              </td>
            </tr>
            <tr class="border-t border-rule">
              <th scope="row" class="py-1 text-left font-normal whitespace-nowrap">Odds</th>
              <td
                v-for="one in columns"
                :key="one.week"
                class="figure"
                :class="
                  one.look?.verdict === 'real' ? ['font-bold', losing ? 'text-lean' : 'text-alert'] : 'text-faded'
                "
                :title="one.look ? verdictSaid(one.look) : undefined"
              >
                <template v-if="one.look">{{
                  one.look.odds < 1 ? '<1' : one.look.odds > 999 ? '>999' : oddsSaid(one.look.odds)
                }}</template>
              </td>
            </tr>
          </tbody>
        </table>
      </ScrollTable>
    </div>
  </section>
</template>
