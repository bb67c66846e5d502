import type { SiteId } from '../sites'
import type { Noise } from './noise'
import { oddsOf, type Odds, type OddsSeries } from './odds'

/**
 * What a history allows to be said of a change. `real`: odds of 20 and over, with any one site left out of the sum still
 * 3, and the interval on one side. `one-site`: it rests on one site. `came-back`: it moved, and the interval holds zero
 * again. `leaning`: 3 and over, not established. `not-told`: not told apart from no change.
 */
export type VerdictKind = 'real' | 'one-site' | 'came-back' | 'leaning' | 'not-told'

/** Odds from which a change is called real, and from which it leans. */
export const REAL_ODDS = 20
export const LEANING_ODDS = 3
/** Odds over this are said as over it. */
export const MOST_SAID = 1000

/** A change with what its history says of it. */
export interface Judged extends Odds {
  verdict: VerdictKind
  /** The site a `one-site` verdict rests on. */
  site: SiteId | null
  /** Divided by for the search: many starts or many sites looked at. 1: chosen beforehand. */
  searched: number
}

/** How it is judged. */
export interface Judging {
  noise: Noise
  /** The same figure with one site left out each, for a sum. */
  without?: () => { site: SiteId; series: OddsSeries }[]
  /** The odds are divided by this: see `searchOf`. */
  searched?: number
  /** False: the odds after every visit are not wanted, which halves the work. */
  running?: boolean
}

/**
 * What the odds of the s-th check-in as a start, found by searching, are divided by: s (s + 1), so that all starts
 * together keep the promise.
 * @param place of the start among the check-ins, 1 first
 */
export function searchOf(place: number): number {
  return place * (place + 1)
}

/** Judges a change by its history. Null with fewer than two visits. */
export function judge(series: OddsSeries, { noise, without, searched = 1, running = true }: Judging): Judged | null {
  const found = oddsOf(series, noise, running)
  if (!found) return null
  const odds = found.odds / searched
  const said = { ...found, odds, running: found.running.map((one) => one / searched), searched }
  if (odds < LEANING_ODDS) return { ...said, verdict: 'not-told', site: null }
  if (odds < REAL_ODDS) return { ...said, verdict: 'leaning', site: null }
  if (found.low <= 0 && found.high >= 0) return { ...said, verdict: 'came-back', site: null }
  for (const one of without?.() ?? []) {
    const rest = oddsOf(one.series, noise, false)
    if (rest && rest.odds / searched < LEANING_ODDS) return { ...said, verdict: 'one-site', site: one.site }
  }
  return { ...said, verdict: 'real', site: null }
}
