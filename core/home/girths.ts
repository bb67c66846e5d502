import { daysBetween, type Day } from '../calendar'
import { ASSUMED_NOISE, changeOf, type Change } from '../following'
import type { GirthSiteId } from '../sites'

/** Girths a client takes alone every week (common practice). */
export const HOME_GIRTHS: readonly GirthSiteId[] = ['shoulders', 'abdomen', 'hip']

/** A third reading is asked for where two lie further apart than this, cm (common practice). */
export const HOME_APART_CM = 1

/**
 * Error of a girth taken alone before a mirror: assumed twice an assessor's, floor in cm and share of the girth, until a
 * client's own weeks say otherwise.
 */
export const HOME_ERROR = { floorCm: 0.6, share: 0.014 } as const

/** Sums of tenths are not exact. */
const HAIR = 1e-9

/** Whether readings of one place ask for another. */
export function asksAnother(cm: readonly number[]): boolean {
  const [first, second] = cm
  if (first === undefined || second === undefined) return true
  return cm.length < 3 && Math.abs(first - second) > HOME_APART_CM + HAIR
}

/**
 * What readings of one place come to: the mean of two, the middle one of three.
 * @param cm in the order they were taken
 * @returns null without any
 * @example girthOf([92, 93.4, 92.2]) // 92.2
 */
export function girthOf(cm: readonly number[]): number | null {
  const sorted = [...cm].sort((a, b) => a - b)
  if (sorted.length === 0) return null
  if (sorted.length >= 3) return sorted[Math.floor(sorted.length / 2)] ?? null
  return sorted.reduce((sum, one) => sum + one, 0) / sorted.length
}

/** A week's girths, cm by place, as they came out. */
export interface HomeWeek {
  day: Day
  girths: Partial<Record<GirthSiteId, number>>
}

/** A girth of a week against the one before and over the whole time. */
export interface HomeGirthChange {
  site: GirthSiteId
  cm: number
  /** Against the week before that holds it; null: the first. */
  sinceLast: number | null
  /** Since the first week that holds it, judged by the odds of its whole history; null with one week. */
  change: Change | null
}

/**
 * Every girth of the newest of these weeks against the last time and over its history.
 * @param weeks in order of time
 */
export function homeGirthChanges(weeks: readonly HomeWeek[]): HomeGirthChange[] {
  const now = weeks.at(-1)
  if (!now) return []
  return (Object.entries(now.girths) as [GirthSiteId, number][]).map(([site, cm]) => {
    const held = weeks.flatMap(({ day, girths }) => (girths[site] === undefined ? [] : [{ day, cm: girths[site] }]))
    const before = held.at(-2)
    const first = held[0]?.day ?? now.day
    const series = {
      weeks: held.map(({ day }) => daysBetween(first, day) / 7),
      values: held.map((one) => one.cm),
      variances: held.map((one) => Math.max(HOME_ERROR.floorCm, HOME_ERROR.share * one.cm) ** 2),
    }
    const change =
      held.length > 1 ? changeOf(site, { series, days: held.map(({ day }) => day) }, { noise: ASSUMED_NOISE }) : null
    return { site, cm, sinceLast: before ? cm - before.cm : null, change }
  })
}

/** How places are named to a client, and how the tape lies there, in their own words. */
export const HOME_PLACES: Readonly<Partial<Record<GirthSiteId, { name: string; how: string }>>> = {
  shoulders: { name: 'Shoulders', how: 'Arms hanging. Round the broadest part of both shoulders, laid on.' },
  abdomen: { name: 'Navel', how: 'Round at the level of the navel, after breathing out, belly not drawn in.' },
  hip: { name: 'Hips', how: 'Feet together. Round the widest part of the seat.' },
}
