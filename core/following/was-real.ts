import type { Day } from '../calendar'
import type { Change } from './change'
import type { Span } from './span'

const NAMED = ['sum', 'fat', 'lean', 'weight'] as const

/** A figure whose change was real once and is not now, with the day it first was. */
export interface WasReal {
  figure: (typeof NAMED)[number]
  on: Day
}

/**
 * Each verdict keeps its day: what passed the line of real and is not there now.
 * @param neutral masses are not spoken of: the sum alone
 */
export function wasReal(span: Pick<Span, (typeof NAMED)[number]>, neutral: boolean): WasReal[] {
  return NAMED.filter((figure) => figure === 'sum' || !neutral).flatMap((figure) => {
    const change: Change | null = span[figure]
    return change?.realOn && change.verdict !== 'real' ? [{ figure, on: change.realOn }] : []
  })
}
