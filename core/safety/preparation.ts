import { addDays, daysBetween, type Day } from '../calendar'
import type { Sex } from '../equations/equation'
import { LIMITS } from './limits'

/**
 * A preparation for a day that does not move, a race by weight or a show, with the medical clearance it rests on. It ends
 * by itself after the day.
 */
export interface Preparation {
  /** The day itself. */
  day: Day
  begunOn: Day
  clearedBy: string
  clearedOn: Day
  clearedUntil: Day
}

/** The latest day a preparation begun on a day can be for. */
export const lastPreparationDay = (begunOn: Day): Day => addDays(begunOn, 7 * LIMITS.preparation.value.weeks)

/** Whether a preparation counts on a day: it is under way, and a clearance covers it to its end. */
export function isPreparing(preparation: Preparation | null | undefined, today: Day): boolean {
  if (!preparation) return false
  const { day, begunOn, clearedBy, clearedOn, clearedUntil } = preparation
  return (
    clearedBy.trim() !== '' &&
    clearedOn <= today &&
    clearedUntil >= day &&
    begunOn <= today &&
    today <= day &&
    daysBetween(begunOn, day) <= 7 * LIMITS.preparation.value.weeks
  )
}

/** The fastest loss of a preparation that ends at a percent, points of percent fat a week. */
export function preparationPace(sex: Sex, endPercent: number): number {
  const { above, high, low } = LIMITS.preparation.value.pace[sex]
  return endPercent >= above ? high : low
}
