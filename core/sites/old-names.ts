import type { SiteId } from './catalogue'

/**
 * Sites that were split: facts of earlier versions, devices that were away, and files say the older name. Within a set the
 * school of the set tells which of both was taken.
 */
const SPLIT: Partial<Record<SiteId, SiteId>> = { triceps: 'triceps-kin', biceps: 'biceps-kin' }

/**
 * A site as a set has it: the one named, else the one it was split into. A thigh girth in a set that asks for mid-thigh was
 * taken at a level nobody wrote down.
 * @example siteInSet(['triceps-kin', 'subscapular'], 'triceps') // 'triceps-kin'
 */
export function siteInSet(sites: readonly SiteId[], site: SiteId): SiteId {
  if (sites.includes(site)) return site
  const split = SPLIT[site]
  if (split && sites.includes(split)) return split
  return site === 'thigh-girth' && sites.includes('mid-thigh-girth') ? 'thigh-unsaid' : site
}

/** Whether a site belongs to a set; a thigh girth without its level belongs where one with it is asked for. */
export function isInSet(sites: readonly SiteId[], site: SiteId): boolean {
  if (sites.includes(site)) return true
  return site === 'thigh-unsaid' && (sites.includes('mid-thigh-girth') || sites.includes('thigh-girth'))
}

/** The sites of a set as they were read: a thigh girth without its level stands where the set asks for one with it. */
export function withUnsaid(sites: readonly SiteId[], read: ReadonlySet<string>): readonly SiteId[] {
  if (!read.has('thigh-unsaid') || sites.includes('thigh-unsaid')) return sites
  return sites.map((site) =>
    (site === 'mid-thigh-girth' || site === 'thigh-girth') && !read.has(site) ? 'thigh-unsaid' : site,
  )
}
