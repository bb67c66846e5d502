import { fixed } from '../units/round'
import { addDays, dayNumber, type Day } from '../calendar'
import type { SpanEnd } from '../composition/end-figures'
import { dayOf } from '../composition/facts'
import { Z_95 } from '../error/interval'
import { ASSUMED_ERRORS, type ErrorModel } from '../error/model'
import { copyingIn } from './copies'
import { figureOver } from './figures'
import { meanOver, scaleOf, type Noise } from './noise'
import { foldsAmong, siteTerms } from './weights'

/** How far one client's sum of folds moved in one assessor's hands, as a share of it. */
export interface Move {
  assessorId: string
  from: Day
  until: Day
  /** Change of the sum from the first to the last check-in, as a share of their mean. */
  share: number
  /** Assumed variance of a visit's sum by the squared mean. */
  visitVariance: number
}

/** Clients of an assessor who moved together. */
export interface Drift {
  assessorId: string
  /** Clients looked at, and how many of them moved this way. */
  clients: number
  together: number
  way: 'up' | 'down'
  /** Common change as a share of the sum, with its 95 % interval. */
  share: number
  low: number
  high: number
  /** Day of the earliest check-in it rests on. */
  since: Day
}

/** How far back moves are looked at, days: half a year. */
const WINDOW_DAYS = 182
/** Fewer clients than this have nothing in common that could be told. */
const FEWEST_CLIENTS = 5
/** Standard errors from which a common shift is said: one in a thousand, because it is looked at again and again. */
const SHIFTED = 3.3
/** Of the clients nine in ten moved that way: where half lose fat in earnest, the other half does not move. */
const TOGETHER = 0.9

/**
 * How far a client moved in the hands of who measured them last, over half a year at most; null with fewer than two
 * check-ins by them.
 * @param visits oldest first
 */
export function moveOf(visits: readonly SpanEnd[], model: ErrorModel = ASSUMED_ERRORS): Move | null {
  const newest = visits.at(-1)
  const assessorId = newest?.facts.assessorId
  if (!newest || !assessorId) return null
  const began = addDays(dayOf(newest.facts), -WINDOW_DAYS)
  const caliper = newest.facts.caliper?.id
  // Folds are what they are at any age and height: nothing is composed anew.
  const ends = visits.filter(
    ({ facts }) => facts.assessorId === assessorId && facts.caliper?.id === caliper && dayOf(facts) >= began,
  )
  const now = ends.at(-1)
  if (!now || ends.length < 2) return null
  const read = now.result.session.sites.flatMap(({ site, value }) => (value === null ? [] : [site]))
  const settings = { summed: foldsAmong(read), model, copying: copyingIn(ends, model) }
  const over = figureOver('sum', ends, siteTerms(ends), settings)
  if (!over) return null
  const { values, variances } = over.series
  const mean = values.reduce((sum, one) => sum + one, 0) / values.length
  const variance = variances.reduce((sum, one) => sum + one, 0) / variances.length
  return {
    assessorId,
    from: over.days[0] ?? '',
    until: over.days.at(-1) ?? '',
    share: ((values.at(-1) ?? 0) - (values[0] ?? 0)) / mean,
    visitVariance: variance / mean ** 2,
  }
}

/** Variance of the difference of two visits some weeks apart under a noise, in units of a visit's assumed variance. */
function differenceUnder(noise: Noise, weeks: number): number {
  return scaleOf(noise) * meanOver(noise, ({ rho, white }) => 2 * (1 - (1 - white) * rho ** weeks))
}

/**
 * Whether the clients of one assessor moved together, all alike: by a common share beyond what measuring error explains,
 * and no further from it than error alone would take them. Clients who change differ from each other; a hand, a caliper
 * or a season takes all along. What it was no statistics can tell.
 * @param noise learnt of the sum
 * @returns null where there are too few, or nothing in common
 */
export function driftOf(moves: readonly Move[], noise: Noise): Drift | null {
  const [first] = moves
  if (!first || moves.length < FEWEST_CLIENTS) return null
  const rows = moves.map(({ from, until, share, visitVariance }) => {
    const weeks = (dayNumber(until) - dayNumber(from)) / 7
    return { share, held: 1 / (visitVariance * differenceUnder(noise, weeks)) }
  })
  const total = rows.reduce((sum, { held }) => sum + held, 0)
  const common = rows.reduce((sum, { share, held }) => sum + held * share, 0) / total
  const error = Math.sqrt(1 / total)
  if (Math.abs(common) < SHIFTED * error) return null
  // The rest about the common share: chi-square with n - 1 degrees of freedom where it is error alone (Cochran's Q).
  const rest = rows.reduce((sum, { share, held }) => sum + held * (share - common) ** 2, 0)
  const freedom = rows.length - 1
  if (rest > freedom + 1.645 * Math.sqrt(2 * freedom)) return null
  const together = moves.filter(({ share }) => Math.sign(share) === Math.sign(common)).length
  if (together < TOGETHER * moves.length) return null
  return {
    assessorId: first.assessorId,
    clients: moves.length,
    together,
    way: common > 0 ? 'up' : 'down',
    share: common,
    low: common - Z_95 * error,
    high: common + Z_95 * error,
    since: moves.reduce((earliest, { from }) => (from < earliest ? from : earliest), first.from),
  }
}

/** What a drift is said to be, and what settles it. */
export function driftSaid({ clients, together, way, share, low, high }: Drift, assessor: string): string {
  const percent = (value: number) => fixed(100 * Math.abs(value), 1)
  const [least, most] = [Math.abs(low), Math.abs(high)].sort((a, b) => a - b) as [number, number]
  return `${together} of ${clients} clients measured by ${assessor} moved ${way} together, by about ${percent(share)} % of the sum (${percent(least)} to ${percent(most)}). That may be training, the season or a hand that drifts: only a steady person measured again tells.`
}
