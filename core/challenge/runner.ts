import { daysBetween } from '../calendar'
import type { SpanEnd } from '../composition/end-figures'
import { dayOf } from '../composition/facts'
import { judgeFigures, type Noises } from '../following'
import { countedShare, type Runner } from './standing'

/**
 * Somebody's change between their first and last measuring, with its error as the studio's own check-ins teach it.
 * @returns null where the figure is not there at both, or they cannot be compared
 */
export function runnerOf(
  id: string,
  [first, last]: readonly [SpanEnd, SpanEnd],
  figure: 'sum' | 'fat',
  noises: Noises,
): Runner | null {
  const { sum, fat, weight } = judgeFigures([first, last], ['sum', 'fat', 'weight'], { noises, running: false })
  const change = figure === 'sum' ? sum : fat
  if (!change || change.then <= 0) return null
  const weeks = daysBetween(dayOf(first.facts), dayOf(last.facts)) / 7
  const pace = weight && weeks > 0 && weight.then > 0 ? (100 * (weight.now - weight.then)) / weight.then / weeks : null
  const percent = 100 / change.then
  return {
    id,
    change: percent * (change.now - change.then),
    // Both ends err; what lasts from one to the other is not counted on.
    sd: percent * Math.SQRT2 * change.noise.sd,
    freedom: change.noise.freedom,
    counted: change.now < change.then ? countedShare(pace) : 1,
  }
}
