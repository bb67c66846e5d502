import { takeOut, coefficientsOf } from './regressors'
import { NOISE_TYPES, SLOW } from './noise'
import { COSINE, HANDS, innovationsOf, pairOf, SINE, TREND, type Run, type Runs } from './timing'

/** One way a figure may have gone: a run, and the variance of a straight line's slope beside it (visit variances). */
export interface Way {
  /** Place among the runs of a timing: 0 without a wandering course. */
  run: number
  /** Variance of the slope a week; 0: no line. */
  line: number
}

/** A figure's values under every run of its timing. */
export class FigureRuns {
  /** By filtered type and run, then by visit: squares, and products with each regressor, all weighted and summed up. */
  private readonly sums: Float64Array
  private readonly stride: number
  /** Course of the values at the last visit, by filtered type and run. */
  private readonly ends: Float64Array
  private readonly perType: number

  /**
   * @param values in visit sds, from the start on
   * @param offsets variance of each other hand's offset, visit variances
   */
  constructor(
    readonly runs: Runs,
    readonly values: Float64Array,
    private readonly offsets: readonly number[] = [],
  ) {
    const { count, columns } = runs
    this.stride = columns + 1
    this.perType = runs.runs[0]?.length ?? 0
    const bases = runs.runs.length * this.perType
    this.sums = new Float64Array(bases * this.stride * count)
    this.ends = new Float64Array(bases)
    const off = new Float64Array(count)
    runs.runs.forEach((ofType, type) =>
      ofType.forEach((run, place) => {
        const base = type * this.perType + place
        this.ends[base] = innovationsOf(run, runs.steps, values, off)
        this.sumUp(run, off, base)
      }),
    )
  }

  private sumUp({ weights, columns }: Run, off: Float64Array, base: number): void {
    const { count } = this.runs
    const { sums, stride } = this
    const from = base * stride * count
    const trend = columns[TREND] as Float64Array
    let [squares, trended] = [0, 0]
    for (let i = 1; i < count; i += 1) {
      const e = off[i] as number
      const weighted = e * (weights[i] as number)
      squares += e * weighted
      trended += (trend[i] as number) * weighted
      sums[from + i] = squares
      sums[from + count + i] = trended
    }
    for (let k = COSINE; k < columns.length; k += 1) {
      const column = columns[k]
      if (!column) continue
      let sum = 0
      const at = from + (k + 1) * count
      for (let i = 1; i < count; i += 1) {
        sum += (column[i] as number) * (off[i] as number) * (weights[i] as number)
        sums[at + i] = sum
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

  /**
   * Squares of the contrasts and half their log determinant after a visit, under every type and way.
   * @param at the visit
   * @param into squares and halves, by type, then by way
   */
  fill(at: number, ways: readonly Way[], into: { squares: Float64Array; halves: Float64Array }): void {
    const { runs, sums, stride, perType, offsets } = this
    const { count, columns } = runs
    const pairs = (columns * (columns + 1)) / 2
    for (let type = 0; type < NOISE_TYPES.length; type += 1) {
      const filtered = type === 0 ? 0 : type - 1
      const plain = type !== 1 && offsets.length === 0
      for (let w = 0; w < ways.length; w += 1) {
        const { run, line } = ways[w] as Way
        const { halfLogs, products } = (runs.runs[filtered] as Run[])[run] as Run
        const from = (filtered * perType + run) * stride * count + at
        const place = type * ways.length + w
        let squares = sums[from] as number
        let half = halfLogs[at] as number
        if (plain) {
          if (line > 0) {
            const product = (products[at * pairs] as number) * line + 1
            const right = sums[from + count] as number
            squares -= (right * right * line) / product
            half += 0.5 * Math.log(product)
          }
        } else {
          const { places, variances } = this.atWork(type, line)
          const { dot, halfLog } = takeOut(
            places.length,
            (j, k) => products[at * pairs + pairOf(places[j] as number, places[k] as number)] as number,
            (j) => sums[from + ((places[j] as number) + 1) * count] as number,
            (j) => variances[j] as number,
          )
          squares -= dot
          half += halfLog
        }
        into.squares[place] = Math.max(0, squares)
        into.halves[place] = half
      }
    }
  }

  /** The run of a type and a way. */
  runAt(type: number, { run }: Way): Run {
    return (this.runs.runs[type === 0 ? 0 : type - 1] as Run[])[run] as Run
  }

  /** Products of the values with each regressor after a visit. */
  rightAt(type: number, { run }: Way, at: number): (place: number) => number {
    const { count } = this.runs
    const base = (type === 0 ? 0 : type - 1) * this.perType + run
    return (place) => this.sums[(base * this.stride + place + 1) * count + at] as number
  }

  /** Change from the start to the last visit under a type and a way, and its variance on scale 1; visit sds. */
  change(type: number, { run, line }: Way): { change: number; variance: number } {
    const { runs, sums, stride, perType, ends } = this
    const { count, columns, timing } = runs
    const pairs = (columns * (columns + 1)) / 2
    const filtered = type === 0 ? 0 : type - 1
    const own = (runs.runs[filtered] as Run[])[run] as Run
    const base = filtered * perType + run
    const from = base * stride * count + count - 1
    const { places, variances } = this.atWork(type, line)
    const size = places.length
    if (size === 0) return { change: ends[base] as number, variance: own.courseVariance }
    const { means, covariance } = coefficientsOf(
      size,
      (j, k) => own.products[(count - 1) * pairs + pairOf(places[j] as number, places[k] as number)] as number,
      (j) => sums[from + ((places[j] as number) + 1) * count] as number,
      (j) => variances[j] as number,
    )
    // What a regressor's coefficient adds to the course: a line its weeks, all of them what they take off the rest.
    const last = timing.weeks.at(-1) as number
    const share = places[0] === TREND ? line / (variances[0] as number) : 0
    const by = places.map((place, k) => (k === 0 ? share * last : 0) - (own.courses[place] as number))
    let change = ends[base] as number
    let variance = own.courseVariance
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
