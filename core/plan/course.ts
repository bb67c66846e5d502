import { addDays, daysBetween, type Day } from '../calendar'
import type { Measured } from '../composition/end-figures'
import { Z_95 } from '../error/interval'

/** Where a plan means a figure to be over time, in the target's unit. */
export interface Course {
  /**
   * The value meant for a day, and the variance with which real people scatter about it; the error of the start is not
   * in it. Before the start: the start; after the end: the end.
   */
  at(day: Day): Measured
}

/** How far real paces scatter about the one planned, as a share of the way planned so far (our choice; 95 %). */
export const PACE_SPREAD = 0.25

/** A straight line from a start to a target. */
export interface StraightLine {
  startDay: Day
  from: number
  to: number
  weeks: number
}

/**
 * The straight line that stops at its target, real paces scattering about it by `PACE_SPREAD`.
 * @example straightCourse({ startDay: '2026-06-01', from: 102, to: 82, weeks: 20 }).at('2026-08-10').value // 92
 */
export function straightCourse({ startDay, from, to, weeks }: StraightLine): Course {
  return {
    at(day) {
      const share = weeks === 0 ? 1 : daysBetween(startDay, day) / 7 / weeks
      const way = (to - from) * Math.min(1, Math.max(0, share))
      return { value: from + way, variance: ((PACE_SPREAD * way) / Z_95) ** 2 }
    },
  }
}

/** Days to draw a course at: evenly from one to another, both in it. */
export function courseDays(from: Day, to: Day, steps: number): Day[] {
  const days = Math.max(1, daysBetween(from, to))
  const count = Math.min(steps, days)
  return Array.from({ length: count + 1 }, (_, i) => addDays(from, Math.round((days * i) / count)))
}
