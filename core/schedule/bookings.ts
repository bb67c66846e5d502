import { addDays, clockIn, daysBetween, instantAt, localDay, type Day } from '../calendar'

/** What has become of a booking; whether somebody came is read from their check-ins. */
export const BOOKING_STATES = ['booked', 'no-show', 'cancelled'] as const
export type BookingState = (typeof BOOKING_STATES)[number]

/** Bounds of a visit's length, minutes. */
export const BOOKING_MINUTES = { low: 5, high: 240 } as const

/** Visits begin at quarters of an hour. */
export const SLOT_MINUTES = 15

/** The part of a booking its time is judged by. */
export interface Slot {
  id: string
  clientId: string
  assessorId: string | null
  place: string
  /** ISO instant. */
  startsAt: string
  minutes: number
}

/** Days somebody is away, both included, and who stands in. */
export interface Absence {
  staffId: string
  standInId: string | null
  fromDay: Day
  toDay: Day
}

const MINUTE_MS = 60_000
const endOf = ({ startsAt, minutes }: Pick<Slot, 'startsAt' | 'minutes'>) => Date.parse(startsAt) + minutes * MINUTE_MS

/** Whether two visits are at the same time for a moment at least. One that ends as another begins is not. */
export function overlap(a: Pick<Slot, 'startsAt' | 'minutes'>, b: Pick<Slot, 'startsAt' | 'minutes'>): boolean {
  return Date.parse(a.startsAt) < endOf(b) && Date.parse(b.startsAt) < endOf(a)
}

/** What stands against a time. */
export type Conflict = { kind: 'assessor' | 'place' | 'client'; with: Slot } | { kind: 'away'; absence: Absence }

const placeOf = (place: string) => place.trim().toLowerCase()

/**
 * What stands against a visit at its time: the assessor or the client elsewhere, the place taken, the assessor away.
 * @param others visits that are to take place; the visit itself among them is passed over
 */
export function conflictsOf(
  slot: Slot,
  others: readonly Slot[],
  absences: readonly Absence[] = [],
  timeZone = 'UTC',
): Conflict[] {
  const found: Conflict[] = others
    .filter((other) => other.id !== slot.id && overlap(slot, other))
    .flatMap((other): Conflict[] => {
      if (other.clientId === slot.clientId) return [{ kind: 'client', with: other }]
      if (slot.assessorId !== null && other.assessorId === slot.assessorId) return [{ kind: 'assessor', with: other }]
      const taken = placeOf(slot.place) !== '' && placeOf(other.place) === placeOf(slot.place)
      return taken ? [{ kind: 'place', with: other }] : []
    })
  const gone = absenceAt(slot, absences, timeZone)
  return gone ? [...found, { kind: 'away', absence: gone }] : found
}

/** The absence of who measures that a visit falls into. */
function absenceAt(slot: Slot, absences: readonly Absence[], timeZone: string): Absence | undefined {
  const own = absences.filter(({ staffId }) => staffId === slot.assessorId)
  // The day is asked for only where it matters: zones are slow.
  const day = own.length > 0 ? localDay(slot.startsAt, timeZone) : ''
  return own.find(({ fromDay, toDay }) => fromDay <= day && day <= toDay)
}

/** Ids of all visits something stands against (see `conflictsOf`), in one pass over their times. */
export function clashesAmong(slots: readonly Slot[], absences: readonly Absence[], timeZone: string): Set<string> {
  const clashing = new Set(slots.filter((slot) => absenceAt(slot, absences, timeZone)).map(({ id }) => id))
  const timed = slots
    .map((slot) => ({ slot, place: placeOf(slot.place), from: Date.parse(slot.startsAt), to: endOf(slot) }))
    .sort((a, b) => a.from - b.from)
  timed.forEach((a, i) => {
    for (let j = i + 1; j < timed.length; j += 1) {
      const b = timed[j]
      if (!b || b.from >= a.to) break
      const together =
        a.slot.clientId === b.slot.clientId ||
        (a.slot.assessorId !== null && a.slot.assessorId === b.slot.assessorId) ||
        (a.place !== '' && a.place === b.place)
      if (together) clashing.add(a.slot.id).add(b.slot.id)
    }
  })
  return clashing
}

/** Minutes after midnight of the clocks of a zone. */
export function minuteOfDay(instant: string, timeZone: string): number {
  return clockIn(instant, timeZone).minute
}

/**
 * The same visit every so many days, at the same hour of the studio's clocks, also where these change meanwhile.
 * @param times visits altogether, the first included
 * @returns ISO instants
 * @example seriesOf('2026-03-27T17:00:00Z', 7, 2, 'Europe/Berlin') // second at 16:00 UTC: the clocks went forward
 */
export function seriesOf(startsAt: string, everyDays: number, times: number, timeZone: string): string[] {
  const day = localDay(startsAt, timeZone)
  const minute = minuteOfDay(startsAt, timeZone)
  return Array.from({ length: times }, (_, i) =>
    i === 0 ? new Date(startsAt).toISOString() : instantAt(addDays(day, i * everyDays), minute, timeZone),
  )
}

/** A time proposed for a visit, with why. */
export interface Proposal {
  startsAt: string
  why: 'hour-of-last-time' | 'usual-hour' | 'nearest-free'
}

/** Where nothing is known of a client: early evening (common practice of a gym). */
const USUAL_MINUTE = 17 * 60
/** How far from the wanted hour another is looked for, minutes. */
const FURTHEST = 4 * 60

/**
 * When a visit is proposed: on the day wanted, at the hour of last time, else at the free quarter nearest to it; never in
 * the past.
 * @param lastAt ISO instant of the last check-in; null: never measured
 */
export function proposeTime(
  about: Omit<Slot, 'startsAt'>,
  wanted: { day: Day; lastAt: string | null; now: string },
  others: readonly Slot[],
  absences: readonly Absence[],
  timeZone: string,
): Proposal {
  const hour = wanted.lastAt === null ? USUAL_MINUTE : minuteOfDay(wanted.lastAt, timeZone)
  const whole = Math.min(24 * 60 - SLOT_MINUTES, Math.round(hour / SLOT_MINUTES) * SLOT_MINUTES)
  const today = localDay(wanted.now, timeZone)
  const at = (day: Day, minute: number) => instantAt(day, minute, timeZone)
  const free = (startsAt: string) =>
    startsAt >= wanted.now && conflictsOf({ ...about, startsAt }, others, absences, timeZone).length === 0
  let day = daysBetween(today, wanted.day) < 0 ? today : wanted.day
  // Today's hour may have gone by: then tomorrow's.
  if (at(day, whole) < wanted.now) day = addDays(day, 1)
  const best = at(day, whole)
  if (free(best)) return { startsAt: best, why: wanted.lastAt === null ? 'usual-hour' : 'hour-of-last-time' }
  for (let off = SLOT_MINUTES; off <= FURTHEST; off += SLOT_MINUTES) {
    for (const minute of [whole + off, whole - off]) {
      if (minute < 0 || minute >= 24 * 60) continue
      const startsAt = at(day, minute)
      if (free(startsAt)) return { startsAt, why: 'nearest-free' }
    }
  }
  return { startsAt: best, why: 'nearest-free' }
}

/** Lanes side by side for visits at the same time: each one's lane and how many there are where it stands. */
export function lanesOf<One extends Pick<Slot, 'id' | 'startsAt' | 'minutes'>>(
  visits: readonly One[],
): Map<string, { lane: number; lanes: number }> {
  const sorted = [...visits].sort((a, b) => Date.parse(a.startsAt) - Date.parse(b.startsAt) || (a.id < b.id ? -1 : 1))
  const laid = new Map<string, { lane: number; lanes: number }>()
  let together: One[] = []
  let until = -Infinity
  const close = () => {
    const ends: number[] = []
    const lanes = together.map((one) => {
      const free = ends.findIndex((end) => end <= Date.parse(one.startsAt))
      const lane = free < 0 ? ends.length : free
      ends[lane] = endOf(one)
      return lane
    })
    together.forEach(({ id }, i) => laid.set(id, { lane: lanes[i] ?? 0, lanes: ends.length }))
    together = []
  }
  for (const one of sorted) {
    if (Date.parse(one.startsAt) >= until) close()
    together.push(one)
    until = Math.max(until, endOf(one))
  }
  close()
  return laid
}
