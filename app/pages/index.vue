<script setup lang="ts">
import ChevronLeft from '@lucide/vue/dist/esm/icons/chevron-left.mjs'
import ChevronRight from '@lucide/vue/dist/esm/icons/chevron-right.mjs'
import { clockIn } from '#core/calendar'
import type { Floor } from '#shared/schemas/checkin'
import type { BookingChange, BookingLine } from '#shared/schemas/booking'
import { checkins as checkinCalls, staff as staffCalls } from '~/calls'
import { useMe } from '~/stores/me'

useHead({ title: 'Floor, Oak Pinch' })

const store = useMe()
const floor = ref<Floor | null>(null)
const { keptSince, ask } = useKeptAnswers()
const { problem, tell } = useTelling()
const board = useBoard()
const { day, days, lines, picked, visit } = board
const people = ref(new Map<string, string>())
/** Colleagues who can be called to write on a sheet. */
const writers = ref<{ id: string; name: string }[]>([])

async function load() {
  const found = await ask<Floor>('/api/floor')
  floor.value = found
  if (days.value.includes(todayHere())) board.take(found.week)
}
onMounted(() =>
  tell(async () => {
    await load()
    if (store.isRecorder) return
    const staff = await staffCalls.list()
    people.value = new Map(staff.map(({ id, name }) => [id, name]))
    writers.value = staff.filter(({ id, active }) => active && id !== store.me?.staff.id)
  }),
)

/** Calls somebody to an open sheet, or nobody. */
const call = (checkinId: string, recorderId: string | null) =>
  tell(async () => {
    await checkinCalls.change(checkinId, { recorderId })
    await load()
  })

/** What a lead has to know about the studio's data. */
const alarms = computed(() => {
  const { backupMissed: missed, damage, trialFault } = floor.value ?? {}
  const last = missed?.lastAt ? `: the last good one is of ${sayDay(missed.lastAt)}` : ''
  return [
    ...(damage ? [`The database is damaged. ${damage}`] : []),
    ...(trialFault ? [`The last backup could not be restored as a trial: ${trialFault}`] : []),
    ...(missed?.ahead ? ['The newest backup is dated in the future: the clock of the server is or was wrong.'] : []),
    ...(missed && !missed.ahead ? [`A night’s backup was missed${last}.`] : []),
  ]
})

const today = computed(() => todayHere())
const booked = computed(() => new Set(floor.value?.booked))
const briefs = computed(() => new Map(board.briefs.value.map((one) => [one.clientId, one])))
const briefOf = (clientId: string) => briefs.value.get(clientId) ?? null
/** The next visit of today that nobody has come to yet: it stands first until another one is picked. */
const upNext = computed<BookingLine | null>(
  () =>
    lines.value.find(
      ({ startsAt, minutes, state, checkin }) =>
        state === 'booked' &&
        !checkin &&
        Date.parse(startsAt) + minutes * 60_000 > Date.now() &&
        clockIn(startsAt, studioZone()).day === today.value,
    ) ?? null,
)
const shown = computed(() => visit.value ?? upNext.value)

interface Booking {
  client: { id: string; name: string } | null
  at: { day: string; minute: number } | null
  moving: BookingLine | null
}
const booking = ref<Booking | null>(null)

async function done(on: string, id: string) {
  booking.value = null
  await board.show(on)
  await board.reload()
  picked.value = id
  floor.value = await ask<Floor>('/api/floor').catch(() => floor.value)
}
/** Who is cancelled is due again. */
async function changed(id: string, change: Omit<BookingChange, 'sequence'>) {
  if (await board.change(id, change)) floor.value = await ask<Floor>('/api/floor').catch(() => floor.value)
}
function move(one: BookingLine) {
  const [hours = 0, minutes = 0] = sayTime(one.startsAt).split(':').map(Number)
  booking.value = {
    client: null,
    moving: one,
    at: { day: sayTime(one.startsAt, 'yyyy-MM-dd'), minute: 60 * hours + minutes },
  }
}
const weekSaid = computed(() => `${sayDay(days.value[0] ?? '')} to ${sayDay(days.value[6] ?? '')}`)
</script>

<template>
  <div class="flex w-full flex-1 flex-col px-4 py-3 sm:px-6">
    <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <h1 class="text-3xl font-bold">Floor</h1>
      <p class="text-faded">{{ sayTime(Date.now(), 'EEEE d MMMM') }}</p>
      <div v-if="!store.isRecorder" class="ml-auto flex flex-wrap items-center justify-end gap-1">
        <button
          type="button"
          class="grid size-10 place-items-center"
          aria-label="The week before"
          @click="board.before"
        >
          <ChevronLeft class="size-5" aria-hidden="true" />
        </button>
        <span class="text-[15px] whitespace-nowrap">{{ weekSaid }}</span>
        <button type="button" class="grid size-10 place-items-center" aria-label="The week after" @click="board.next">
          <ChevronRight class="size-5" aria-hidden="true" />
        </button>
        <NuxtLink to="/challenges" class="press press-quiet">Challenges</NuxtLink>
        <button v-if="day !== today" type="button" class="press press-quiet" @click="board.show(today)">Today</button>
        <button
          type="button"
          class="press press-first ml-2"
          @click="booking = { client: null, at: null, moving: null }"
        >
          Book
        </button>
      </div>
    </div>
    <p v-if="problem ?? board.problem.value" role="alert" class="mt-2 font-semibold text-alert">
      {{ problem ?? board.problem.value }}
    </p>
    <KeptNotice class="mt-2" :since="keptSince" />

    <template v-if="floor">
      <ul v-if="floor.open.length > 0" class="mt-2 grid gap-2" aria-label="Unfinished">
        <OpenSheet
          v-for="line in floor.open"
          :key="line.checkinId"
          :line="line"
          :people="store.isRecorder ? [] : writers"
          :for-recorder="store.isRecorder"
          @call="call(line.checkinId, $event)"
        />
      </ul>
      <p v-if="store.isRecorder && floor.open.length === 0" class="mt-4 text-lg text-faded">
        No open sheet for you. It shows here once a coach starts a check-in and chooses you as its recorder.
      </p>
      <p v-for="line in alarms" :key="line" class="mt-2 max-w-prose border-l-4 border-alert pl-3" data-alarm>
        {{ line }} <NuxtLink to="/studio/data" class="underline underline-offset-4">Look at it</NuxtLink>
      </p>
      <p
        v-for="drift in floor.drifts"
        :key="drift.assessorId"
        class="mt-2 max-w-prose border-l-4 border-alert pl-3"
        data-drift
      >
        {{ drift.said }}
      </p>

      <div
        v-if="!store.isRecorder"
        class="mt-2 grid items-start gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,1fr)_minmax(300px,372px)]"
      >
        <WeekBoard
          :days="days"
          :day="day"
          :visits="lines"
          :briefs="briefs"
          :picked="picked"
          :people="people"
          :against="board.against"
          :clashing="board.clashing.value"
          @show="board.show"
          @pick="picked = picked === $event ? null : $event"
          @move="(id, on, minute) => board.change(id, { startsAt: board.at(on, minute) })"
          @book="(on, minute) => (booking = { client: null, moving: null, at: { day: on, minute } })"
        />
        <div class="grid content-start gap-4">
          <VisitCard
            v-if="shown"
            :key="shown.id"
            :visit="shown"
            :brief="briefOf(shown.clientId)"
            :people="people"
            :conflicts="shown.checkin || shown.state !== 'booked' ? [] : board.against(shown)"
            @close="picked = null"
            @move="move(shown)"
            @change="changed(shown.id, $event)"
          />
          <FloorWaits :floor="floor" :booked="booked" @book="booking = { client: $event, at: null, moving: null }" />
        </div>
      </div>
      <LazyBookingDialog v-if="booking" v-bind="booking" @close="booking = null" @booked="done" />
    </template>
  </div>
</template>
