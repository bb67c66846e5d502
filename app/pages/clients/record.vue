<script setup lang="ts">
import { subWeeks } from 'date-fns'
import { ageInYears } from '#core/composition'
import { nextDate, reasonSaid, USUAL_SCHEDULE } from '#core/schedule'
import { formatHeight } from '#core/units'
import { ADULT_YEARS } from '#core/cautions'
import type { Suspension } from '#core/safety'
import { isNeutral } from '#shared/neutral'
import { safetyNotes } from '#shared/safety-notes'
import type { PinnedStart } from '#shared/schemas/following'
import { checkins } from '~/calls'
import { useMe } from '~/stores/me'
import { useOutbox } from '~/stores/outbox'

definePageMeta({ path: '/clients/:id' })

const route = useRoute()
const store = useMe()
const outbox = useOutbox()
const { followed, planned } = provideClientRecord(String(route.params.id))
const {
  client,
  open,
  ends,
  then,
  now,
  span,
  figures,
  fromIndex,
  toIndex,
  pinnedIndex,
  searched,
  unasked,
  comparability,
  shown,
  neutral,
  bare,
  judging,
} = followed

// Straight from its address the span's view draws its chart; the other views have none that waits.
useOpening(() => followed.load({ chartFirst: route.path === `/clients/${followed.clientId}` }))
useHead({ title: () => `${client.value?.name ?? 'Client'}, Oak Pinch` })

/** The record asks for no numbers: the coach looks at folds at one press, at percent and masses with a reason on record. */
const asksNeutral = computed(() => client.value !== null && isNeutral(client.value, todayHere()))
const isMinor = computed(() => client.value !== null && ageInYears(client.value.birthDate, todayHere()) < ADULT_YEARS)
const leaving = ref(false)
function toggleNeutral() {
  shown.value = !bare.value ? 'nothing' : asksNeutral.value ? 'folds' : 'all'
}
function left() {
  leaving.value = false
  shown.value = 'all'
}

/** What to know before anything else, and what waits for a decision. */
const notes = computed(() =>
  followed.history.value ? safetyNotes(followed.history.value, ends.value, todayHere(), sayDay) : [],
)
const suspensions = computed(() => followed.history.value?.suspensions ?? [])
const goingOn = shallowRef<Suspension | null>(null)
function decided(found: Suspension[]) {
  goingOn.value = null
  followed.take({ suspensions: found })
}

const { problem: wordsProblem, tell: tellWords } = useTelling()
/** Words for the client, with the newest check-in. */
function keepTrained(keptWords: string | null) {
  return tellWords(async () => {
    const newest = ends.value.at(-1)
    if (newest) followed.takeRecord(await checkins.change(newest.record.id, { keptWords }))
  })
}

/** Moving the pinned start; the left jaw goes with it. */
const pinning = ref(false)
function pinned(pins: PinnedStart[]) {
  pinning.value = false
  followed.takePins(pins)
}

/** The views under the tape of time, each with an address of its own. */
const VIEWS = [
  { path: '', name: 'Span' },
  { path: '/check-in', name: 'Check-in' },
  { path: '/diary', name: 'Weight diary' },
  { path: '/plan', name: 'Plan' },
  { path: '/energy', name: 'Energy' },
  { path: '/photographs', name: 'Photographs' },
  { path: '/methods', name: 'Methods' },
  { path: '/error', name: 'Error' },
  { path: '/check-ins', name: 'All check-ins' },
] as const
const instants = computed(() => ends.value.map(({ record }) => record.startedAt))
const schedule = computed(() => followed.history.value?.schedule ?? USUAL_SCHEDULE)
const next = computed(() => nextDate(followed.records.value.at(-1)?.day ?? null, schedule.value, todayHere()))
const scheduling = ref(false)

/** The check-in nearest to twelve weeks before the newest. */
const twelveWeeks = computed(() => {
  const wanted = +subWeeks(instants.value.at(-1) ?? '', 12)
  const distance = (at: string) => Math.abs(Date.parse(at) - wanted)
  return instants.value.reduce((best, at, i) => (distance(at) < distance(instants.value[best] ?? '') ? i : best), 0)
})
const shortcuts = computed(() => {
  const last = instants.value.length - 1
  const twelve = Math.min(twelveWeeks.value, last - 1)
  const all = [
    { name: 'Last two', from: last - 1 },
    { name: 'Twelve weeks', from: twelve },
    { name: 'Pinned start to now', from: pinnedIndex.value },
    ...(pinnedIndex.value > 0 ? [{ name: 'First to last', from: 0 }] : []),
    ...(planned.startIndex.value >= 0 ? [{ name: 'Plan start to now', from: planned.startIndex.value }] : []),
  ]
  return all.map((one) => ({ ...one, to: last })).filter(({ from, to }) => from >= 0 && from < to)
})
const takeHome = computed(() => {
  const query = new URLSearchParams({ neutral: String(bare.value) })
  if (then.value) query.set('from', then.value.record.id)
  if (now.value) query.set('to', now.value.record.id)
  return `/api/clients/${client.value?.id}/take-home?${query}`
})
</script>

<template>
  <div v-if="client" class="flex flex-1 flex-col">
    <div class="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-4 py-2 sm:px-6 lg:flex-nowrap">
      <h1 class="text-3xl font-bold lg:whitespace-nowrap">{{ client.name }}</h1>
      <p
        class="min-w-0 text-[15px] leading-5 text-faded lg:flex-1 lg:truncate"
        :title="bare ? undefined : now?.result.estimate?.equation.label"
      >
        {{ ageInYears(client.birthDate, todayHere()) }}<template v-if="client.athlete">, athlete</template
        ><template v-if="client.heightCm && !bare">, {{ formatHeight(client.heightCm, store.units) }}</template
        ><template v-if="!client.archived">
          ·
          <button
            class="underline decoration-dotted underline-offset-4"
            :title="reasonSaid(next, sayDay)"
            data-next
            @click="scheduling = true"
          >
            next about {{ sayDay(next.day) }}
          </button></template
        ><template v-if="now && !bare"> · {{ now.facts.protocol.name.toLowerCase() }}</template
        ><template v-if="now?.result.estimate && !bare"> · {{ now.result.estimate.equation.label }}</template>
        <span v-if="client.archived" class="font-semibold text-alert"> · archived</span>
      </p>
      <div
        class="no-print ml-auto flex flex-wrap gap-2 max-sm:ml-0 max-sm:w-full max-sm:[&>*]:flex-1 max-sm:[&>*]:px-2"
      >
        <button
          v-if="now"
          class="press press-quiet"
          :class="{ 'press-first': bare }"
          :aria-pressed="bare"
          title="No number about the body on this page and the page to take home"
          @click="toggleNeutral"
        >
          Neutral
        </button>
        <button
          v-if="now && shown === 'folds' && (!isMinor || store.isLead)"
          class="press press-quiet"
          @click="leaving = true"
        >
          Percent and masses
        </button>
        <NuxtLink :to="`/clients/${client.id}/from-home`" class="press press-quiet">From home</NuxtLink>
        <NuxtLink :to="`/clients/${client.id}/edit`" class="press press-quiet">Change</NuxtLink>
        <a v-if="now" :href="takeHome" class="press" download>Take home</a>
        <NuxtLink v-if="open" :to="`/measure/${open.id}`" class="press press-first">Go on measuring</NuxtLink>
        <NuxtLink v-else-if="!client.archived" :to="`/clients/${client.id}/measure`" class="press press-first"
          >Measure</NuxtLink
        >
      </div>
    </div>

    <LazySetAside
      v-if="outbox.aside.length > 0 || outbox.refusedStarts.length > 0"
      class="mx-4 my-3 sm:mx-6"
      :client-id="client.id"
    />
    <LazyNeutralDialog
      v-if="leaving"
      :client-id="client.id"
      :name="client.name"
      @close="leaving = false"
      @left="left"
    />
    <LazyScheduleDialog
      v-if="scheduling"
      :client-id="client.id"
      :schedule="schedule"
      :last-day="followed.records.value.at(-1)?.day ?? null"
      @close="scheduling = false"
      @set="(set) => (followed.take({ schedule: set }), (scheduling = false))"
    />
    <LazyPinDialog
      v-if="pinning"
      :client-id="client.id"
      :ends="ends"
      :pinned="pinnedIndex"
      @close="pinning = false"
      @pinned="pinned"
    />
    <LazyGoOnDialog
      v-if="goingOn"
      :client-id="client.id"
      :suspension="goingOn"
      @close="goingOn = null"
      @decided="decided"
    />
    <SafetyNotes
      v-if="notes.length + suspensions.length > 0"
      class="no-print"
      :client-id="client.id"
      :notes="notes"
      :bare="bare"
      :suspensions="suspensions"
      @go-on="goingOn = $event"
    />
    <NeutralRecord v-if="now && bare" :ends="ends" :schedule="schedule" :problem="wordsProblem" :keep="keepTrained" />
    <template v-else-if="now && figures">
      <TimeTape
        v-if="ends.length > 1"
        class="border-b border-rule"
        :instants="instants"
        :from="fromIndex"
        :to="toIndex"
        :pinned="pinnedIndex"
        :searched="searched"
        @jaws="followed.setJaws"
        @pin="pinning = true"
      />
      <SpanFigures
        :figures="figures"
        :span="span"
        :now="now"
        :units="store.units"
        :neutral="neutral"
        :judging="judging"
        :noises="followed.noises.value"
      />
      <p
        v-if="unasked?.steadySince"
        class="border-b border-rule px-4 py-1.5 text-[15px] font-semibold sm:px-6"
        data-steady-since
      >
        Steady since {{ sayDay(unasked.steadySince) }}.
      </p>
      <ComparabilityNotes
        v-if="comparability"
        :comparability="comparability"
        :summed="span?.summed ?? null"
        :searched="searched"
      />
      <div class="no-print flex flex-wrap items-center gap-x-6 border-b border-rule px-4 sm:px-6">
        <nav class="flex flex-wrap gap-x-6" aria-label="Views of the record">
          <NuxtLink
            v-for="view in VIEWS"
            :key="view.path"
            :to="`/clients/${client.id}${view.path}`"
            class="flex min-h-11 items-center border-b-3 border-transparent pt-[3px]"
            exact-active-class="border-ink stroke-bold"
            >{{ view.name }}</NuxtLink
          >
        </nav>
        <div class="ml-auto flex flex-wrap gap-x-5" data-shortcuts>
          <button
            v-for="one in shortcuts"
            :key="one.name"
            class="min-h-11 text-[15px] underline underline-offset-4"
            :class="{ 'stroke-bold': one.from === fromIndex && one.to === toIndex }"
            @click="followed.setJaws(one.from, one.to)"
          >
            {{ one.name }}
          </button>
        </div>
      </div>
      <NuxtPage />
      <p v-if="client.notes" class="border-t border-rule px-4 py-2 text-[15px] sm:px-6">{{ client.notes }}</p>
    </template>
    <div v-else class="max-w-xl px-4 py-8 sm:px-6">
      <p class="text-lg">{{ open ? 'The first check-in is under way.' : 'Not measured yet.' }}</p>
      <p v-if="!client.consentOn" class="mt-2 text-faded">
        Consent is not on record. Talk it through, then note it under
        <NuxtLink :to="`/clients/${client.id}/edit`" class="underline">Change</NuxtLink>.
      </p>
      <p v-if="client.notes" class="mt-4 border-l-4 border-rule pl-3">{{ client.notes }}</p>
    </div>
  </div>
  <p v-else class="p-6 text-faded">Fetching the record.</p>
</template>
