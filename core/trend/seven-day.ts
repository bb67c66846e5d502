import { dayNumber } from '../calendar'

/** A weigh-in: one a day at most is used, the first of the day. Weight in kg. */
export interface WeighIn {
  /** ISO date, YYYY-MM-DD. */
  day: string
  weightKg: number
}

/** A week's mean, kg, and the weigh-ins it stands on. */
export interface WeekMean {
  weightKg: number
  count: number
}

const LEAST = 3
const DAYS = 7

/**
 * Mean of the last seven days up to and with `day`: as many weigh-ins as there are, at least three.
 * @returns null with fewer than three
 */
export function sevenDayMean(weighIns: readonly WeighIn[], day: string): WeekMean | null {
  const end = dayNumber(day)
  const byDay = new Map<number, number>()
  for (const { day: on, weightKg } of weighIns) {
    const number = dayNumber(on)
    if (number > end - DAYS && number <= end && !byDay.has(number)) byDay.set(number, weightKg)
  }
  if (byDay.size < LEAST) return null
  const total = [...byDay.values()].reduce((sum, kg) => sum + kg, 0)
  return { weightKg: total / byDay.size, count: byDay.size }
}
