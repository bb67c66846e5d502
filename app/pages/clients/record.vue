<script setup lang="ts">
import { ageInYears } from '#core/composition'
import { nextDate, USUAL_SCHEDULE } from '#core/schedule'
import { ADULT_YEARS } from '#core/cautions'
import type { Suspension } from '#core/safety'
import { isNeutral } from '#shared/neutral'
import { safetyNotes } from '#shared/safety-notes'
import { checkins } from '~/calls'
import { useMe } from '~/stores/me'
import { useOutbox } from '~/stores/outbox'

definePageMeta({ path: '/clients/:id' })

const route = useRoute()
const store = useMe()
const outbox = useOutbox()
const { followed } = provideClientRecord(String(route.params.id))
const { client, open, ends, then, now, span, figures, shown, neutral, bare } = followed

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

/** The views of the record, each with an address of its own. */
const VIEWS = [
  { path: '', name: 'Change' },
  { path: '/check-in', name: 'Check-in' },
  { path: '/diary', name: 'Weight' },
  { path: '/plan', name: 'Plan' },
  { path: '/energy', name: 'Energy' },
  { path: '/photographs', name: 'Photos' },
  { path: '/methods', name: 'Other devices' },
  { path: '/error', name: 'How sure' },
  { path: '/check-ins', name: 'All check-ins' },
  { path: '/from-home', name: 'Client’s link' },
] as const
/** Tape and figures belong to the change; other views have one line of it. */
const isChange = computed(() => route.path.replace(/\/$/, '') === `/clients/${followed.clientId}`)
const schedule = computed(() => followed.history.value?.schedule ?? USUAL_SCHEDULE)
const next = computed(() => nextDate(followed.records.value.at(-1)?.day ?? null, schedule.value, todayHere()))
const scheduling = ref(false)

const takeHome = computed(() => {
  const query = new URLSearchParams({ neutral: String(bare.value) })
  if (then.value) query.set('from', then.value.record.id)
  if (now.value) query.set('to', now.value.record.id)
  return `/api/clients/${client.value?.id}/take-home?${query}`
})
</script>

<template>
  <div v-if="client" class="flex flex-1 flex-col">
    <RecordHead
      :client="client"
      :next="next"
      :open="open"
      :measured="now !== null"
      :bare="bare"
      :may-leave="now !== null && shown === 'folds' && (!isMinor || store.isLead)"
      :take-home="takeHome"
      @schedule="scheduling = true"
      @numbers="toggleNeutral"
      @leave="leaving = true"
    />
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
      <nav
        class="no-print flex gap-x-4 overflow-x-auto border-b border-rule px-4 text-[15px] whitespace-nowrap sm:px-6 lg:gap-x-5 lg:text-base xl:gap-x-6"
        aria-label="Views of the record"
      >
        <NuxtLink
          v-for="view in VIEWS"
          :key="view.path"
          :to="`/clients/${client.id}${view.path}`"
          class="flex min-h-11 items-center border-b-3 border-transparent pt-[3px]"
          exact-active-class="border-ink stroke-bold"
          >{{ view.name }}</NuxtLink
        >
      </nav>
      <FoldedChange
        v-if="!isChange && span && then"
        :span="span"
        :units="store.units"
        :neutral="neutral"
        :since="sayDay(then.record.day)"
        :to="`/clients/${client.id}`"
      />
      <NuxtPage />
      <p v-if="client.notes" class="border-t border-rule px-4 py-2 text-[15px] sm:px-6">{{ client.notes }}</p>
    </template>
    <div v-else class="max-w-xl px-4 py-8 sm:px-6">
      <p class="text-lg">{{ open ? 'The first check-in is under way.' : 'Not measured yet.' }}</p>
      <p v-if="!client.consentOn" class="mt-2 text-faded">
        Consent is not on record. Talk it through, then note it under
        <NuxtLink :to="`/clients/${client.id}/edit`" class="underline">Edit details</NuxtLink>.
      </p>
      <p v-if="client.notes" class="mt-4 border-l-4 border-rule pl-3">{{ client.notes }}</p>
    </div>
  </div>
  <p v-else class="p-6 text-faded">Fetching the record.</p>
</template>
