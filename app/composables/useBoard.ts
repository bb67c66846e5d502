import { computed, ref, shallowRef } from 'vue'
import { addDays, daysOfWeek, instantAt, localDay, type Day } from '#core/calendar'
import { clashesAmong, conflictsOf, type Absence, type Conflict, type Slot } from '#core/schedule'
import type { BookingBoard, BookingChange, BookingLine, VisitBrief } from '#shared/schemas/booking'
import { bookings as calls } from '~/week-calls'

/** A week of visits on the floor: which week and day are shown, which visit is picked, and what is done with it. */
export function useBoard() {
  const day = ref<Day>(todayHere())
  const picked = ref<string | null>(null)
  const lines = shallowRef<BookingLine[]>([])
  const absences = shallowRef<Absence[]>([])
  const briefs = shallowRef<VisitBrief[]>([])
  const { problem, tell } = useTelling()

  const days = computed(() => daysOfWeek(day.value))
  const visit = computed(() => lines.value.find(({ id }) => id === picked.value) ?? null)
  const staying = computed(() => lines.value.filter(({ state }) => state === 'booked'))

  /** Ids of visits something stands against. */
  const clashing = computed(() => clashesAmong(staying.value, absences.value, studioZone()))

  function take(board: BookingBoard): void {
    lines.value = board.bookings
    absences.value = board.absences
    briefs.value = board.briefs
  }
  const [first, last] = [computed(() => days.value[0] ?? day.value), computed(() => days.value[6] ?? day.value)]
  const reload = () => tell(async () => take(await calls.list(first.value, last.value)))

  /** Another day; another week is fetched. */
  async function show(wanted: Day): Promise<void> {
    const known = days.value.includes(wanted)
    day.value = wanted
    picked.value = null
    if (!known) await reload()
  }

  /** What stands against a visit at its time. */
  function against(slot: Slot): Conflict[] {
    return conflictsOf(slot, staying.value, absences.value, studioZone())
  }

  async function change(id: string, wanted: Omit<BookingChange, 'sequence'>): Promise<boolean> {
    const line = lines.value.find((one) => one.id === id)
    if (!line) return false
    // Shown where it was put at once; what the server says stands after.
    lines.value = lines.value.map((one) => (one.id === id ? ({ ...one, ...wanted } as BookingLine) : one))
    const worked = await tell(async () => {
      const kept = await calls.change(id, { ...wanted, sequence: line.sequence })
      lines.value = lines.value
        .map((one) => (one.id === id ? kept : one))
        .filter(({ state, startsAt }) => state !== 'cancelled' && inWeek(startsAt))
    })
    if (!worked) {
      const said = problem.value
      await reload()
      problem.value = said
    }
    if (wanted.state === 'cancelled') picked.value = null
    return worked
  }
  const inWeek = (startsAt: string) => days.value.includes(localDay(startsAt, studioZone()))

  return {
    day,
    days,
    lines,
    absences,
    briefs,
    clashing,
    picked,
    visit,
    problem,
    take,
    show,
    reload,
    against,
    change,
    next: () => show(addDays(day.value, 7)),
    before: () => show(addDays(day.value, -7)),
    at: (on: Day, minute: number) => instantAt(on, minute, studioZone()),
  }
}

/** What stands against a time, in a sentence. */
export function conflictSaid(conflict: Conflict, people: ReadonlyMap<string, string>): string {
  const named = (id: string | null) => (id ? (people.get(id) ?? 'Somebody') : 'Somebody')
  if (conflict.kind === 'away') {
    const { staffId, standInId, toDay } = conflict.absence
    const instead = standInId ? `; ${named(standInId)} stands in` : ''
    return `${named(staffId)} is away until ${sayDay(toDay)}${instead}.`
  }
  const other = conflict.with as BookingLine
  const when = `${other.clientName} at ${sayTime(other.startsAt)}`
  switch (conflict.kind) {
    case 'assessor':
      return `${named(other.assessorId)} measures ${when}.`
    case 'place':
      return `${other.place} is taken by ${when}.`
    case 'client':
      return `${other.clientName} is booked at ${sayTime(other.startsAt)} already.`
  }
}
