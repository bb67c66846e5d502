/** Usual cadence for people who are not preparing for a contest: four to six weeks (common practice); the earlier end. */
export const CADENCE_DAYS = 28

const DAY_MS = 24 * 60 * 60 * 1000

/**
 * When the next check-in is due.
 * @param lastAt ISO instant of the last one
 * @returns ISO day
 * @example nextDue('2026-11-01T17:00:00.000Z') // '2026-11-29'
 */
export function nextDue(lastAt: string, cadenceDays = CADENCE_DAYS): string {
  return new Date(Date.parse(lastAt) + cadenceDays * DAY_MS).toISOString().slice(0, 10)
}
