import type { Day } from '../calendar'
import { Z_95 } from '../error/interval'
import type { SiteId } from '../sites'
import type { FigureSeriesOf } from './figures'
import { meanOver, scaleOf, type Noise } from './noise'
import { judge, type Judging, type Standing, type VerdictKind } from './verdict'
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
  /** How much likelier the history is if something changed. */
  odds: number
  /** The odds it takes to be real: more where start or figure were found by looking. */
  needed: number
  verdict: VerdictKind
  /** The site a `one-fold` verdict rests on. */
  site: SiteId | null
  /** Check-ins the verdict stands on. */
  visits: number
  /** Day of the check-in at which it was first real; null: never, or not asked for. */
  realOn: Day | null
  /** What was said until now: the next look goes on from it. */
  standing: Standing
  /** Half-width of the 95 % error of comparing the two visits by themselves, unit of the figure. */
  error: number
  /** The figure's error at a visit: standard deviation, its degrees of freedom, and clients it was learnt from (0: assumed). */
  noise: { sd: number; freedom: number; clients: number }
}

/** The standard deviation of a visit that a noise makes of an assumed variance, and its degrees of freedom. */
export function noiseOf(noise: Noise, variance: number): Change['noise'] {
  const scale = scaleOf(noise)
  const freedom = meanOver(noise, (_, __, one) => one)
  return { sd: Math.sqrt(scale * variance), freedom, clients: noise.learntFrom.clients }
}

/** Half-width of the 95 % error of the difference between the first and the last of a series, another hand's offset in it. */
function errorOfTwo({ variances, hands, offsetVariances = {} }: FigureSeriesOf['series'], noise: Noise): number {
  const [first = 0, last = 0] = [variances[0], variances.at(-1)]
  const hand = hands?.at(-1)
  const offset = hand !== undefined && hand !== hands?.[0] ? (offsetVariances[hand] ?? 0) : 0
  return Z_95 * Math.sqrt(scaleOf(noise) * (first + last) + offset)
}

/** How a figure over its visits is judged: noises by the day of the look where earlier looks are asked for. */
export interface ChangeJudging extends Omit<Judging, 'running'> {
  noiseOn?: (day: Day) => Noise
}

/** Judges a figure over its visits. Null where it is not there at two of them. */
export function changeOf(
  figure: FigureId,
  over: Pick<FigureSeriesOf, 'series' | 'days'> | null,
  { noiseOn, ...judging }: ChangeJudging,
): Change | null {
  if (!over) return null
  const { days } = over
  const running = noiseOn && ((look: number) => noiseOn(days[look] as Day))
  const judged = judge(over.series, { ...judging, ...(running ? { running } : {}) })
  if (!judged) return null
  const { values, variances } = over.series
  const { change, low, high, odds, needed, verdict, site, standing, realAt } = judged
  return {
    figure,
    then: values[0] ?? NaN,
    now: values.at(-1) ?? NaN,
    change,
    low,
    high,
    odds,
    needed,
    verdict,
    site,
    visits: values.length,
    realOn: realAt === null ? null : (days[realAt] ?? null),
    standing,
    error: errorOfTwo(over.series, judging.noise),
    noise: noiseOf(judging.noise, variances.reduce((sum, one) => sum + one, 0) / variances.length),
  }
}

/** Which way a change that counts goes: only what is real says a direction of the body. */
export function realWay(change: Change | null): 'up' | 'down' | null {
  return change?.verdict === 'real' ? (change.change > 0 ? 'up' : 'down') : null
}
