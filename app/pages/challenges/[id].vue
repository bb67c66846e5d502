<script setup lang="ts">
import type { Standing } from '#core/challenge'
import { BREACH_WORDS } from '#core/challenge'
import type { ChallengeFacts, EntryRecord } from '#shared/schemas/challenge'
import type { StandingWorker } from '~/workers/standing'
import { challenges as calls } from '~/week-calls'

const route = useRoute()
const id = String(route.params.id)
const facts = shallowRef<ChallengeFacts | null>(null)
const standing = shallowRef<{ groups: { name: string; standings: Standing[] }[]; teams: Standing[] } | null>(null)
const board = ref<string | null>(null)
const leaving = ref<string | null>(null)
const closing = ref(false)
const { problem, tell } = useTelling()
useHead({ title: () => `${facts.value?.challenge.name ?? 'Challenge'}, Oak Pinch` })

const { run, running } = useWorker<StandingWorker>(
  () => new Worker(new URL('../../workers/standing.ts', import.meta.url), { type: 'module' }),
)
async function take(found: ChallengeFacts) {
  facts.value = found
  const taking = found.entries.filter(({ leftAt, runner }) => leftAt === null && runner !== null)
  const runnersOf = (all: EntryRecord[]) =>
    all.flatMap(({ id: one, runner }) => (runner ? [{ id: one, ...runner }] : []))
  const categories = [...new Set(taking.map(({ category }) => category))].sort()
  const groups = categories.map((name) => ({
    name,
    runners: runnersOf(taking.filter(({ category }) => category === name)),
  }))
  const teams = found.challenge.teams.map((name) => ({
    name,
    members: runnersOf(taking.filter(({ team }) => team === name)),
  }))
  standing.value = await run((api) => api.stand(groups, teams))
}
useOpening(async () => take(await calls.read(id)))

const names = computed(
  () =>
    new Map([
      ...(facts.value?.entries.map((one) => [one.id, one.clientName] as const) ?? []),
      ...(facts.value?.challenge.teams.map((name) => [name, name] as const) ?? []),
    ]),
)
const taking = computed(() => facts.value?.entries.filter(({ leftAt }) => leftAt === null) ?? [])
const waiting = computed(() => taking.value.filter(({ runner, clientId }) => runner === null && clientId !== null))
const shownSaid = ({ shownAs, alias }: EntryRecord) =>
  shownAs === 'hidden' ? 'hidden' : shownAs === 'alias' ? `as ${alias}` : 'by name'
function why({ first, last, breaches, suspended }: EntryRecord): string {
  if (suspended) return `suspended: ${suspended} Take them out, or change their record.`
  if (!first) return 'first measuring to come, within a week of the start'
  if (!last) return 'last measuring to come'
  if (breaches.length === 0) return 'not counted: the two measurings cannot be compared'
  return `not counted: ${breaches.map((one) => BREACH_WORDS[one]).join(', ')}`
}
const over = computed(() => facts.value !== null && facts.value.challenge.endsOn <= todayHere())

const leave = (entry: string) =>
  tell(async () => {
    leaving.value = null
    await take(await calls.leave(id, entry))
  })
const makeBoard = () =>
  tell(async () => {
    board.value = (await calls.makeBoard(id)).link
  })
const close = () =>
  tell(async () => {
    closing.value = false
    await take(await calls.close(id))
  })
</script>

<template>
  <div v-if="facts" class="flex flex-1 flex-col">
    <div class="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-4 py-2 sm:px-6">
      <h1 class="text-3xl font-bold">{{ facts.challenge.name }}</h1>
      <p class="min-w-0 flex-1 text-[15px] text-faded max-lg:order-last max-lg:basis-full">
        {{ sayDay(facts.challenge.startsOn) }} to {{ sayDay(facts.challenge.endsOn) }} ·
        {{ facts.challenge.figure === 'sum' ? 'sum of folds' : 'fat mass' }}, percent of the own start ·
        {{ facts.challenge.prizeRule === 'share' ? 'prize shared on ties' : 'prize by lot on ties' }}
      </p>
      <button type="button" class="press press-quiet" @click="makeBoard">
        {{ facts.challenge.hasBoard || board ? 'New board address' : 'Board for the wall' }}
      </button>
      <a :href="`/api/challenges/${id}/protocol`" download class="press">Protocol</a>
      <button
        v-if="over && !facts.challenge.closedAt"
        type="button"
        class="press press-first"
        @click="closing ? close() : (closing = true)"
      >
        {{ closing ? 'Yes, close it' : 'Close the challenge' }}
      </button>
    </div>
    <p v-if="problem" role="alert" class="px-4 pt-3 font-semibold text-alert sm:px-6">{{ problem }}</p>
    <div
      v-if="board"
      class="mx-4 mt-3 border-l-4 border-signal bg-sheet px-4 py-3 sm:mx-6"
      role="status"
      data-board-link
    >
      <p class="font-semibold">Open this on the wall’s screen; it is not shown again</p>
      <p class="figure mt-1 text-sm break-all select-all">{{ board }}</p>
    </div>
    <p
      v-if="facts.challenge.closedAt"
      class="mx-4 mt-3 border-l-4 border-brass bg-sheet px-4 py-3 text-lg sm:mx-6"
      data-winners
    >
      Closed {{ sayDay(facts.challenge.closedAt) }}. The prize goes to
      <strong>{{
        facts.winners.map((one) => names.get(one)).join(' and ') || 'nobody: no loss is beyond the error of measuring'
      }}</strong
      >.
    </p>
    <div class="grid gap-x-10 gap-y-6 px-4 py-3 sm:px-6 lg:grid-cols-[minmax(0,1fr)_minmax(280px,340px)]">
      <div class="grid content-start gap-3">
        <p v-if="taking.length === 1" class="text-lg text-faded">
          One alone is no challenge: the standing begins with the second.
        </p>
        <p v-else-if="running" class="text-faded">Working the standing out …</p>
        <template v-if="standing">
          <StandingTable
            v-for="group in standing.groups"
            :key="group.name"
            :title="group.name"
            :standings="group.standings"
            :names="names"
          />
          <StandingTable v-if="standing.teams.length > 1" title="Teams" :standings="standing.teams" :names="names" />
          <p v-if="standing.groups.length > 0" class="max-w-prose text-[15px] text-faded">
            A bracket joins those who share a place: the error of measuring does not part them. Unchanged people are
            parted in at most one challenge of twenty.
          </p>
        </template>
        <section v-if="waiting.length > 0" aria-labelledby="waiting">
          <h2 id="waiting" class="border-b-2 border-ink pb-1 text-lg font-bold">Not in the standing yet</h2>
          <ul>
            <li
              v-for="one in waiting"
              :key="one.id"
              class="flex items-center gap-3 border-b border-rule py-1.5"
              data-waiting
            >
              <span class="min-w-0 flex-1"
                ><span class="font-semibold">{{ one.clientName }}</span>
                <span class="block text-sm text-faded">{{ why(one) }}</span></span
              >
              <NuxtLink v-if="one.clientId" :to="`/clients/${one.clientId}/measure`" class="press">Measure</NuxtLink>
            </li>
          </ul>
        </section>
      </div>
      <div class="grid content-start gap-6">
        <section aria-labelledby="taking">
          <h2 id="taking" class="border-b-2 border-ink pb-1 text-lg font-bold">Who takes part</h2>
          <p v-if="taking.length === 0" class="py-2 text-[15px] text-faded">Nobody yet.</p>
          <ul>
            <li
              v-for="one in taking"
              :key="one.id"
              class="flex items-center gap-2 border-b border-rule py-1.5"
              :data-entry="one.clientName"
            >
              <NuxtLink v-if="one.clientId" :to="`/clients/${one.clientId}`" class="min-w-0 flex-1">
                <span class="block truncate font-semibold">{{ one.clientName }}</span>
                <span class="block truncate text-sm text-faded"
                  >{{ shownSaid(one) }}<template v-if="one.team">, {{ one.team }}</template
                  ><template v-if="one.paced">; faster than 1 % a week, counted up to that</template></span
                >
              </NuxtLink>
              <span v-else class="min-w-0 flex-1 text-faded">{{ one.clientName }}</span>
              <button
                v-if="one.clientId"
                type="button"
                class="press press-quiet min-h-9 px-3"
                :class="{ 'text-alert': leaving === one.id }"
                @click="leaving === one.id ? leave(one.id) : (leaving = one.id)"
              >
                {{ leaving === one.id ? 'Yes, out' : 'Leaves' }}
              </button>
            </li>
          </ul>
        </section>
        <EntryForm v-if="!facts.challenge.closedAt" :facts="facts" @entered="take" />
      </div>
    </div>
  </div>
</template>
