import { addDays, daysBetween, type Day } from '../calendar'
import { dayAfter, latestStart, SLACK_WEEKS } from './target'

/** A plan laid back from a day that does not move: a race, a show, a weigh-in. */
export interface BackFrom {
  by: Day
  start: Day
  /** In the target's unit. */
  from: number
  to: number
  perWeek: number
  /** Weeks between weeks at balance; null: none. */
  breakEvery: number | null
}

/** One week of it. */
export interface WeekOfPlan {
  week: number
  day: Day
  planned: number
  /** A week at balance: nothing is to move. */
  atBalance: boolean
}

/** What happens if it starts so many weeks late. */
export interface LateStart {
  weeksLate: number
  day: Day
  /** Pace that would still arrive; null: no time is left. */
  perWeek: number | null
}

/** The way back from a day. */
export interface WayBack {
  /** Weeks it takes, weeks at balance in it. */
  weeks: number
  latest: Day
  late: boolean
  table: WeekOfPlan[]
  starts: LateStart[]
}

/** Starts that are looked at, weeks after the start. */
const LATE_WEEKS = [1, 2, 3, 4] as const
/** Longest table, weeks. */
const MOST_WEEKS = 104

/**
 * Lays a plan back from a day that does not move: its latest start with a week's slack, the table week by week with weeks
 * at balance put in, and the pace that every week of delay would ask for.
 */
export function wayBack({ by, start, from, to, perWeek, breakEvery }: BackFrom): WayBack {
  const way = to - from
  const moving = Math.abs(way) / perWeek
  const breaks = breakEvery === null ? 0 : Math.max(0, Math.ceil(moving / breakEvery - 1e-9) - 1)
  const weeks = moving + breaks
  const latest = latestStart(by, weeks)
  const table: WeekOfPlan[] = [{ week: 0, day: start, planned: from, atBalance: false }]
  let moved = 0
  for (let week = 1; moved < moving - 1e-9 && week <= MOST_WEEKS; week += 1) {
    const atBalance = breakEvery !== null && week % (breakEvery + 1) === 0
    if (!atBalance) moved = Math.min(moving, moved + 1)
    table.push({ week, day: addDays(start, 7 * week), planned: from + (way * moved) / moving, atBalance })
  }
  const room = daysBetween(start, by) / 7 - SLACK_WEEKS - breaks
  return {
    weeks,
    latest,
    late: latest < start,
    table,
    starts: LATE_WEEKS.map((weeksLate) => {
      const left = room - weeksLate
      return { weeksLate, day: dayAfter(start, weeksLate), perWeek: left > 0.5 ? Math.abs(way) / left : null }
    }),
  }
}
