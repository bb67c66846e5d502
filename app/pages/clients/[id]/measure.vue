<script setup lang="ts">
import type { Client } from '#shared/schemas/client'
import { cautionFacts, cautionsFor } from '#core/cautions'
import { composeWith } from '#core/composition/checkin'
import { ageInYears, breaksHistory, CONDITIONS, conditionChanges, suggestProtocols } from '#core/composition'
import { bmi } from '#core/equations/measures'
import { isChoosable, OWN_POLICIES, type ChosenPolicies } from '#core/readings'
import { isFold, type SiteId } from '#core/sites'
import { findProtocol, PROTOCOLS } from '#core/protocols'
import { caliperFacts, checkinFacts } from '#shared/checkin-facts'
import { formatNumber } from '#core/units'
import type { Caliper } from '#shared/schemas/caliper'
import type { PrepareFacts } from '#shared/schemas/checkin'
import { useMe } from '~/stores/me'
import { clients } from '~/calls'

const route = useRoute()
const router = useRouter()
const store = useMe()
const starter = useStartCheckin()
const facts = shallowRef<PrepareFacts | null>(null)

const protocolId = ref<string>('laboratory-7')
const protocol = computed(() => findProtocol(protocolId.value) ?? PROTOCOLS['laboratory-7'])
const conditions = ref<Record<string, string>>({})
const caliperId = ref<string | null>(null)
const assessorId = ref<string | null>(null)
const recorderId = ref<string | null>(null)
const withHeight = ref(false)
const policies = ref<ChosenPolicies>({ ...OWN_POLICIES })
const fromPaper = ref(route.query.paper === '1')
const measuredAt = ref('')
const paperProblem = ref<string | undefined>()

const client = computed(() => facts.value?.client ?? null)
const last = computed(() => facts.value?.last ?? null)
/** The last visit composed without equations: its weight and its largest fold. */
const before = computed(() => {
  const record = last.value
  const person = client.value
  if (!record || !person) return null
  return composeWith([], checkinFacts(record, person))
})
const about = computed(() => {
  const person = client.value
  const folds = (before.value?.session.sites ?? []).filter(({ site }) => isFold(site))
  const largest = Math.max(0, ...folds.map(({ value }) => value ?? 0))
  const kg = before.value?.weightKg ?? null
  return {
    sex: person?.sex ?? ('female' as const),
    ageYears: person ? ageInYears(person.birthDate, todayHere()) : 0,
    pregnant: person?.flags.includes('pregnant') ?? false,
    gentle: person?.flags.includes('anticoagulants') ?? false,
    bmi: kg !== null && person?.heightCm ? bmi(kg, person.heightCm) : null,
    largestFoldMm: before.value?.sumMm === null ? null : largest,
    lastProtocolId: last.value?.protocolId ?? null,
  }
})
const suggestions = computed(() => suggestProtocols(about.value))
/** Why the chosen set is proposed, or what it is for. */
const why = computed(
  () => suggestions.value.find((one) => one.protocolId === protocolId.value)?.reason ?? protocol.value.purpose,
)
const others = computed(() => suggestions.value.filter((one) => one.protocolId !== protocolId.value))
const broken = computed(() => breaksHistory(protocolId.value, last.value?.protocolId ?? null))
watch(protocol, (set) => {
  // A way of reading that the new set does not know falls back to its own.
  if (!isChoosable(set, policies.value)) policies.value = { ...OWN_POLICIES }
})
const people = computed(() => facts.value?.staff ?? [])
const calipers = computed(() => [
  { id: null, name: 'not noted' },
  ...(facts.value?.calipers ?? []).map((one) => ({ id: one.id, name: one.name, note: checkSaid(one) })),
])
/** How a caliper stood at its last check. */
function checkSaid({ checkedOn, deviationMm }: Caliper): string {
  return checkedOn
    ? `Checked ${sayAgo(checkedOn)}, ${formatNumber(deviationMm ?? 0)} mm off.`
    : 'Never checked against its block.'
}
const caliper = computed(() => facts.value?.calipers.find(({ id }) => id === caliperId.value) ?? null)
const cautions = computed(() => {
  const person = client.value
  if (!person) return []
  const used = caliper.value
  const { bmi: index, largestFoldMm } = about.value
  const today = todayHere()
  return cautionsFor(
    cautionFacts(person, today, { bmi: index, largestFoldMm, caliper: used && caliperFacts(used, today) }),
  )
})
/** What a greyed Start waits for. */
const missing = computed(() =>
  client.value?.consentOn ? 'Waits for a guardian’s consent' : 'Waits for the client’s consent',
)
function consented(changed: Client) {
  if (facts.value) facts.value = { ...facts.value, client: changed }
}
/** What was read last time is asked for again. */
const read = computed(() => Object.keys(before.value?.values ?? {}) as SiteId[])
const blocked = computed(() => cautions.value.some(({ effects }) => effects.includes('not-yet')))
const changes = computed(() => conditionChanges(last.value?.conditions ?? {}, conditions.value))
const changed = computed(() => new Map(changes.value.map(({ condition, then }) => [condition.id, then.name])))
const hasLastConditions = computed(() => Object.keys(last.value?.conditions ?? {}).length > 0)

function asLastTime() {
  conditions.value = { ...(last.value?.conditions ?? {}) }
}

useOpening(async () => {
  const found = await clients.prepare(String(route.params.id))
  if (found.openCheckinId) return void (await router.replace(`/measure/${found.openCheckinId}`))
  facts.value = found
  protocolId.value = suggestions.value[0]?.protocolId ?? 'laboratory-7'
  const known = found.calipers.map(({ id }) => id)
  caliperId.value = known.find((id) => id === found.last?.caliperId) ?? known[0] ?? null
  assessorId.value = store.me?.staff.id ?? null
  withHeight.value = found.client.heightCm === null
  policies.value = found.last && found.last.protocolId === protocolId.value ? found.last.policies : { ...OWN_POLICIES }
  asLastTime()
})
useHead({ title: () => `Prepare ${client.value?.name ?? ''}, Oak Pinch` })

function start() {
  if (!facts.value) return
  const startedAt = fromPaper.value ? new Date(measuredAt.value || NaN) : new Date()
  paperProblem.value = Number.isNaN(startedAt.getTime())
    ? 'Please give the date and time of the measuring.'
    : startedAt > new Date()
      ? 'This time is still to come: please check it.'
      : undefined
  if (paperProblem.value) return
  const prepared = {
    startedAt: startedAt.toISOString(),
    protocolId: protocolId.value,
    conditions: conditions.value,
    policies: policies.value,
    caliperId: caliperId.value,
    assessorId: assessorId.value,
    recorderId: recorderId.value,
    withHeight: withHeight.value,
  }
  void starter.start(String(route.params.id), prepared, facts.value, fromPaper.value)
}
</script>

<template>
  <form v-if="facts && client" class="w-full px-4 py-4 sm:px-6" @submit.prevent="start">
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
      <h1 class="text-3xl font-bold">{{ client.name }}</h1>
      <p class="text-faded">Prepare{{ last ? `; last measured ${sayAgo(last.day)}` : ': the first check-in' }}</p>
      <p v-if="blocked" id="why-not" class="ml-auto text-[15px] font-semibold text-alert">
        {{ missing }}
      </p>
      <div class="flex gap-2" :class="{ 'ml-auto': !blocked }">
        <NuxtLink :to="`/clients/${client.id}`" class="press press-quiet min-h-12">Leave</NuxtLink>
        <button
          class="press press-first min-h-12 px-8 text-lg"
          :disabled="blocked || starter.starting.value"
          :aria-describedby="blocked ? 'why-not' : undefined"
        >
          Start
        </button>
      </div>
    </div>
    <p v-if="starter.problem.value" role="alert" class="mt-3 font-semibold text-alert">{{ starter.problem.value }}</p>
    <ul v-if="cautions.length > 0" class="mt-3 grid gap-1 border-l-4 border-fat pl-3" data-cautions>
      <li v-for="caution in cautions" :key="caution.code">
        {{ caution.sentence }}
      </li>
    </ul>
    <ConsentNote v-if="blocked" class="mt-3" :client="client" @noted="consented" />
    <div class="mt-4 grid gap-x-12 gap-y-5 lg:grid-cols-2">
      <section aria-labelledby="what" class="grid content-start gap-3">
        <h2 id="what" class="min-h-10 border-b-2 border-ink pb-1 text-lg font-bold">What is measured</h2>
        <div class="grid gap-1">
          <SetField v-model="protocolId" />
          <p class="text-[15px] text-faded" data-why>{{ why }}</p>
        </div>
        <ul v-if="others.length > 0" class="grid gap-1" aria-label="Other proposals">
          <li v-for="one in others" :key="one.protocolId" class="flex items-baseline gap-3">
            <button type="button" class="press press-quiet min-h-10 shrink-0 px-3" @click="protocolId = one.protocolId">
              {{ findProtocol(one.protocolId)?.name }}
            </button>
            <span class="text-[15px] text-faded">{{ one.reason }}</span>
          </li>
        </ul>
        <p v-if="broken" class="border-l-4 border-fat pl-3 text-[15px]" data-breaks>{{ broken }}</p>
        <PolicyChoice v-model="policies" :protocol="protocol" />
        <label class="flex min-h-11 items-center gap-3">
          <input v-model="withHeight" type="checkbox" name="withHeight" class="size-5 accent-ink" />
          Measure the height too, three trials
        </label>
        <div class="grid gap-3 sm:grid-cols-3">
          <div class="grid content-start gap-1">
            <ListField v-model="caliperId" label="Caliper" name="caliper" :options="calipers" />
            <p v-if="caliper" class="text-sm text-faded">{{ checkSaid(caliper) }}</p>
          </div>
          <ListField v-model="assessorId" label="Measures" name="assessor" :options="people" />
          <ListField
            v-model="recorderId"
            label="Records"
            name="recorder"
            :options="[{ id: null, name: 'nobody else' }, ...people]"
          />
        </div>
        <div class="flex flex-wrap items-start gap-x-6 gap-y-2 border-t border-rule pt-2">
          <label class="flex min-h-11 items-center gap-3">
            <input v-model="fromPaper" type="checkbox" name="fromPaper" class="size-5 accent-ink" />
            Typed in from paper
          </label>
          <FormField v-if="fromPaper" v-slot="{ attrs }" label="Measured on" name="measuredAt" :problem="paperProblem">
            <input v-bind="attrs" v-model="measuredAt" type="datetime-local" class="field" />
          </FormField>
          <NuxtLink
            :to="`/clients/${client.id}/paper?protocol=${protocolId}`"
            class="flex min-h-11 items-center underline underline-offset-4"
          >
            Print a blank log sheet
          </NuxtLink>
        </div>
      </section>
      <section aria-labelledby="conditions" class="grid content-start gap-2">
        <div class="flex min-h-10 items-baseline border-b-2 border-ink pb-1">
          <h2 id="conditions" class="text-lg font-bold">Conditions</h2>
          <button
            v-if="hasLastConditions"
            type="button"
            class="ml-auto underline underline-offset-4"
            @click="asLastTime"
          >
            all as last time
          </button>
        </div>
        <div
          v-for="condition in CONDITIONS"
          :key="condition.id"
          class="flex flex-wrap items-center gap-2 border-b border-rule py-1"
          role="group"
          :aria-label="condition.label"
        >
          <span class="w-32 font-semibold">{{ condition.label }}</span>
          <button
            v-for="option in condition.options"
            :key="option.id"
            type="button"
            class="press min-h-10 px-3"
            :class="conditions[condition.id] === option.id ? 'press-first' : 'press-quiet'"
            :aria-pressed="conditions[condition.id] === option.id"
            @click="conditions = { ...conditions, [condition.id]: option.id }"
          >
            {{ option.name }}
          </button>
          <span v-if="changed.get(condition.id)" class="text-sm font-semibold text-alert">
            last time {{ changed.get(condition.id) }}
          </span>
        </div>
        <p class="text-sm text-faded">
          The same each time: what differs moves water under the skin and reads as fat. Clean the caliper between
          clients.
        </p>
      </section>
      <OrderPreview class="lg:col-span-2" :protocol="protocol" :sex="client.sex" :wished="read" :policies="policies" />
    </div>
  </form>
  <p v-else class="p-6 text-faded">Fetching the record.</p>
</template>
