import { isFold, type SiteId } from '../sites'
import { addRepeats, NO_REPEATS, PRIOR_SHARE, PRIOR_WEIGHT, shrunkTem, type Repeats } from './tem'

/** One site's readings at one visit: what an assessor's error is learnt from. Folds mm, girths cm. */
export interface RepeatedSite {
  site: SiteId
  assessorId: string
  /** ISO instant of the visit. */
  at: string
  values: readonly number[]
}

/** An assessor's error at one site. */
export interface SiteError {
  /** Technical error of one reading as a share of the value: 0.05 is 5 %. */
  share: number
  /** Repeats it stands on; 0: the prior alone. */
  repeats: number
  /** Weight of the prior in it, 0 to 1. */
  priorWeight: number
}

/** Looks an assessor's error at a site up. */
export type ErrorLookup = (site: SiteId, assessorId: string | undefined) => SiteError

/** How far back an assessor's repeats count, days. */
export const ERROR_WINDOW_DAYS = 180
const DAY_MS = 24 * 60 * 60 * 1000

function priorFor(site: SiteId): SiteError {
  return { share: PRIOR_SHARE[isFold(site) ? 'fold' : 'girth'], repeats: 0, priorWeight: 1 }
}

/** Every assessor as assumed before anything is known. */
export const priorErrors: ErrorLookup = (site) => priorFor(site)

/** An assessor's error at a site from pooled repeats, shrunk to the prior. */
export function siteErrorOf(site: SiteId, repeats: Repeats): SiteError {
  if (repeats.freedom === 0) return priorFor(site)
  const mean = repeats.total / repeats.readings
  const tem = shrunkTem(repeats, mean, isFold(site) ? 'fold' : 'girth')
  return { share: tem / mean, repeats: repeats.freedom, priorWeight: PRIOR_WEIGHT / (PRIOR_WEIGHT + repeats.freedom) }
}

/**
 * Errors of every assessor by site, from the repeats every check-in holds anyway, over a window of days before `now`,
 * shrunk to the prior while little is known.
 */
export function assessorErrors(
  visits: readonly RepeatedSite[],
  now: string,
  windowDays = ERROR_WINDOW_DAYS,
): ErrorLookup & { known: ReadonlyMap<string, ReadonlyMap<SiteId, SiteError>> } {
  const end = Date.parse(now)
  const from = end - windowDays * DAY_MS
  const pooled = new Map<string, Map<SiteId, Repeats>>()
  // The sites of one visit share its instant, as text and so as time.
  let [lastAt, time] = ['', NaN]
  for (const { site, assessorId, at, values } of visits) {
    if (at !== lastAt) [lastAt, time] = [at, Date.parse(at)]
    if (!(time >= from && time <= end)) continue
    let own = pooled.get(assessorId)
    if (!own) pooled.set(assessorId, (own = new Map()))
    own.set(site, addRepeats(own.get(site) ?? NO_REPEATS, values))
  }
  const known = new Map<string, ReadonlyMap<SiteId, SiteError>>()
  for (const [assessorId, sites] of pooled) {
    known.set(assessorId, new Map([...sites].map(([site, repeats]) => [site, siteErrorOf(site, repeats)])))
  }
  return Object.assign(errorLookup(known), { known })
}

/** A lookup over errors that are known already; the prior for all others. */
export function errorLookup(known: ReadonlyMap<string, ReadonlyMap<SiteId, SiteError>>): ErrorLookup {
  return (site, assessorId) => known.get(assessorId ?? '')?.get(site) ?? priorFor(site)
}
