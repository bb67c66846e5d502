import type { SiteId } from '../index'
import type { CloseUp } from './close-up'
import { FOLD_CLOSE_UPS } from './folds'
import { GIRTH_CLOSE_UPS } from './girths'

export * from './close-up'
export { REGIONS, type RegionId } from './regions'
export { FOLD_CLOSE_UPS } from './folds'
export { GIRTH_CLOSE_UPS } from './girths'

/** The close-up of every site: one entry a site. */
export const CLOSE_UPS: Readonly<Record<SiteId, CloseUp>> = { ...FOLD_CLOSE_UPS, ...GIRTH_CLOSE_UPS }
