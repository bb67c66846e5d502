import { log } from './fast'
import { coefficientsOf, takeOut, type Coefficients } from './regressors'
import { NOISE_TYPES, SLOW } from './noise'
import { COSINE, HANDS, innovationsOf, pairOf, SINE, TREND, type Runs } from './timing'

/** One way a figure may have gone: a run, and the variance of a straight line's slope beside it (visit variances). */
export interface Way {
  /** Place among the runs of a timing: 0 without a wandering course. */
  run: number
  /** Variance of the slope a week; 0: no line. */
  line: number
}

/** A figure's values under every run of its timing. */
export class FigureRuns {
  /** By run, then by visit: squares of the innovations, and their products with each regressor, weighted and summed up. */
  private readonly squares: Float64Array
  private readonly rights: Float64Array[]
  /** Course of the values at the last visit, by run. */
  private readonly ends: Float64Array

  /**
   * @param values in visit sds, from the start on
   * @param offsets variance of each other hand's offset, visit variances
   */
  constructor(
    readonly runs: Runs,
    readonly values: Float64Array,
    private readonly offsets: readonly number[] = [],
  ) {
    const { count, innovations, courseVariances } = runs
    const bases = courseVariances.length
    this.squares = new Float64Array(bases * count)
    this.rights = innovations.map((column) => new Float64Array(column.length))
    this.ends = new Float64Array(bases)
    for (let base = 0; base < bases; base += 1) this.ends[base] = innovationsOf(runs, base, values, this.squares)
    for (let k = innovations.length - 1; k >= 0; k -= 1) this.sumUp(k)
  }

  /** Sums up the products with a regressor; with the first, which every run has, the squares too. */
  private sumUp(k: number): void {
    const { runs, squares } = this
    const { count, weights } = runs
    const [column, into] = [runs.innovations[k], this.rights[k]] as [Float64Array, Float64Array]
    for (let from = 0; from < column.length; from += count) {
      let products = 0
      let sum = 0
      for (let i = from + 1; i < from + count; i += 1) {
        const off = squares[i] as number
        const weighted = off * (weights[i] as number)
        products += (column[i] as number) * weighted
        into[i] = products
        if (k > 0) continue
        sum += off * weighted
        squares[i] = sum
      }
    }
  }

  /** Regressors at work under a type and a way, and the variance of each one's coefficient. */
  atWork(type: number, line: number): { places: number[]; variances: number[] } {
    const isSlow = NOISE_TYPES[type]?.slow === true
    const trend = line + (isSlow ? SLOW.driftSd ** 2 : 0)
    const [places, variances] = [[] as number[], [] as number[]]
    const take = (place: number, variance: number) => {
      if (!(variance > 0)) return
      places.push(place)
      variances.push(variance)
    }
    take(TREND, trend)
    if (isSlow) {
      take(COSINE, SLOW.seasonSd ** 2)
      take(SINE, SLOW.seasonSd ** 2)
    }
    this.offsets.forEach((variance, k) => take(HANDS + k, variance))
    return { places, variances }
  }

  /** Products of regressors at work after a visit, as a solver asks for them. */
  private system(base: number, at: number, places: readonly number[]) {
    const { runs, rights } = this
    const { count, columns, products } = runs
    const pairs = (columns * (columns + 1)) / 2
    const place = base * count + at
    return {
      product: (j: number, k: number) =>
        products[place * pairs + pairOf(places[j] as number, places[k] as number)] as number,
      right: (j: number) => (rights[places[j] as number] as Float64Array)[place] as number,
    }
  }

  /**
   * Squares of the contrasts and half their log determinant after a visit, under every type and way.
   * @param at the visit
   * @param into squares and halves, by type, then by way
   */
  fill(at: number, ways: readonly Way[], into: { squares: Float64Array; halves: Float64Array }): void {
    const { runs, squares: sums, offsets } = this
    const { count, columns, perType, halfLogs, products } = runs
    const pairs = (columns * (columns + 1)) / 2
    const trend = this.rights[TREND] as Float64Array
    for (let type = 0; type < NOISE_TYPES.length; type += 1) {
      const filtered = type === 0 ? 0 : type - 1
      const plain = type !== 1 && offsets.length === 0
      for (let w = 0; w < ways.length; w += 1) {
        const { run, line } = ways[w] as Way
        const base = filtered * perType + run
        const from = base * count + at
        let squares = sums[from] as number
        let half = halfLogs[from] as number
        if (plain) {
          if (line > 0) {
            const product = (products[from * pairs] as number) * line + 1
            const right = trend[from] as number
            squares -= (right * right * line) / product
            half += 0.5 * log(product)
          }
        } else {
          const { places, variances } = this.atWork(type, line)
          const { product, right } = this.system(base, at, places)
          const { dot, halfLog } = takeOut(places.length, product, right, (j) => variances[j] as number)
          squares -= dot
          half += halfLog
        }
        const place = type * ways.length + w
        into.squares[place] = Math.max(0, squares)
        into.halves[place] = half
      }
    }
  }

  /** Place of a type's run with a way. */
  baseOf(type: number, { run }: Way): number {
    return (type === 0 ? 0 : type - 1) * this.runs.perType + run
  }

  /** Coefficients of the regressors at work once all values are known. */
  coefficients(type: number, way: Way): Coefficients & { places: number[]; variances: number[] } {
    const { places, variances } = this.atWork(type, way.line)
    const { product, right } = this.system(this.baseOf(type, way), this.runs.count - 1, places)
    return { places, variances, ...coefficientsOf(places.length, product, right, (j) => variances[j] as number) }
  }

  /** Change from the start to the last visit under a type and a way, and its variance on scale 1; visit sds. */
  change(type: number, way: Way): { change: number; variance: number } {
    const { runs, ends } = this
    const { columns, timing, courses, courseVariances, count, products } = runs
    const base = this.baseOf(type, way)
    const { line } = way
    const last = timing.weeks[count - 1] as number
    let change = ends[base] as number
    let variance = courseVariances[base] as number
    if (type !== 1 && this.offsets.length === 0) {
      if (line === 0) return { change, variance }
      // One regressor, the line: 0 at the start, and nothing of it in the course beside it.
      const from = base * count + count - 1
      const pairs = (columns * (columns + 1)) / 2
      const spread = line / ((products[from * pairs] as number) * line + 1)
      return {
        change: last * spread * ((this.rights[TREND] as Float64Array)[from] as number),
        variance: last * last * spread,
      }
    }
    const { places, variances, means, covariance } = this.coefficients(type, way)
    const size = places.length
    // What a regressor's coefficient adds to the course: a line its weeks, all of them what they take off the rest.
    const share = places[0] === TREND ? line / (variances[0] as number) : 0
    const by = places.map((place, k) => (k === 0 ? share * last : 0) - (courses[base * columns + place] as number))
    for (let j = 0; j < size; j += 1) {
      change += (by[j] as number) * (means[j] as number)
      for (let k = 0; k < size; k += 1)
        variance += (by[j] as number) * (by[k] as number) * (covariance[j * size + k] as number)
    }
    // The line is one part of the trend, a drifting hand the other: how they share it is not known for sure.
    if (share < 1 && share > 0) variance += last * last * share * (1 - share) * (variances[0] as number)
    return { change, variance }
  }
}
