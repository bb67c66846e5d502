import { addDays, type Day } from '../calendar'

/** Usual cadence for people who are not preparing for a contest: four to six weeks (common practice); the earlier end. */
export const CADENCE_DAYS = 28

/**
 * When the next check-in is due.
 * @param lastDay day of the last one, where the studio is
 * @example nextDue('2026-11-01') // '2026-11-29'
 */
export function nextDue(lastDay: Day, cadenceDays = CADENCE_DAYS): Day {
  return addDays(lastDay, cadenceDays)
}

/** Whether somebody is due today: never measured yet, or the next day has come. The one meaning of "due" everywhere. */
export function isDue(lastDay: Day | null, today: Day, cadenceDays = CADENCE_DAYS): boolean {
  return lastDay === null || nextDue(lastDay, cadenceDays) <= today
}
