import { computed, ref } from 'vue'
import { useEventListener } from '@vueuse/core'
import { addDays, instantAt, type Day } from '#core/calendar'
import { SLOT_MINUTES, type Conflict, type Slot } from '#core/schedule'
import type { BookingLine } from '#shared/schemas/booking'
import { snapped } from './ruler'

/** Where a visit stands on the rulers. */
interface Place {
  id: string
  day: Day
  minute: number
}

/** How far a pointer goes before a press is a drag, px. */
const DRAG_PX = 6

const STEPS: Record<string, { minutes: number; days: number }> = {
  ArrowUp: { minutes: -SLOT_MINUTES, days: 0 },
  ArrowDown: { minutes: SLOT_MINUTES, days: 0 },
  ArrowLeft: { minutes: 0, days: -1 },
  ArrowRight: { minutes: 0, days: 1 },
}

/** A visit on its way to another time, by hand along the rulers or by arrow keys. */
export function useHeldVisit(board: {
  visits: () => readonly BookingLine[]
  /** Days that are shown: keys go no further. */
  days: () => readonly Day[]
  placeOf: (visit: BookingLine) => Place
  against: (slot: Slot) => Conflict[]
  draggable: () => boolean
  /** Minute of the day at a height of the screen, on a ruler whose top lies at another. */
  minuteAt: (y: number, top: number) => number
  columns: () => readonly HTMLElement[]
  moved: (id: string, day: Day, minute: number) => void
  picked: (id: string) => void
}) {
  const held = ref<(Place & { byHand: boolean }) | null>(null)
  const visitOf = (id: string | undefined) => board.visits().find((one) => one.id === id) ?? null
  const heldVisit = computed(() => visitOf(held.value?.id))
  /** What stands against the time it is held at. */
  const stop = computed(() => {
    const visit = heldVisit.value
    if (!held.value || !visit) return []
    return board.against({ ...visit, startsAt: instantAt(held.value.day, held.value.minute, studioZone()) })
  })

  function letGo(keep: boolean): void {
    const last = held.value
    held.value = null
    const visit = visitOf(last?.id)
    if (!keep || !last || !visit) return
    const from = board.placeOf(visit)
    if (from.day !== last.day || from.minute !== last.minute) board.moved(last.id, last.day, last.minute)
  }

  function key(event: KeyboardEvent, visit: BookingLine): void {
    const step = STEPS[event.key]
    if (step && visit.state === 'booked') {
      event.preventDefault()
      const from = held.value?.id === visit.id ? held.value : board.placeOf(visit)
      const day = addDays(from.day, step.days)
      held.value = {
        id: visit.id,
        byHand: false,
        minute: snapped(from.minute + step.minutes),
        day: board.days().includes(day) ? day : from.day,
      }
    } else if (held.value && (event.key === 'Enter' || event.key === 'Escape')) {
      event.preventDefault()
      letGo(event.key === 'Enter')
    }
  }

  let grip: { id: string; x: number; y: number; off: number; pointer: number } | null = null
  let dragged = false

  function grab(event: PointerEvent, visit: BookingLine, slip: HTMLElement): void {
    dragged = false
    if (!board.draggable() || event.button !== 0 || visit.state !== 'booked' || visit.checkin) return
    const { top } = slip.getBoundingClientRect()
    grip = { id: visit.id, x: event.clientX, y: event.clientY, off: event.clientY - top, pointer: event.pointerId }
  }

  function drag(event: PointerEvent): void {
    if (grip?.pointer !== event.pointerId) return
    if (!held.value && Math.hypot(event.clientX - grip.x, event.clientY - grip.y) < DRAG_PX) return
    const visit = visitOf(grip.id)
    if (!visit) return
    dragged = true
    const column = board.columns().find((one) => {
      const { left, right } = one.getBoundingClientRect()
      return event.clientX >= left && event.clientX < right
    })
    const before = held.value ?? board.placeOf(visit)
    const top = column?.querySelector('[data-ruler]')?.getBoundingClientRect().top
    const minute = top === undefined ? before.minute : snapped(board.minuteAt(event.clientY - grip.off, top))
    held.value = { id: visit.id, day: column?.dataset.day ?? before.day, minute, byHand: true }
  }

  function drop(keep: boolean): void {
    if (!grip) return
    grip = null
    if (held.value?.byHand) letGo(keep)
  }
  useEventListener('pointermove', drag)
  useEventListener('pointerup', () => drop(true))
  useEventListener('pointercancel', () => drop(false))

  return {
    held,
    heldVisit,
    stop,
    grab,
    key,
    /** A press that was no drag. */
    press(visit: BookingLine): void {
      if (dragged) dragged = false
      else if (!held.value) board.picked(visit.id)
    },
    /** Looked away from: what was moved by keys and not kept stays where it was. */
    leave(): void {
      if (held.value && !held.value.byHand) letGo(false)
    },
  }
}
