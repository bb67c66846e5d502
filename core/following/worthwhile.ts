import type { Change } from './change'

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
 * Whether a real change is worth acting on: its best estimate is at least the smallest that matters. Null where no size
 * is set for the figure.
 */
export function isWorthwhile({ figure, change, then }: Change, smallest: Worthwhile = WORTHWHILE): boolean | null {
  const size = Math.abs(change)
  if (figure === 'fat' || figure === 'lean' || figure === 'weight') return size >= smallest.fatKg
  if (figure === 'sum') return size >= (smallest.sumPercent / 100) * then
  return null
}
