import type { SiteId } from '../sites'

/** Sites that need the back or trunk bare, and those that need the thigh. */
const TRUNK: readonly SiteId[] = [
  'subscapular',
  'chest',
  'midaxillary',
  'suprailiac',
  'abdominal',
  'iliac-crest',
  'supraspinale',
]
const THIGH: readonly SiteId[] = ['thigh', 'front-thigh', 'thigh-girth', 'mid-thigh-girth']

/** What to wear for a set of sites, in a line (common practice). */
export function whatToWear(sites: readonly SiteId[]): string {
  const top = sites.some((site) => TRUNK.includes(site)) ? 'a top that lifts' : 'bare arms'
  const legs = sites.some((site) => THIGH.includes(site)) ? 'loose shorts' : 'usual training trousers'
  return `${legs.charAt(0).toUpperCase()}${legs.slice(1)} and ${top}; dry skin, no lotion.`
}
