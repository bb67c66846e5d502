<script setup lang="ts">
import X from '@lucide/vue/dist/esm/icons/x.mjs'
import { v7 as uuid } from 'uuid'
import {
  CADENCE_DAYS,
  CADENCES,
  EVENT_KINDS,
  nextDate,
  PAUSE_REASONS,
  reasonSaid,
  type ClientSchedule,
  type EventKind,
  type PauseReason,
} from '#core/schedule'
import { clients } from '~/calls'

/** When a client is measured: cadence, a pause, days that do not move. */
const props = defineProps<{ clientId: string; schedule: ClientSchedule; lastDay: string | null }>()
const emit = defineEmits<{ close: []; set: [schedule: ClientSchedule] }>()
const problems = useProblems(['cadenceDays', 'pauseUntil', 'eventDay', 'eventName'])

const own = reactive({
  cadence: props.schedule.cadenceDays ?? CADENCE_DAYS,
  days: '',
  pauseUntil: props.schedule.pause?.until ?? '',
  pauseReason: (props.schedule.pause?.reason ?? 'holiday') as PauseReason,
  eventKind: 'race' as EventKind,
  eventDay: '',
  eventName: '',
})
const events = ref([...props.schedule.events])
const today = todayHere()
const refused = ref<{ days?: string; eventDay?: string; eventName?: string; pauseUntil?: string }>({})

const cadences = [
  ...CADENCES.map(({ days, name, note }) => ({ id: days as number, name, note })),
  ...(CADENCES.some(({ days }) => days === props.schedule.cadenceDays) || props.schedule.cadenceDays === null
    ? []
    : [{ id: props.schedule.cadenceDays, name: `every ${props.schedule.cadenceDays} days`, note: 'their own' }]),
  { id: 0, name: 'another number of days', note: '' },
]
const kinds = (Object.entries(EVENT_KINDS) as [EventKind, string][]).map(([id, name]) => ({ id, name }))
const reasons = (Object.entries(PAUSE_REASONS) as [PauseReason, string][]).map(([id, name]) => ({ id, name }))

const cadenceDays = computed(() => (own.cadence === 0 ? Number(own.days) : own.cadence))
const asked = computed<ClientSchedule>(() => ({
  cadenceDays: cadenceDays.value === CADENCE_DAYS ? null : cadenceDays.value,
  pause: own.pauseUntil ? { until: own.pauseUntil, reason: own.pauseReason } : null,
  events: events.value,
}))
const next = computed(() =>
  Number.isInteger(cadenceDays.value) && cadenceDays.value > 0 ? nextDate(props.lastDay, asked.value, today) : null,
)

function addEvent(): boolean {
  refused.value = {}
  if (own.eventName.trim() === '') refused.value.eventName = 'Please give the event a name.'
  if (!own.eventDay) refused.value.eventDay = 'Please give the day.'
  else if (own.eventDay < today) refused.value.eventDay = 'This event has been: give a day from today on.'
  if (Object.keys(refused.value).length > 0) return false
  events.value = [
    ...events.value,
    { id: uuid(), kind: own.eventKind, day: own.eventDay, name: own.eventName.trim() },
  ].sort((a, b) => (a.day < b.day ? -1 : 1))
  own.eventDay = own.eventName = ''
  return true
}

async function save() {
  // What was typed and not yet added counts as meant.
  if ((own.eventDay || own.eventName.trim()) && !addEvent()) return
  refused.value = {}
  if (!Number.isInteger(cadenceDays.value) || cadenceDays.value < 1 || cadenceDays.value > 366)
    refused.value.days = 'A whole number of days, from 1 to 366.'
  if (own.pauseUntil && own.pauseUntil < today)
    refused.value.pauseUntil = 'This pause has ended: give a day from today on.'
  if (Object.keys(refused.value).length > 0) return
  const { cadenceDays: days, pause } = asked.value
  await problems.send(async () => {
    const set = await clients.setSchedule(props.clientId, {
      id: uuid(),
      cadenceDays: days,
      pause,
      events: [...events.value],
    })
    emit('set', set)
  })
}
</script>

<template>
  <SheetDialog title="When they are measured" wide data-schedule @close="emit('close')">
    <form class="grid gap-4" novalidate @submit.prevent="save">
      <div class="grid items-start gap-3 sm:grid-cols-2">
        <ListField v-model="own.cadence" label="Cadence" name="cadence" :options="cadences" />
        <TextField
          v-if="own.cadence === 0"
          v-model="own.days"
          label="Days apart"
          name="cadenceDays"
          class="figure"
          inputmode="numeric"
          :problem="refused.days"
        />
      </div>
      <div class="grid items-start gap-3 sm:grid-cols-2">
        <TextField
          v-model="own.pauseUntil"
          label="Measuring rests until, if it does"
          name="pauseUntil"
          type="date"
          :min="today"
          :problem="refused.pauseUntil"
        />
        <ListField
          v-if="own.pauseUntil"
          v-model="own.pauseReason"
          label="Because of"
          name="pauseReason"
          :options="reasons"
        />
      </div>
      <div class="grid gap-2">
        <h3 class="font-semibold">Days that do not move</h3>
        <ul v-if="events.length > 0">
          <li
            v-for="one in events"
            :key="one.id"
            class="flex items-center gap-3 border-b border-rule py-1"
            :data-event="one.day"
          >
            <span class="min-w-0 flex-1"
              ><strong>{{ one.name }}</strong>, {{ EVENT_KINDS[one.kind] }} on {{ sayDay(one.day) }}</span
            >
            <button
              type="button"
              class="flex size-11 items-center justify-center"
              :aria-label="`Take ${one.name} off`"
              @click="events = events.filter(({ id }) => id !== one.id)"
            >
              <X class="size-4" aria-hidden="true" />
            </button>
          </li>
        </ul>
        <div class="grid items-start gap-3 sm:grid-cols-[1fr_9rem_11rem_auto]">
          <TextField
            v-model="own.eventName"
            label="Name"
            name="eventName"
            autocomplete="off"
            :problem="refused.eventName"
          />
          <ListField v-model="own.eventKind" label="Kind" name="eventKind" :options="kinds" />
          <TextField
            v-model="own.eventDay"
            label="Day"
            name="eventDay"
            type="date"
            :min="today"
            :problem="refused.eventDay"
          />
          <button type="button" class="press sm:mt-7" @click="addEvent">Add</button>
        </div>
      </div>
      <p v-if="next" class="border-l-4 border-ink pl-3" data-next-said>
        Next about <strong>{{ sayDay(next.day) }}</strong>: {{ reasonSaid(next, sayDay) }}.
      </p>
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="flex gap-2">
        <button class="press press-first min-h-11">Keep it</button>
        <button type="button" class="press press-quiet min-h-11" @click="emit('close')">Leave</button>
      </div>
    </form>
  </SheetDialog>
</template>
