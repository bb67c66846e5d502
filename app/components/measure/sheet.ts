import type { SiteState } from '#core/readings'
import type { Site } from '#core/sites'
import type { MarkState } from '../figure/marks'

/** One row of the log sheet as shown. */
export interface SheetRow {
  site: Site
  state: SiteState
  /** Last time's value, mm or cm. */
  last: number | null
  mark: MarkState
}

/** The mark of a site on figure and sheet. */
export function markOf(state: SiteState, current: string | null, next: string | null): MarkState {
  if (state.site === current) return 'now'
  if (state.status === 'disputed') return 'disputed'
  if (state.skipped !== null && state.value === null) return 'left-out'
  if (state.status === 'agreed' || state.status === 'unsteady' || state.skipped !== null) return 'agreed'
  if (state.site === next) return 'next'
  return state.status === 'partial' ? 'once' : 'to-come'
}
