import { studentCdf } from '../trend/student'

/** Components lighter than this are left out of an interval. */
const LIGHT = 2e-3
/** Most parts a mixture can have: noises by courses. */
const MOST_PARTS = 256

/** A mixture of Student t distributions, a column each for weight, mean, standard deviation and degrees of freedom. */
export class Mixture {
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

  /** Share of it between two values, once `interval` has been asked for. */
  share(low: number, high: number): number {
    return this.below(high) - this.below(low)
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
