<script setup lang="ts">
import { useElementBounding, useNow, useWindowSize } from '@vueuse/core'
import { clockIn, type Day } from '#core/calendar'
import { lanesOf, minuteOfDay, SLOT_MINUTES, type Conflict, type Slot } from '#core/schedule'
import type { BookingLine, VisitBrief } from '#shared/schemas/booking'
import { clockOf, hoursOf } from './ruler'
import { slipOf } from './slips'
import { useHeldVisit } from './useHeldVisit'

/** A week as seven rulers, a tick a quarter of an hour; the day that is chosen is the wide one. */
const props = defineProps<{
  days: readonly Day[]
  day: Day
  visits: readonly BookingLine[]
  /** What to know of who is booked, by client. */
  briefs: ReadonlyMap<string, VisitBrief>
  picked: string | null
  people: ReadonlyMap<string, string>
  against: (slot: Slot) => Conflict[]
  /** Ids of visits something stands against. */
  clashing: ReadonlySet<string>
}>()
const emit = defineEmits<{
  show: [day: Day]
  pick: [id: string]
  move: [id: string, day: Day, minute: number]
  book: [day: Day, minute: number]
}>()

/** Room a visit's line needs, px; and an hour on a phone. */
const LEAST_SLIP = 17
const PHONE_HOUR = 64
const [LEAST_HOUR, MOST_HOUR] = [42, 88]
/** The days' names above the rulers, what is said under them and the page's edge, px. */
const AROUND = 36 + 28 + 14
/** Upright, the visit that comes next stands under the rulers and on the same screen, px. */
const CARD_UNDER = 400

const board = useTemplateRef<HTMLElement>('board')
const bounds = useElementBounding(board)
const { height: screen, width } = useWindowSize()
const now = useNow({ interval: 60_000 })
const phone = computed(() => width.value < 640)
/** Day and minute of every visit by the studio's clocks: asked of the zone once, because that is slow. */
const placed = computed(() => new Map(props.visits.map(({ id, startsAt }) => [id, clockIn(startsAt, studioZone())])))
const at = ({ id }: Pick<BookingLine, 'id'>) => placed.value.get(id) ?? { day: '', minute: 0 }
const hours = computed(() => {
  const counted = phone.value ? props.visits.filter((visit) => at(visit).day === props.day) : props.visits
  return hoursOf(
    counted.map((visit) => ({ minute: at(visit).minute, minutes: visit.minutes })),
    phone.value,
  )
})
const hourPx = computed(() => {
  if (phone.value) return PHONE_HOUR
  const room =
    screen.value - Math.max(0, bounds.top.value + window.scrollY) - AROUND - (width.value < 1024 ? CARD_UNDER : 0)
  return Math.min(MOST_HOUR, Math.max(LEAST_HOUR, room / (hours.value.to - hours.value.from)))
})
const slipHeight = ({ minutes }: Pick<BookingLine, 'minutes'>) =>
  Math.max(LEAST_SLIP, (minutes / 60) * hourPx.value - 1)
const yOf = (minute: number) => ((minute - 60 * hours.value.from) / 60) * hourPx.value
const shown = computed(() => (phone.value ? [props.day] : props.days))
const columns = computed(() =>
  shown.value.map((day) => {
    const visits = props.visits.filter((visit) => at(visit).day === day)
    const lanes = lanesOf(visits)
    const slips = visits.map((visit) => {
      const { minute } = at(visit)
      return slipOf(visit, {
        minute,
        lane: lanes.get(visit.id)?.lane ?? 0,
        lanes: lanes.get(visit.id)?.lanes ?? 1,
        wide: day === props.day,
        brief: props.briefs.get(visit.clientId) ?? null,
        clashes: !visit.checkin && props.clashing.has(visit.id),
        assessor: props.people.get(visit.assessorId ?? '') ?? 'whoever is there',
        top: yOf(minute),
        height: slipHeight(visit),
      })
    })
    return { day, slips }
  }),
)
const nowY = computed(() => yOf(minuteOfDay(now.value.toISOString(), studioZone())))
const ticks = computed(() =>
  Array.from({ length: (hours.value.to - hours.value.from) * 4 + 1 }, (_, i) => ({
    y: (i * hourPx.value) / 4,
    hour: i % 4 === 0 ? hours.value.from + i / 4 : null,
  })),
)

const slipPlace = (visit: BookingLine) => ({ id: visit.id, ...at(visit) })
const { held, heldVisit, stop, grab, key, press, leave } = useHeldVisit({
  visits: () => props.visits,
  days: () => props.days,
  placeOf: slipPlace,
  against: (slot) => props.against(slot),
  // On a phone a drag would fight with scrolling.
  draggable: () => !phone.value,
  minuteAt: (y, top) => 60 * hours.value.from + ((y - top) / hourPx.value) * 60,
  columns: () => [...(board.value?.querySelectorAll<HTMLElement>('[data-day]') ?? [])],
  moved: (id, day, minute) => emit('move', id, day, minute),
  picked: (id) => emit('pick', id),
})
const heldSaid = computed(() => {
  if (!held.value || !heldVisit.value) return ''
  const [first] = stop.value
  const where = `${heldVisit.value.clientName} to ${sayDay(held.value.day)}, ${clockOf(held.value.minute)}.`
  const keys = held.value.byHand ? '' : ' Enter keeps it, Escape leaves it where it was.'
  return `${where}${first ? ` ${conflictSaid(first, props.people)}` : ''}${keys}`
})

/** The slip something happened on, and its visit; null: an empty place of the ruler. */
function onSlip({ target }: Event): { slip: HTMLElement; visit: BookingLine } | null {
  const slip = target instanceof Element ? target.closest<HTMLElement>('[data-visit]') : null
  const visit = slip ? props.visits.find(({ id }) => id === slip.dataset.visit) : undefined
  return slip && visit ? { slip, visit } : null
}
function grabSlip(event: PointerEvent) {
  const on = onSlip(event)
  if (on) grab(event, on.visit, on.slip)
}
function keySlip(event: KeyboardEvent) {
  const on = onSlip(event)
  if (on) key(event, on.visit)
}

/** A press on a slip picks its visit; on an empty place of a ruler it books there. */
function pressRuler(event: MouseEvent, day: Day) {
  const on = onSlip(event)
  if (on) return press(on.visit)
  if (event.target !== event.currentTarget) return
  const { top } = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const minute = 60 * hours.value.from + ((event.clientY - top) / hourPx.value) * 60
  emit('book', day, Math.floor(minute / SLOT_MINUTES) * SLOT_MINUTES)
}

const countOf = (day: Day) => props.visits.filter((visit) => visit.state === 'booked' && at(visit).day === day).length
</script>

<template>
  <div ref="board" class="min-w-0">
    <DayStrip v-if="phone" :days="days" :day="day" :count-of="countOf" @show="emit('show', $event)" />
    <div class="board" :class="{ 'board-phone': phone }" :style="{ '--wide': String(days.indexOf(day)) }">
      <div class="axis" :style="{ height: `${ticks.at(-1)?.y ?? 0}px` }" aria-hidden="true">
        <template v-for="tick in ticks" :key="tick.y">
          <span v-if="tick.hour !== null" class="hour figure" :style="{ top: `${tick.y}px` }">{{ tick.hour }}</span>
          <span class="tick" :class="{ whole: tick.hour !== null }" :style="{ top: `${tick.y}px` }" />
        </template>
      </div>
      <section
        v-for="column in columns"
        :key="column.day"
        class="column"
        :class="{ wide: column.day === day, today: column.day === todayHere() }"
        :data-day="column.day"
        :aria-label="sayDayAs(column.day, 'EEEE d MMMM')"
      >
        <button
          v-if="!phone"
          type="button"
          class="head"
          :aria-pressed="column.day === day"
          @click="emit('show', column.day)"
        >
          <span :class="{ 'font-bold': column.day === day }">{{
            sayDayAs(column.day, column.day === day ? 'EEEE d MMM' : 'EEE d')
          }}</span>
          <span class="figure text-sm text-faded">{{ countOf(column.day) || '' }}</span>
        </button>
        <div
          class="ruler"
          data-ruler
          :style="{ height: `${ticks.at(-1)?.y ?? 0}px`, '--hour': `${hourPx}px` }"
          @click="pressRuler($event, column.day)"
          @pointerdown="grabSlip"
          @keydown="keySlip"
          @focusout="leave"
        >
          <div
            v-if="column.day === todayHere() && nowY > 0"
            class="now"
            :style="{ top: `${nowY}px` }"
            aria-hidden="true"
          />
          <VisitSlips :slips="column.slips" :picked="picked" :held="held?.id ?? null" />
          <div
            v-if="held && heldVisit && held.day === column.day"
            class="ghost figure"
            :class="{ 'ghost-clash': stop.length > 0 }"
            :style="{ top: `${yOf(held.minute)}px`, height: `${slipHeight(heldVisit)}px` }"
            data-ghost
          >
            {{ clockOf(held.minute) }}
          </div>
        </div>
      </section>
    </div>
    <p
      class="mt-1 min-h-6 text-[15px]"
      :class="stop.length > 0 ? 'font-semibold text-alert' : 'text-faded'"
      role="status"
      data-held
    >
      {{ heldSaid }}
    </p>
  </div>
</template>

<style scoped>
.board {
  display: grid;
  grid-template-columns: 28px repeat(7, minmax(0, 1fr));
}
.board:not(.board-phone) {
  grid-template-columns: 28px;
  grid-auto-columns: minmax(0, 1fr);
  grid-auto-flow: column;
}
.board-phone {
  grid-template-columns: 28px minmax(0, 1fr);
}
.board:not(.board-phone) .column.wide {
  grid-column: span 3;
}
.axis {
  position: relative;
  align-self: end;
}
.hour {
  position: absolute;
  right: 10px;
  color: var(--faded);
  font-size: 13px;
  transform: translateY(-50%);
}
.tick {
  position: absolute;
  right: 0;
  width: 4px;
  border-top: 1px solid var(--contour);
}
.tick.whole {
  width: 8px;
  border-top-color: var(--ink);
}
.column {
  min-width: 0;
}
.head {
  display: flex;
  align-items: baseline;
  gap: 6px;
  width: 100%;
  min-height: 36px;
  padding: 6px 6px 4px;
  overflow: hidden;
  border-bottom: 1.5px solid var(--contour);
  text-align: left;
  white-space: nowrap;
}
.today .head {
  border-bottom: 3px solid var(--brass);
}
.ruler {
  position: relative;
  border-left: 1px solid var(--rule);
  background-image: linear-gradient(to bottom, var(--rule) 1px, transparent 1px);
  background-size: 100% var(--hour);
}
.column.wide .ruler {
  background-color: color-mix(in srgb, var(--sheet) 70%, transparent);
}
.now {
  position: absolute;
  right: 0;
  left: 0;
  z-index: 1;
  border-top: 2px solid var(--brass);
  pointer-events: none;
}
.ghost {
  position: absolute;
  right: 2px;
  left: 1px;
  z-index: 2;
  padding: 0 6px;
  border: 2px solid var(--signal);
  border-radius: 3px;
  background: var(--wash);
  font-size: 13px;
  pointer-events: none;
}
.ghost-clash {
  border-color: var(--alert);
}
</style>
