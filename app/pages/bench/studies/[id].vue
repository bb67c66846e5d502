<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { SITES } from '#core/sites'
import { findProtocol } from '#core/protocols'
import { doubtWords, ENOUGH_TO_FEED, PEOPLE_WANTED } from '#core/study'
import type { StudyRecord } from '#shared/schemas/study'
import { checkins, clients } from '~/calls'
import { studies } from '~/bench-calls'
import { useLiveStudy } from '~/composables/useLive'
import { useMe } from '~/stores/me'

const id = String(useRoute().params.id)
const router = useRouter()
const store = useMe()
const study = ref<StudyRecord | null>(null)
const { problem, tell, busy } = useTelling()
const voiding = ref<string | null>(null)
const leaving = ref(false)
const candidates = ref<{ id: string; name: string }[]>([])
const adding = ref<string | null>(null)

const take = (action: () => Promise<StudyRecord>) =>
  tell(async () => {
    study.value = await action()
  })
useOpening(async () => {
  study.value = await studies.read(id)
  await find('')
})
useLiveStudy(id, () => void take(() => studies.read(id)))
useHead({ title: () => `${study.value?.name ?? 'Study'}, Oak Pinch` })

async function find(typed: string) {
  const { clients: lines } = await clients.find(typed)
  candidates.value = lines.map(({ id: clientId, name }) => ({ id: clientId, name }))
}
watch(adding, async (clientId) => {
  if (clientId && (await take(() => studies.addPerson(id, { id: uuid(), clientId })))) adding.value = null
})

const wanted = computed(() =>
  study.value ? study.value.people.length * (study.value.kind === 'repeat' ? 2 : study.value.pens.length) : 0,
)
const done = computed(() => study.value?.turns.filter(({ finished }) => finished).length ?? 0)
const waiting = computed(() => study.value?.pens.filter(({ staffId, agreedOn }) => staffId && !agreedOn) ?? [])
const others = computed(() => study.value?.pens.filter((pen) => pen.id !== study.value?.referencePenId) ?? [])
const referenceName = computed(
  () => study.value?.pens.find((pen) => pen.id === study.value?.referencePenId)?.name ?? '',
)
const KIND_WORDS = {
  repeat: 'Everybody twice by the same hand. Wipe the marks after each turn; what was read first stays hidden.',
  assessors: 'Everybody by each, in the order of the row, the marks wiped in between.',
  calipers: 'Everybody with each caliper, in the order of the row, by the same hand and on the same marks.',
}
const personName = (personId: string) =>
  study.value?.people.find((person) => person.id === personId)?.name ?? 'Somebody'

function measure(personId: string, penId: string) {
  return tell(async () => {
    const turn = { id: uuid(), personId, penId, startedAt: new Date().toISOString() }
    const { id: checkinId } = await studies.startTurn(id, turn)
    await router.push(`/measure/${checkinId}`)
  })
}

async function voidTurn(reason: string) {
  await checkins.void(voiding.value ?? '', reason)
  voiding.value = null
  study.value = await studies.read(id)
}

async function leaveOut(reason: string) {
  study.value = await studies.leaveOut(id, reason)
  leaving.value = false
}
</script>

<template>
  <section
    v-if="study"
    class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-4 px-4 py-4 sm:px-6"
    :aria-label="study.name"
  >
    <div class="flex flex-wrap items-end gap-x-6 gap-y-2">
      <div class="min-w-0">
        <h2 class="text-2xl font-bold">{{ study.name }}</h2>
        <p class="text-faded">
          {{ study.pens.map(({ name }) => name).join(' and ') }}; {{ findProtocol(study.protocolId)?.name }},
          {{ study.sites.map((site) => SITES[site].name.toLowerCase()).join(', ') }}
        </p>
      </div>
      <p class="ml-auto text-right" data-progress>
        <span class="figure text-3xl font-bold">{{ done }}</span>
        <span class="text-faded"> of {{ wanted }} turns</span>
      </p>
    </div>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>

    <template v-if="study.result">
      <p class="border-l-4 border-rule pl-3" data-feeds>
        Closed {{ sayDay(study.closedOn ?? '') }}, {{ study.result.people }} people measured by everybody.
        <template v-if="study.leftOutReason">Left out of the error model: {{ study.leftOutReason }}</template>
        <template v-else-if="study.result.people < ENOUGH_TO_FEED"
          >Too few for the error model, which takes {{ ENOUGH_TO_FEED }}.</template
        >
        <template v-else>It counts in every verdict since.</template>
        <template v-if="store.isLead">
          <button
            v-if="!study.leftOutReason"
            type="button"
            class="ml-2 underline underline-offset-4"
            @click="leaving = true"
          >
            leave it out
          </button>
          <button
            v-else
            type="button"
            class="ml-2 underline underline-offset-4"
            @click="take(() => studies.leaveOut(id, null))"
          >
            take it in again
          </button>
        </template>
      </p>
      <ul v-if="study.result.doubts.length > 0" class="grid gap-1" data-doubts>
        <li v-for="(doubt, i) in study.result.doubts" :key="i" class="border-l-4 border-fat pl-3">
          {{ doubtWords(doubt, personName) }}
        </li>
      </ul>
      <RepeatResult v-if="study.kind === 'repeat'" :sites="study.result.repeats" />
      <SideResult v-else :sites="study.result.sides" :pens="others" :reference-name="referenceName" />
    </template>

    <div class="grid gap-x-10 gap-y-4 max-lg:grid-cols-[minmax(0,1fr)] lg:grid-cols-[3fr_1fr]">
      <div class="min-w-0">
        <p v-if="!study.closedOn" class="mb-1 max-w-prose text-faded">{{ KIND_WORDS[study.kind] }}</p>
        <TurnTable
          v-if="study.people.length > 0"
          :study="study"
          @measure="measure"
          @drop="(person) => take(() => studies.dropPerson(id, person))"
          @void="voiding = $event"
        />
        <p v-else class="text-lg">Nobody in it yet.</p>
      </div>
      <div v-if="!study.closedOn" class="grid content-start gap-4">
        <PickField v-model="adding" label="Add who is measured" name="person" :options="candidates" @find="find" />
        <p class="text-[15px] text-faded">
          {{ study.people.length }} in it; {{ PEOPLE_WANTED.least }} at least, {{ PEOPLE_WANTED.accreditation }} for an
          accreditation. Only people whose consent is on record.
        </p>
        <div v-for="pen in waiting" :key="pen.id" class="border-l-4 border-fat pl-3">
          <p>{{ pen.name }} has not agreed to be compared.</p>
          <button type="button" class="press mt-1" @click="take(() => studies.agree(id, pen.id, todayHere()))">
            {{ pen.name }} agreed today
          </button>
        </div>
        <button
          type="button"
          class="press justify-self-start"
          :class="{ 'press-first': done === wanted && done > 0 }"
          :disabled="busy || done === 0"
          @click="take(() => studies.close(id))"
        >
          Close and show what it says
        </button>
      </div>
    </div>
    <ReasonDialog
      v-if="voiding"
      title="Void a turn"
      name="reason"
      action="Void it"
      leave="Keep it"
      :send="voidTurn"
      @close="voiding = null"
      >It counts for nothing any more and can be measured again; its readings stay on record.</ReasonDialog
    >
    <ReasonDialog
      v-if="leaving"
      title="Leave a study out"
      name="reason"
      action="Leave it out"
      leave="Keep it"
      :send="leaveOut"
      @close="leaving = false"
      >Verdicts are worked out without it from then on; the study and its reason stay on record.</ReasonDialog
    >
  </section>
</template>
