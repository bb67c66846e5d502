<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { addDays, instantAt, localDay } from '#core/calendar'
import { PROTOCOLS } from '#core/protocols'
import {
  BOOKING_MINUTES,
  CADENCE_DAYS,
  conflictsOf,
  minuteOfDay,
  reasonSaid,
  seriesOf,
  type Absence,
  type Slot,
} from '#core/schedule'
import type { StaffRecord } from '#shared/schemas/account'
import type { BookingLine, BookingProposal } from '#shared/schemas/booking'
import type { Picked } from '../forms/picked'
import { clients, staff as staffCalls } from '~/calls'
import { useMe } from '~/stores/me'
import { bookings } from '~/week-calls'
import { clockOf } from './ruler'

/** Booking a visit, or moving one. What is asked is filled with what is likely: their date, the hour of last time. */
const props = defineProps<{
  /** Who is booked; null: to be chosen. */
  client: { id: string; name: string } | null
  /** Where it was pressed; null: as proposed. */
  at: { day: string; minute: number } | null
  /** A visit that is moved. */
  moving: BookingLine | null
}>()
const emit = defineEmits<{ close: []; booked: [day: string, id: string] }>()
const problems = useProblems(['clientId', 'startsAt', 'visits.0.startsAt', 'minutes', 'place'])

const AGAIN = [1, 2, 3, 4, 6, 8, 12].map((id) => ({ id, name: id === 1 ? 'once' : `${id} times, by their cadence` }))
const store = useMe()
const SETS = [
  { id: '', name: 'the one of last time' },
  ...(store.me?.sets ?? []).filter(({ offered }) => offered).map(({ id, name }) => ({ id, name })),
  ...Object.values(PROTOCOLS).map(({ id, name }) => ({ id: id as string, name })),
]

const own = reactive({
  clientId: props.moving?.clientId ?? props.client?.id ?? (null as string | null),
  day: props.at?.day ?? todayHere(),
  time: props.at ? clockOf(props.at.minute) : '',
  minutes: props.moving ? String(props.moving.minutes) : '',
  assessorId: props.moving?.assessorId ?? ('' as string),
  place: props.moving?.place ?? '',
  protocolId: props.moving?.protocolId ?? '',
  times: 1,
})
const proposal = ref<BookingProposal | null>(null)
const found = ref<Picked[]>(props.client ? [props.client] : [])
const people = ref<StaffRecord[]>([])
const around = shallowRef<{ bookings: readonly BookingLine[]; absences: readonly Absence[] }>({
  bookings: [],
  absences: [],
})
const refused = ref<Record<string, string>>({})
const names = computed(() => new Map(people.value.map(({ id, name }) => [id, name])))
const assessors = computed(() => [
  { id: '', name: 'whoever is there' },
  ...people.value.filter(({ active, role }) => active && role !== 'recorder').map(({ id, name }) => ({ id, name })),
])

const typedMinute = computed(() => {
  const [, hours, minutes] = /^(\d\d):(\d\d)$/.exec(own.time) ?? []
  return hours && minutes ? 60 * Number(hours) + Number(minutes) : null
})
const startsAt = computed(() =>
  /^\d{4}-\d\d-\d\d$/.test(own.day) && typedMinute.value !== null
    ? instantAt(own.day, typedMinute.value, studioZone())
    : null,
)
const slot = computed<Slot | null>(() =>
  startsAt.value
    ? {
        id: props.moving?.id ?? '',
        clientId: own.clientId ?? '',
        assessorId: own.assessorId || null,
        place: own.place,
        startsAt: startsAt.value,
        minutes: Number(own.minutes) || 15,
      }
    : null,
)
const clashes = computed(() => {
  const staying = around.value.bookings.filter(({ state }) => state === 'booked')
  return slot.value ? conflictsOf(slot.value, staying, around.value.absences, studioZone()) : []
})
const cadence = computed(() => proposal.value?.next.cadenceDays ?? CADENCE_DAYS)

const find = useDebounceFn(async (typed: string) => {
  const page = await clients.find(typed).catch(() => null)
  found.value = page?.clients.map(({ id, name }) => ({ id, name })) ?? found.value
}, 150)

onMounted(async () => {
  if (!props.client && !props.moving) void find('')
  people.value = await staffCalls.list().catch(() => [])
})
watch(
  () => own.clientId,
  async (id) => {
    proposal.value = id ? await bookings.propose(id).catch(() => null) : null
    const found = proposal.value
    if (!found || props.moving) return
    own.minutes = String(found.minutes)
    own.assessorId = found.assessorId ?? ''
    own.place ||= found.place
    // The hour of last time stands even where a day was pressed on; a time that was pressed on stays.
    if (props.at) return
    own.day = localDay(found.startsAt, studioZone())
    own.time = clockOf(minuteOfDay(found.startsAt, studioZone()))
  },
  { immediate: true },
)
watch(
  () => own.day,
  async (day) => {
    if (!/^\d{4}-\d\d-\d\d$/.test(day)) return
    around.value = await bookings.list(addDays(day, -1), addDays(day, 1)).catch(() => around.value)
  },
  { immediate: true },
)

const WHY: Record<BookingProposal['why'], string> = {
  'hour-of-last-time': 'at the hour of last time',
  'usual-hour': 'early evening, as nothing is known of their hours yet',
  'nearest-free': 'the free quarter nearest to the hour of last time',
}

function check(): boolean {
  refused.value = {}
  if (!own.clientId) refused.value.clientId = 'Choose who comes.'
  if (!startsAt.value) refused.value.startsAt = 'Give a day and a time.'
  else if (Date.parse(startsAt.value) < Date.now() - 15 * 60_000)
    refused.value.startsAt = 'This time has passed: give one from now on.'
  const minutes = Number(own.minutes)
  if (!Number.isInteger(minutes) || minutes < BOOKING_MINUTES.low || minutes > BOOKING_MINUTES.high)
    refused.value.minutes = `From ${BOOKING_MINUTES.low} to ${BOOKING_MINUTES.high} minutes.`
  return Object.keys(refused.value).length === 0
}

async function keep() {
  if (!check() || !startsAt.value || !own.clientId) return
  const common = { assessorId: own.assessorId || null, place: own.place, minutes: Number(own.minutes) }
  const { moving } = props
  if (moving) {
    const change = { ...common, startsAt: startsAt.value, sequence: moving.sequence }
    if (await problems.send(() => bookings.change(moving.id, change))) emit('booked', own.day, moving.id)
    return
  }
  const times = seriesOf(startsAt.value, cadence.value, own.times, studioZone())
  const visits = times.map((one) => ({ id: uuid(), startsAt: one }))
  const input = { clientId: own.clientId, ...common, protocolId: own.protocolId || null, visits }
  if (await problems.send(() => bookings.add(input))) emit('booked', own.day, visits[0]?.id ?? '')
}
const timeProblem = computed(
  () =>
    refused.value.startsAt ?? problems.byField.value.get('startsAt') ?? problems.byField.value.get('visits.0.startsAt'),
)
</script>

<template>
  <SheetDialog
    :title="moving ? `Move the visit of ${moving.clientName}` : client ? `Book ${client.name}` : 'Book a visit'"
    wide
    data-booking
    @close="emit('close')"
  >
    <form class="grid gap-4" novalidate @submit.prevent="keep">
      <div v-if="!client && !moving" class="grid gap-1">
        <PickField v-model="own.clientId" label="Who comes" name="clientId" :options="found" @find="find" />
        <p v-if="refused.clientId" role="alert" class="text-sm font-semibold text-alert">{{ refused.clientId }}</p>
      </div>
      <p v-if="proposal && !moving" class="border-l-4 border-ink pl-3 text-[15px]" data-proposal>
        Next about <strong>{{ sayDay(proposal.next.day) }}</strong>, {{ reasonSaid(proposal.next, sayDay) }}. Proposed:
        {{ sayDay(proposal.startsAt) }}, {{ sayTime(proposal.startsAt) }}, {{ WHY[proposal.why] }};
        {{ proposal.minutes }} minutes,
        {{ proposal.minutesFrom === 'studio' ? 'as such visits take here' : 'as such visits usually take' }}.
      </p>
      <div class="grid items-start gap-3 sm:grid-cols-[1fr_8rem_7rem]">
        <TextField v-model="own.day" label="Day" name="day" type="date" :min="todayHere()" :problem="timeProblem" />
        <TextField v-model="own.time" label="Time" name="time" type="time" step="300" class="figure" />
        <TextField
          v-model="own.minutes"
          label="Minutes"
          name="minutes"
          class="figure"
          inputmode="numeric"
          :problem="refused.minutes"
        />
      </div>
      <div class="grid items-start gap-3 sm:grid-cols-2">
        <ListField v-model="own.assessorId" label="Who measures" name="assessorId" :options="assessors" />
        <TextField v-model="own.place" label="Where, if it matters" name="place" maxlength="60" autocomplete="off" />
      </div>
      <div v-if="!moving" class="grid items-start gap-3 sm:grid-cols-2">
        <ListField v-model="own.protocolId" label="Set of sites" name="protocolId" :options="SETS" />
        <ListField v-model="own.times" label="How often" name="times" :options="AGAIN" />
      </div>
      <ul v-if="clashes.length > 0" class="grid gap-1" data-clashes>
        <li v-for="clash in clashes" :key="clash.kind" class="font-semibold text-alert">
          {{ conflictSaid(clash, names) }}
        </li>
      </ul>
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="flex gap-2">
        <button class="press press-first min-h-11">
          {{ moving ? 'Move it' : own.times > 1 ? `Book ${own.times} visits` : 'Book it'
          }}<template v-if="clashes.length > 0"> all the same</template>
        </button>
        <button type="button" class="press press-quiet min-h-11" @click="emit('close')">Leave</button>
      </div>
    </form>
  </SheetDialog>
</template>
