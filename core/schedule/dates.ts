import { addDays, daysBetween, type Day } from '../calendar'

/** Usual cadence for people who are not preparing for a contest: four to six weeks (common practice); the earlier end. */
export const CADENCE_DAYS = 28

/** Cadences within reach of one press, days (common practice). */
export const CADENCES = [
  { days: 7, name: 'weekly', note: 'contest preparation' },
  { days: 14, name: 'every two weeks', note: 'athletes near a competition' },
  { days: 28, name: 'every four weeks', note: 'athletes, and the usual one' },
  { days: 42, name: 'every six weeks', note: 'others' },
] as const

/** Bounds of a cadence, days. */
export const CADENCE_RANGE = { low: 1, high: 366 } as const

/** Why measuring rests. */
export const PAUSE_REASONS = {
  holiday: 'holiday',
  injury: 'injury',
  pregnancy: 'pregnancy',
  other: 'other',
} as const
export type PauseReason = keyof typeof PAUSE_REASONS

/** Days that do not move. */
export const EVENT_KINDS = { race: 'race', 'weigh-in': 'weigh-in', show: 'show', other: 'event' } as const
export type EventKind = keyof typeof EVENT_KINDS

/** A day that does not move. */
export interface FixedEvent {
  id: string
  kind: EventKind
  day: Day
  name: string
}

/** What is kept of a client's dates. */
export interface ClientSchedule {
  /** Null: the usual cadence. */
  cadenceDays: number | null
  /** Measuring rests until this day, that day included; null: it does not. */
  pause: { until: Day; reason: PauseReason } | null
  /** In any order. */
  events: readonly FixedEvent[]
}

/** Nothing kept: the usual cadence. */
export const USUAL_SCHEDULE: ClientSchedule = { cadenceDays: null, pause: null, events: [] }

/** The next check-in of a client, with why it is then. */
export interface NextDate {
  day: Day
  reason: 'first' | 'cadence' | 'event' | 'pause'
  /** The cadence that counted, days. */
  cadenceDays: number
  /** The event it is near to, where that brought it closer. */
  event: FixedEvent | null
}

/** Closer as a day that does not move comes near: so many days before it, so often at the most (common practice). */
const NEAR_EVENT = [
  { within: 21, cadence: 7 },
  { within: 56, cadence: 14 },
] as const

/** The nearest event on or after a day. */
export function nextEvent({ events }: ClientSchedule, from: Day): FixedEvent | null {
  return events.filter(({ day }) => day >= from).sort((a, b) => (a.day < b.day ? -1 : 1))[0] ?? null
}

/** The cadence that counts from a day on, with the event that brought it closer. */
function cadenceAt(schedule: ClientSchedule, from: Day): { days: number; event: FixedEvent | null } {
  const own = schedule.cadenceDays ?? CADENCE_DAYS
  const event = nextEvent(schedule, from)
  const left = event ? daysBetween(from, event.day) : Infinity
  const closer = NEAR_EVENT.find(({ within, cadence }) => left <= within && cadence < own)
  return closer ? { days: closer.cadence, event } : { days: own, event: null }
}

/**
 * When a client is next due, and why: by their cadence, closer before a day that does not move, never while measuring
 * rests. One meaning of "due" everywhere.
 * @param lastDay day of the last check-in where the studio is; null: never measured
 * @example nextDate('2026-11-01', USUAL_SCHEDULE, '2026-11-10').day // '2026-11-29'
 */
export function nextDate(lastDay: Day | null, schedule: ClientSchedule, today: Day): NextDate {
  const own = schedule.cadenceDays ?? CADENCE_DAYS
  const rested = (next: NextDate): NextDate =>
    schedule.pause && next.day <= schedule.pause.until
      ? { ...next, day: addDays(schedule.pause.until, 1), reason: 'pause' }
      : next
  if (lastDay === null) return rested({ day: today, reason: 'first', cadenceDays: own, event: null })
  const { days, event } = cadenceAt(schedule, lastDay)
  let day = addDays(lastDay, days)
  let near = event
  let cadenceDays = days
  // A long cadence would step over the weeks before an event: it is brought to where they begin.
  const coming = nextEvent(schedule, lastDay)
  if (coming && !near) {
    for (const { within, cadence } of [...NEAR_EVENT].reverse()) {
      const begins = addDays(coming.day, -within)
      if (cadence < own && begins > lastDay && begins < day) {
        day = begins
        near = coming
        cadenceDays = cadence
        break
      }
    }
  }
  return rested({ day, reason: near ? 'event' : 'cadence', cadenceDays, event: near })
}

/** Whether somebody is due on a day, and how many days over it. Overdue: by more than half their cadence. */
export function dueOn(next: NextDate, today: Day): { due: boolean; late: number; overdue: boolean } {
  const late = daysBetween(next.day, today)
  return { due: late >= 0, late: Math.max(0, late), overdue: late > next.cadenceDays / 2 }
}

/** Why a date is then, in a few words. */
export function reasonSaid({ reason, cadenceDays, event }: NextDate, sayDay: (day: Day) => string): string {
  const known = CADENCES.find(({ days }) => days === cadenceDays)?.name ?? `every ${cadenceDays} days`
  switch (reason) {
    case 'first':
      return 'not measured yet'
    case 'pause':
      return 'after the pause'
    case 'event':
      return event ? `${known}, before ${event.name} on ${sayDay(event.day)}` : known
    case 'cadence':
      return known
  }
}
