import { asSite, isFold } from '../sites'
import type { Change } from './change'
import type { FigureId } from './weights'

/** The smallest change worth acting on, as a coach sets it. */
export interface Worthwhile {
  /** Of fat and lean mass, kg. */
  fatKg: number
  /** Of the sum of folds and of a single fold, percent of what it was. */
  sumPercent: number
}

/** What counts until a coach says otherwise (common practice). */
export const WORTHWHILE: Worthwhile = { fatKg: 0.5, sumPercent: 5 }

/**
 * The smallest change of a figure that matters, its unit; null where no size is set for it.
 * @param then the figure at the start
 */
export function smallestOf(
  figure: FigureId,
  then: number,
  { fatKg, sumPercent }: Worthwhile = WORTHWHILE,
): number | null {
  if (figure === 'fat' || figure === 'lean' || figure === 'weight' || figure === 'week-weight') return fatKg
  const site = asSite(figure)
  return figure === 'sum' || (site && isFold(site)) ? (sumPercent / 100) * then : null
}

/**
 * Whether a real change is worth acting on: its best estimate is at least the smallest that matters. Null where no size
 * is set for the figure.
 */
export function isWorthwhile({ figure, change, then }: Change, smallest: Worthwhile = WORTHWHILE): boolean | null {
  const least = smallestOf(figure, then, smallest)
  return least === null ? null : Math.abs(change) >= least
}
