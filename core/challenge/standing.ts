import { seededRandom } from '../simulate'
import { chancesOfFirst } from './chance'
import { student } from './student'

/** What is known of one who takes part: change in percent of their own start, with its error. */
export interface Runner {
  id: string
  /** Percent of the own start; below zero: less. */
  change: number
  /** Standard deviation of the change, percentage points, and its degrees of freedom. */
  sd: number
  freedom: number
  /** What of the change counts: up to 1 % of body weight a week, 1 where it was slower. */
  counted: number
}

/** Somebody's place. */
export interface Standing {
  id: string
  /** The change that counts, percent of the own start. */
  change: number
  low: number
  high: number
  /** Shared with everybody the error does not part them from; null: no loss beyond error, so no place. */
  place: number | null
  /** Chance of being the one who lost most (`chancesOfFirst`), 0 to 1; 0 where nobody has a place. */
  first: number
}

/** Nobody is parted by error alone more often than this in a whole challenge. */
const PARTED = 0.05
const DRAWS = 20_000
/** Draws of somebody's own interval. */
const OWN_DRAWS = 4000

/**
 * How far two have to lie apart, in units of the error of their difference, so that in a challenge of people none of whom
 * changed anybody is parted from anybody in one of twenty at most: the 95 % point of the largest difference of all pairs
 * (a studentised range with everybody's own error), by joint simulation.
 * @returns Infinity for fewer than two
 */
export function partingRange(runners: readonly Runner[], draws = DRAWS, seed = 14): number {
  if (runners.length < 2) return Infinity
  const random = seededRandom(seed)
  const largest = new Float64Array(draws)
  const errors = new Float64Array(runners.length)
  for (let k = 0; k < draws; k += 1) {
    runners.forEach((one, i) => (errors[i] = one.counted * one.sd * student(random, one.freedom)))
    let most = 0
    for (let i = 1; i < runners.length; i += 1) {
      for (let j = 0; j < i; j += 1) {
        const apart = Math.abs((errors[i] as number) - (errors[j] as number)) / errorOf(runners[i], runners[j])
        if (apart > most) most = apart
      }
    }
    largest[k] = most
  }
  return largest.sort()[Math.ceil((1 - PARTED) * draws) - 1] ?? Infinity
}

/**
 * How far a loss has to lie beyond no change, in units of its own error, so that in a challenge of people none of whom
 * changed anybody has a place in one of twenty at most: the 95 % point of the largest loss of all, by joint simulation.
 */
export function lossRange(runners: readonly Runner[], draws = DRAWS, seed = 14): number {
  const random = seededRandom(seed + 2)
  const largest = Float64Array.from({ length: draws }, () =>
    runners.reduce((most, { freedom }) => Math.max(most, student(random, freedom)), 0),
  )
  return largest.sort()[Math.ceil((1 - PARTED) * draws) - 1] ?? Infinity
}

function errorOf(a: Runner | undefined, b: Runner | undefined): number {
  return Math.hypot((a?.counted ?? 1) * (a?.sd ?? 0), (b?.counted ?? 1) * (b?.sd ?? 0)) || Number.MIN_VALUE
}

/**
 * The standing of a challenge: who lost most of their own start stands first; places are shared where error does not part
 * people, and are for losses beyond error (`lossRange`): where there is none, there is no first place.
 * @returns those with a place first, the first first; those who share one by their estimate
 */
export function standingOf(runners: readonly Runner[], { draws = DRAWS, seed = 14 } = {}): Standing[] {
  const range = partingRange(runners, draws, seed)
  const random = seededRandom(seed + 1)
  const beyond = lossRange(runners, draws, seed)
  const lost = ({ change, sd }: Runner) => change < 0 && -change > beyond * sd
  const placed = runners.filter(lost)
  const chances = placed.length > 0 ? chancesOfFirst(runners, random, draws) : runners.map(() => 0)
  const standings = runners.map((one, i): Standing => {
    const change = one.counted * one.change
    const ahead = placed.filter(
      (other) => other !== one && change - other.counted * other.change > range * errorOf(one, other),
    )
    const off = Array.from({ length: OWN_DRAWS }, () => student(random, one.freedom)).sort((a, b) => a - b)
    const at = (share: number) => change + one.counted * one.sd * (off[Math.floor(share * OWN_DRAWS)] ?? NaN)
    return {
      id: one.id,
      change,
      low: at(0.025),
      high: at(0.975),
      place: lost(one) ? 1 + ahead.length : null,
      first: chances[i] ?? 0,
    }
  })
  const rank = ({ place }: Standing) => place ?? Infinity
  return standings.sort((a, b) => rank(a) - rank(b) || a.change - b.change || (a.id < b.id ? -1 : 1))
}

/** A team's own runner: the mean of its members', with the error of a mean. Null without members. */
export function teamRunner(id: string, members: readonly Runner[]): Runner | null {
  if (members.length === 0) return null
  const count = members.length
  const change = members.reduce((sum, one) => sum + one.counted * one.change, 0) / count
  const variance = members.reduce((sum, one) => sum + (one.counted * one.sd) ** 2, 0) / count ** 2
  const sd = Math.sqrt(variance)
  return {
    id,
    change,
    sd,
    freedom: Math.min(...members.map(({ freedom }) => freedom)),
    counted: 1,
  }
}

/** Percent of body weight a week beyond which nothing is rewarded (common practice). */
export const PACE_PERCENT = 1

/**
 * The share of a change that counts, where weight went faster than 1 % of it a week: loss beyond that pace earns nothing.
 * @param percentAWeek change of body weight, percent a week, below zero when it fell; null: not known
 * @example countedShare(-2) // 0.5
 */
export function countedShare(percentAWeek: number | null): number {
  if (percentAWeek === null || percentAWeek >= -PACE_PERCENT) return 1
  return PACE_PERCENT / -percentAWeek
}

/**
 * Who gets the prize: everybody at the first place, or one of them by lot, as was chosen beforehand.
 * @param seed settles the lot: the same for everybody who asks
 */
export function winnersOf(standings: readonly Standing[], rule: 'share' | 'draw', seed: string): string[] {
  const first = standings.filter(({ place }) => place === 1).map(({ id }) => id)
  if (rule === 'share' || first.length < 2) return first
  const number = [...seed].reduce((sum, sign) => (Math.imul(sum, 31) + sign.charCodeAt(0)) >>> 0, 7)
  const winner = [...first].sort()[Math.floor(seededRandom(number).next() * first.length)]
  return winner === undefined ? [] : [winner]
}
