import type { Day } from '../calendar'
import type { SiteId } from '../sites'
import type { FigureSeriesOf } from './figures'
import type { Noise } from './noise'
import { judge, REAL_ODDS, type Judging, type VerdictKind } from './verdict'
import type { FigureId } from './weights'

/** A figure over a span: what was measured at both ends, and what its whole history between them allows to be said. */
export interface Change {
  figure: FigureId
  /** Measured then and now. */
  then: number
  now: number
  /** Best estimate of the change, with its 95 % interval. */
  change: number
  low: number
  high: number
  /** How much likelier the history is if something changed; divided by the search where there was one. */
  odds: number
  verdict: VerdictKind
  /** The site a `one-site` verdict rests on. */
  site: SiteId | null
  /** What the odds were divided by: 1 where start and figure were chosen beforehand. */
  searched: number
  /** Check-ins the verdict stands on. */
  visits: number
  /** Day of the check-in at which the odds first passed the line of real; null: never. */
  realOn: Day | null
  /** The figure's error at a visit: standard deviation, its degrees of freedom, and clients it was learnt from (0: assumed). */
  noise: { sd: number; freedom: number; clients: number }
}

/** The standard deviation of a visit that a noise makes of an assumed variance, and its degrees of freedom. */
export function noiseOf(noise: Noise, variance: number): Change['noise'] {
  let [scale, freedom] = [0, 0]
  for (const { weight, a, b } of noise.models) {
    scale += (weight * b) / a
    freedom += weight * 2 * a
  }
  return { sd: Math.sqrt(scale * variance), freedom, clients: noise.learntFrom.clients }
}

/** Judges a figure over its visits. Null where it is not there at two of them. */
export function changeOf(
  figure: FigureId,
  over: Pick<FigureSeriesOf, 'series' | 'days'> | null,
  judging: Judging,
): Change | null {
  const judged = over && judge(over.series, judging)
  if (!over || !judged) return null
  const { values, variances } = over.series
  const first = judged.running.findIndex((one) => one >= REAL_ODDS)
  return {
    figure,
    then: values[0] ?? NaN,
    now: values.at(-1) ?? NaN,
    change: judged.change,
    low: judged.low,
    high: judged.high,
    odds: judged.odds,
    verdict: judged.verdict,
    site: judged.site,
    searched: judged.searched,
    visits: values.length,
    realOn: over.days[first] ?? null,
    noise: noiseOf(judging.noise, variances.reduce((sum, one) => sum + one, 0) / variances.length),
  }
}

/** Which way a change that counts goes: only what is real says a direction of the body. */
export function realWay(change: Change | null): 'up' | 'down' | null {
  return change?.verdict === 'real' ? (change.change > 0 ? 'up' : 'down') : null
}
