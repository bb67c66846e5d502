import { logGamma } from '../trend/student'
import { COURSES, noiseTerms, type FilterRun, type FilterSeries } from './course-filter'
import { runCourses } from './course-runs'
import { Mixture } from './mixture'
import type { HeldNoise, Noise } from './noise'

/** A figure of one client from its start on: what the odds are asked about. */
export interface OddsSeries {
  /** Weeks from the start, rising; the first is the start. */
  weeks: readonly number[]
  values: readonly number[]
  /** Assumed variance of each value, unit squared. */
  variances: readonly number[]
  /** Who measured with which caliper at each visit; one other than the start's shares an unknown offset. */
  hands?: readonly string[]
  /** Variance of such an offset by hand, unit squared; what no study has found is assumed. */
  offsetVariances?: Readonly<Record<string, number>>
  /** What studies say each value is too high by, because of the hand that took it; unit of the figure. */
  biases?: readonly number[]
}

/** What a history says about a change since its start. */
export interface Odds {
  /** Likelihood of "something changed" over "nothing changed" after each visit, 1 at the start; empty where not asked for. */
  running: readonly number[]
  /** At the last visit. */
  odds: number
  /** Best estimate of the change and its 95 % interval, something or other having happened; unit of the figure. */
  change: number
  low: number
  high: number
}

/** Other hands than the start's that get an offset of their own; the others share the last one's. */
const MOST_HANDS = 3
/** Noise models held less likely than this are left out, of both hypotheses alike. */
const UNHELD = 1e-3

function offsetsOf({ hands, offsetVariances = {} }: OddsSeries): FilterSeries['offsets'] {
  if (!hands) return []
  const others = [...new Set(hands)].filter((hand) => hand !== hands[0] && (offsetVariances[hand] ?? 0) > 0)
  const shown = others.slice(0, MOST_HANDS)
  return shown.map((hand, k) => ({
    seen: Float64Array.from(hands, (one) =>
      one === hand || (k === shown.length - 1 && others.indexOf(one) >= MOST_HANDS) ? 1 : 0,
    ),
    variance: offsetVariances[hand] as number,
  }))
}

/** The noise models that count. */
export function heldOf({ models }: Noise): HeldNoise[] {
  return models.filter(({ weight }) => weight >= UNHELD)
}

/** A figure's history as the filters take it. */
export function filterSeriesOf(series: OddsSeries): FilterSeries {
  const count = series.weeks.length
  const start = series.weeks[0] ?? 0
  const [weeks, values, variances] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)]
  let sum = 0
  for (let i = 0; i < count; i += 1) {
    const variance = series.variances[i] as number
    weeks[i] = (series.weeks[i] as number) - start
    values[i] = (series.values[i] as number) - (series.biases?.[i] ?? 0)
    variances[i] = variance
    sum += variance
  }
  return { weeks, values, variances, unit: sum / count, offsets: offsetsOf(series) }
}

/** Gives the logarithm of the likelihood after `i` contrasts, from their log determinant and squares, the scale integrated out. */
export function likelihoodOf({ weight, a, b }: HeldNoise, count: number) {
  const gammas = gammasOf(a, count)
  const known = Math.log(weight) - logGamma(a) + a * Math.log(b)
  return (i: number, log: number, squares: number) =>
    known + log + (gammas[i] as number) - (a + i / 2) * Math.log(b + squares / 2)
}

/** What is held of the scale after all contrasts of a history of `count` values: its mean and degrees of freedom. */
export function scaleOf({ a, b }: HeldNoise, squares: number, count: number) {
  const freedom = 2 * a + count - 1
  return { scale: (2 * b + squares) / freedom, freedom }
}

/** One mixture for all: odds are asked for thousands of times over. */
const mixture = new Mixture()

/**
 * How much likelier a figure's history is if something changed than if nothing did, after each visit, under every noise
 * held possible, its scale integrated out: Student t likelihoods by Kalman filters, O(n).
 *
 * Of clients who do not change at most one in twenty is ever given odds of 20 or more, however often one looks: the odds
 * are a likelihood ratio that averages one (Ville 1939).
 * @param running the odds are wanted after every visit; else only at the last, in half the time
 * @returns null with fewer than two visits
 */
export function oddsOf(series: OddsSeries, held: Noise, running = true): Odds | null {
  const count = series.weeks.length
  if (count < 2) return null
  const filter = filterSeriesOf(series)
  // Log of the likelihoods' sums after each visit, kept as a top and a sum under it.
  const from = running ? 0 : count - 1
  const still = new RunningLogSum(count - from)
  const moved = new RunningLogSum(count - from)
  const room = { kept: new Float64Array(count), sizes: new Float64Array(count) }
  mixture.clear()
  for (const noise of heldOf(held)) {
    const terms = noiseTerms(filter, noise, room)
    const logOf = likelihoodOf(noise, count)
    const take = (run: FilterRun, into: RunningLogSum): number => {
      const last = logOf(count - 1, run.lastLog, run.lastSquares)
      for (let i = 0; i < run.logs.length - 1; i += 1)
        into.add(i, logOf(i, run.logs[i] as number, run.squares[i] as number))
      into.add(count - 1 - from, last)
      return last
    }
    const runs = runCourses(filter, terms, running)
    take(runs.still, still)
    for (const run of runs.moved) {
      const log = take(run, moved)
      const { scale, freedom } = scaleOf(noise, run.lastSquares, count)
      mixture.add(log, run.change, Math.sqrt(scale * run.changeVariance), freedom)
    }
  }
  const at = (i: number) => Math.exp(moved.at(i) - still.at(i)) / COURSES.length
  return {
    running: running ? series.weeks.map((_, i) => at(i)) : [],
    odds: at(count - 1 - from),
    ...mixture.interval(),
  }
}

/** Sums of numbers whose logarithms are known, one sum a visit. */
class RunningLogSum {
  private readonly tops: Float64Array
  private readonly sums: Float64Array
  constructor(count: number) {
    this.tops = new Float64Array(count).fill(-Infinity)
    this.sums = new Float64Array(count)
  }
  add(i: number, log: number): void {
    const top = this.tops[i] as number
    if (log <= top) this.sums[i] = (this.sums[i] as number) + Math.exp(log - top)
    else {
      this.sums[i] = (this.sums[i] as number) * Math.exp(top - log) + 1
      this.tops[i] = log
    }
  }
  at(i: number): number {
    return (this.tops[i] as number) + Math.log(this.sums[i] as number)
  }
}

/** logGamma(a + i / 2) from i = 0 on, which every figure asks for again. */
const knownGammas = new Map<number, Float64Array>()
function gammasOf(a: number, count: number): Float64Array {
  const known = knownGammas.get(a)
  if (known && known.length >= count) return known
  if (knownGammas.size > 200) knownGammas.clear()
  const gammas = Float64Array.from({ length: Math.max(count, 32) }, (_, i) => logGamma(a + i / 2))
  knownGammas.set(a, gammas)
  return gammas
}
