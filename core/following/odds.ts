import { logGamma, studentCdf } from '../trend/student'
import { COURSES, noiseTerms, runCourse, type FilterRun, type FilterSeries } from './course-filter'
import type { Noise } from './noise'

/** A figure of one client from its start on: what the odds are asked about. */
export interface OddsSeries {
  /** Weeks from the start, rising; the first is the start. */
  weeks: readonly number[]
  values: readonly number[]
  /** Assumed variance of each value, unit squared. */
  variances: readonly number[]
  /** Who measured with which caliper at each visit; one other than the start's shares an unknown offset. */
  hands?: readonly string[]
  /** Variance of such an offset, unit squared. */
  offsetVariance?: number
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
/** Components lighter than this are left out of an interval. */
const LIGHT = 4e-3
/** Most parts a mixture can have: noises by courses. */
const MOST_PARTS = 64

function offsetsOf({ hands, offsetVariance = 0 }: OddsSeries): FilterSeries['offsets'] {
  if (!hands || offsetVariance <= 0) return []
  const others = [...new Set(hands)].filter((hand) => hand !== hands[0])
  const shown = others.slice(0, MOST_HANDS)
  return shown.map((hand, k) => ({
    seen: Float64Array.from(hands, (one) =>
      one === hand || (k === shown.length - 1 && others.indexOf(one) >= MOST_HANDS) ? 1 : 0,
    ),
    variance: offsetVariance,
  }))
}

/** A mixture of Student t distributions, a column each for weight, mean, standard deviation and degrees of freedom. */
class Mixture {
  private count = 0
  private readonly weights = new Float64Array(MOST_PARTS)
  private readonly means = new Float64Array(MOST_PARTS)
  private readonly sds = new Float64Array(MOST_PARTS)
  private readonly freedoms = new Float64Array(MOST_PARTS)

  clear(): void {
    this.count = 0
  }

  /** Adds a part by the logarithm of its weight. */
  add(log: number, mean: number, sd: number, freedom: number): void {
    const { weights, means, sds, freedoms } = this
    weights[this.count] = log
    means[this.count] = mean
    sds[this.count] = sd
    freedoms[this.count] = freedom
    this.count += 1
  }

  /** Turns logarithms into shares and leaves out what is light. */
  private settle(): void {
    const { weights, means, sds, freedoms } = this
    let top = -Infinity
    for (let i = 0; i < this.count; i += 1) top = Math.max(top, weights[i] as number)
    let total = 0
    for (let i = 0; i < this.count; i += 1) total += weights[i] = Math.exp((weights[i] as number) - top)
    let [kept, held] = [0, 0]
    for (let i = 0; i < this.count; i += 1) {
      const weight = (weights[i] as number) / total
      if (weight <= LIGHT) continue
      weights[kept] = weight
      means[kept] = means[i] as number
      sds[kept] = sds[i] as number
      freedoms[kept] = freedoms[i] as number
      held += weight
      kept += 1
    }
    this.count = kept
    for (let i = 0; i < kept; i += 1) weights[i] = (weights[i] as number) / held
  }

  /** Share of it that lies at or below a value. */
  private below(value: number): number {
    const { weights, means, sds, freedoms, count } = this
    let share = 0
    for (let i = 0; i < count; i += 1) {
      const off = value - (means[i] as number)
      const sd = sds[i] as number
      const part = sd > 0 ? studentCdf(off / sd, freedoms[i] as number) : Number(off >= 0)
      share += (weights[i] as number) * part
    }
    return share
  }

  /** Quantile between two bounds whose shares less the one wanted are known, to a hundredth of their distance (Illinois). */
  private quantile(share: number, bounds: { low: number; high: number; below: number; above: number }): number {
    let { low, high, below, above } = bounds
    const enough = 1e-2 * (high - low)
    for (let i = 0; i < 60 && high - low > enough; i += 1) {
      // Where the straight line runs along a bound the middle is surer.
      const line = low - (below * (high - low)) / (above - below)
      const at = i % 3 === 2 || !(line > low && line < high) ? (low + high) / 2 : line
      const off = this.below(at) - share
      if (off < 0) {
        low = at
        below = off
        above /= 2
      } else {
        high = at
        above = off
        below /= 2
      }
    }
    return (low + high) / 2
  }

  /** Mean and 95 % interval. */
  interval(): { change: number; low: number; high: number } {
    this.settle()
    const { weights, means, sds } = this
    let change = 0
    for (let i = 0; i < this.count; i += 1) change += (weights[i] as number) * (means[i] as number)
    let variance = 0
    for (let i = 0; i < this.count; i += 1)
      variance += (weights[i] as number) * ((sds[i] as number) ** 2 + ((means[i] as number) - change) ** 2)
    const spread = Math.sqrt(variance)
    // Where a quantile nearly always is; by Chebyshev's inequality it is never beyond 6.4 standard deviations.
    const between = (share: number, way: number) => {
      let inner = change + way * 1.4 * spread
      let off = this.below(inner) - share
      let outer = change + way * 2.6 * spread
      if (off * way > 0) outer = change
      let other = this.below(outer) - share
      if (off * way <= 0 && other * way <= 0) {
        inner = outer
        off = other
        outer = change + way * 6.4 * spread
        other = this.below(outer) - share
      }
      return inner < outer
        ? this.quantile(share, { low: inner, high: outer, below: off, above: other })
        : this.quantile(share, { low: outer, high: inner, below: other, above: off })
    }
    return { change, low: between(0.025, -1), high: between(0.975, 1) }
  }
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
export function oddsOf(series: OddsSeries, noise: Noise, running = true): Odds | null {
  const count = series.weeks.length
  if (count < 2) return null
  const start = series.weeks[0] ?? 0
  const variances = Float64Array.from(series.variances)
  const filter: FilterSeries = {
    weeks: Float64Array.from(series.weeks, (week) => week - start),
    values: Float64Array.from(series.values),
    variances,
    unit: variances.reduce((sum, one) => sum + one, 0) / count,
    offsets: offsetsOf(series),
  }
  // Log of the likelihoods' sums after each visit, kept as a top and a sum under it.
  const from = running ? 0 : count - 1
  const still = new RunningLogSum(count - from)
  const moved = new RunningLogSum(count - from)
  const room = { kept: new Float64Array(count), sizes: new Float64Array(count) }
  mixture.clear()
  for (const { rho, white, weight, a, b } of noise.models) {
    if (weight < UNHELD) continue
    const terms = noiseTerms(filter, { rho, white }, room)
    const gammas = gammasOf(a, count)
    const known = Math.log(weight) - logGamma(a) + a * Math.log(b)
    const logOf = (i: number, log: number, squares: number) =>
      known + log + (gammas[i] as number) - (a + i / 2) * Math.log(b + squares / 2)
    const take = (run: FilterRun, into: RunningLogSum): number => {
      const last = logOf(count - 1, run.lastLog, run.lastSquares)
      for (let i = 0; i < run.logs.length - 1; i += 1)
        into.add(i, logOf(i, run.logs[i] as number, run.squares[i] as number))
      into.add(count - 1 - from, last)
      return last
    }
    take(runCourse(filter, terms, { kind: 'none' }, running), still)
    for (const course of COURSES) {
      const run = runCourse(filter, terms, course, running)
      const log = take(run, moved)
      const freedom = 2 * a + count - 1
      const scale = (2 * b + run.lastSquares) / freedom
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
