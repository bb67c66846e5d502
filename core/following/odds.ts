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

/** More than this is not said. */
export const MOST_ODDS = 1000

/** Other hands than the start's that get an offset of their own; the others share the last one's. */
const MOST_HANDS = 3
/** Components lighter than this are left out of an interval. */
const LIGHT = 2e-3

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

function logSum(values: readonly number[]): number {
  const top = Math.max(...values)
  return top + Math.log(values.reduce((sum, one) => sum + Math.exp(one - top), 0))
}

/** One way the change may be distributed: a Student t with its weight. */
interface Part {
  weight: number
  mean: number
  sd: number
  freedom: number
}

/** Share of a mixture of Student t distributions that lies at or below a value. */
function shareBelow(parts: readonly Part[], value: number): number {
  let share = 0
  for (const { weight, mean, sd, freedom } of parts) {
    share += weight * (sd > 0 ? studentCdf((value - mean) / sd, freedom) : Number(value >= mean))
  }
  return share
}

/** Quantile of such a mixture, between two bounds, to a thousandth of their distance (regula falsi, Illinois). */
function quantile(parts: readonly Part[], share: number, low: number, high: number): number {
  let [below, above] = [shareBelow(parts, low) - share, shareBelow(parts, high) - share]
  const enough = 1e-3 * (high - low)
  for (let i = 0; i < 60 && high - low > enough; i += 1) {
    // Where the straight line runs along a bound the middle is surer.
    const line = low - (below * (high - low)) / (above - below)
    const at = i % 3 === 2 || !(line > low && line < high) ? (low + high) / 2 : line
    const off = shareBelow(parts, at) - share
    if (off < 0) {
      ;[low, below] = [at, off]
      above /= 2
    } else {
      ;[high, above] = [at, off]
      below /= 2
    }
  }
  return (low + high) / 2
}

function intervalOf(parts: readonly Part[]): { change: number; low: number; high: number } {
  const heavy = parts.filter(({ weight }) => weight > LIGHT)
  const total = heavy.reduce((sum, { weight }) => sum + weight, 0)
  const own = heavy.map((part) => ({ ...part, weight: part.weight / total }))
  const change = own.reduce((sum, { weight, mean }) => sum + weight * mean, 0)
  const spread = Math.sqrt(
    own.reduce((sum, { weight, mean, sd }) => sum + weight * (sd ** 2 + (mean - change) ** 2), 0),
  )
  const wide = 12 * spread
  return {
    change,
    low: quantile(own, 0.025, change - wide, change),
    high: quantile(own, 0.975, change, change + wide),
  }
}

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
  const still = new RunningLogSum(count)
  const moved = new RunningLogSum(count)
  const parts: Part[] = []
  const said: number[] = []
  for (const { rho, white, weight, a, b } of noise.models) {
    const terms = noiseTerms(filter, { rho, white })
    const gammas = gammasOf(a, count)
    const known = Math.log(weight) - logGamma(a) + a * Math.log(b)
    const take = (run: FilterRun, into: RunningLogSum): number => {
      let last = 0
      for (let i = running ? 0 : count - 1; i < count; i += 1) {
        last =
          known +
          (run.logs[i] as number) +
          (gammas[i] as number) -
          (a + i / 2) * Math.log(b + (run.squares[i] as number) / 2)
        into.add(i, last)
      }
      return last
    }
    take(runCourse(filter, terms, { kind: 'none' }, running), still)
    for (const course of COURSES) {
      const run = runCourse(filter, terms, course, running)
      said.push(take(run, moved))
      const freedom = 2 * a + count - 1
      const scale = (2 * b + (run.squares[count - 1] as number)) / freedom
      parts.push({ weight: 0, mean: run.change, sd: Math.sqrt(scale * run.changeVariance), freedom })
    }
  }
  const top = logSum(said)
  const weighted = parts.map((part, i) => ({ ...part, weight: Math.exp((said[i] as number) - top) }))
  const at = (i: number) => Math.exp(moved.at(i) - still.at(i)) / COURSES.length
  return {
    running: running ? series.weeks.map((_, i) => at(i)) : [],
    odds: at(count - 1),
    ...intervalOf(weighted),
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
