import type { FigureRuns, Way } from './figure-runs'
import { runAt, STATES, TREND, type Run } from './timing'
import { WANDERING } from './course-models'

/** What one course under one noise makes of every value, all values known. Visit sds; variances on scale 1. */
export interface SmoothRun {
  means: Float64Array
  variances: Float64Array
}

/** Entries of a covariance of (level, course, slope, lasting noise), its upper half by rows. */
const ENTRIES = 10
const placeOf = (j: number, k: number): number => (j <= k ? j * STATES - (j * (j - 1)) / 2 + k - j : placeOf(k, j))
const PLACES = Array.from({ length: STATES }, (_, j) => Array.from({ length: STATES }, (__, k) => placeOf(j, k)))

/** A covariance by a vector, into another vector. */
function times(all: Float64Array, from: number, vector: Float64Array, into: Float64Array): void {
  for (let j = 0; j < STATES; j += 1) {
    let sum = 0
    const row = PLACES[j] as number[]
    for (let k = 0; k < STATES; k += 1) sum += (all[from + (row[k] as number)] as number) * (vector[k] as number)
    into[j] = sum
  }
}

/** What lies under the readings: the level and the course, without the lasting noise. */
const SHOWN = Float64Array.of(1, 1, 0, 0)

/** One run with its covariances before every visit. */
class Smoother {
  private readonly before: Float64Array
  private readonly count: number

  constructor(
    private readonly run: Run,
    private readonly steps: Float64Array,
    { course, first }: { course: number; first: number },
  ) {
    this.count = steps.length
    this.before = new Float64Array(ENTRIES * this.count)
    const moving = WANDERING[course - 1]
    this.spread = moving ? moving.sd * moving.sd : 0
    this.isBend = moving?.kind === 'bend'
    this.forward(first)
  }
  private readonly spread: number
  private readonly isBend: boolean

  private forward(first: number): void {
    const { before, run, steps, count, spread, isBend } = this
    const root = run.lasting[0] as number
    // (level, course, slope, lasting) after the first value.
    let p = new Float64Array(ENTRIES)
    const at = (j: number, k: number) => placeOf(j, k)
    p[at(0, 0)] = first * first
    if (root > 0) {
      p[at(0, 3)] = -root
      p[at(3, 3)] = 1
    }
    before.set(p, 0)
    for (let i = 1; i < count; i += 1) {
      const dt = steps[i] as number
      const k = run.kept[i] as number
      const moved = p.slice()
      const get = (j: number, l: number) => p[at(j, l)] as number
      if (isBend) {
        moved[at(0, 1)] = get(0, 1) + dt * get(0, 2)
        moved[at(1, 1)] = get(1, 1) + dt * (2 * get(1, 2) + dt * get(2, 2)) + (spread * dt ** 3) / 3
        moved[at(1, 2)] = get(1, 2) + dt * get(2, 2) + (spread * dt * dt) / 2
        moved[at(1, 3)] = get(1, 3) + dt * get(2, 3)
        moved[at(2, 2)] = get(2, 2) + spread * dt
      } else moved[at(1, 1)] = get(1, 1) + spread * dt
      if (root > 0) {
        for (const j of [0, 1, 2]) moved[at(j, 3)] = (moved[at(j, 3)] as number) * k
        moved[at(3, 3)] = 1 - k * k * (1 - get(3, 3))
      }
      before.set(moved, ENTRIES * i)
      const total = 1 / (run.weights[i] as number)
      p = moved
      for (let j = 0; j < STATES; j += 1)
        for (let l = j; l < STATES; l += 1) {
          const taken = (run.gains[STATES * i + j] as number) * (run.gains[STATES * i + l] as number) * total
          p[at(j, l)] = (p[at(j, l)] as number) - taken
        }
    }
  }

  /** r becomes (I - K h)' r. */
  private carried(i: number, r: Float64Array): void {
    const at = STATES * i
    const gain = this.run.gains
    let dot = 0
    for (let j = 0; j < STATES; j += 1) dot += (gain[at + j] as number) * (r[j] as number)
    r[0] = (r[0] as number) - dot
    r[1] = (r[1] as number) - dot
    r[3] = (r[3] as number) - dot * (this.run.lasting[i] as number)
  }

  /** r becomes what it is before the step to a visit. */
  private back(i: number, r: Float64Array): void {
    if (this.isBend) r[2] = (r[2] as number) + (this.steps[i] as number) * (r[1] as number)
    r[3] = (r[3] as number) * (this.run.kept[i] as number)
  }

  /** A column of data through the filter and back (de Jong 1989; Durbin and Koopman, State Space Methods, 4.4). O(n). */
  smooth(data: ArrayLike<number>): Float64Array {
    const { run, steps, count, before } = this
    const { gains, kept, lasting, weights } = run
    const offs = new Float64Array(count)
    const states = new Float64Array(STATES * count)
    let level = data[0] as number
    let [course, slope, noise] = [0, 0, 0]
    states[0] = level
    for (let i = 1, at = STATES; i < count; i += 1, at += STATES) {
      course += (steps[i] as number) * slope
      noise *= kept[i] as number
      states.set([level, course, slope, noise], at)
      const off = (data[i] as number) - level - course - (lasting[i] as number) * noise
      offs[i] = off
      level += (gains[at] as number) * off
      course += (gains[at + 1] as number) * off
      slope += (gains[at + 2] as number) * off
      noise += (gains[at + 3] as number) * off
    }
    const smooth = new Float64Array(count)
    const r = new Float64Array(STATES)
    const moved = new Float64Array(STATES)
    for (let i = count - 1; i >= 0; i -= 1) {
      if (i > 0) {
        this.carried(i, r)
        const pulled = (offs[i] as number) * (weights[i] as number)
        r[0] = (r[0] as number) + pulled
        r[1] = (r[1] as number) + pulled
        r[3] = (r[3] as number) + pulled * (lasting[i] as number)
      }
      times(before, ENTRIES * i, r, moved)
      smooth[i] =
        (states[STATES * i] as number) +
        (states[STATES * i + 1] as number) +
        (moved[0] as number) +
        (moved[1] as number)
      if (i > 0) this.back(i, r)
    }
    return smooth
  }

  /** Variances of what is shown at every visit, all values known. */
  spreads(): Float64Array {
    const { run, count, before } = this
    const found = new Float64Array(count)
    // Rows of the weight matrix of the adjoint, each carried as a vector.
    const n = Array.from({ length: STATES }, () => new Float64Array(STATES))
    const [shown, through] = [new Float64Array(STATES), new Float64Array(STATES)]
    for (let i = count - 1; i >= 0; i -= 1) {
      if (i > 0) {
        // (I - K h)' N (I - K h) + h h' / total: rows, then columns.
        for (const row of n) this.carried(i, row)
        for (let k = 0; k < STATES; k += 1) {
          const column = Float64Array.from(n, (row) => row[k] as number)
          this.carried(i, column)
          n.forEach((row, j) => (row[k] = column[j] as number))
        }
        const h = [1, 1, 0, run.lasting[i] as number]
        n.forEach((row, j) =>
          h.forEach((one, k) => (row[k] = (row[k] as number) + (h[j] as number) * one * (run.weights[i] as number))),
        )
      }
      times(before, ENTRIES * i, SHOWN, shown)
      let taken = 0
      n.forEach((row, j) => {
        through[j] = row.reduce((sum, one, k) => sum + one * (shown[k] as number), 0)
        taken += (through[j] as number) * (shown[j] as number)
      })
      found[i] = Math.max(0, (shown[0] as number) + (shown[1] as number) - taken)
      if (i > 0) {
        for (const row of n) this.back(i, row)
        for (let k = 0; k < STATES; k += 1) {
          const column = Float64Array.from(n, (row) => row[k] as number)
          this.back(i, column)
          n.forEach((row, j) => (row[k] = column[j] as number))
        }
      }
    }
    return found
  }
}

/**
 * Smooths a figure under one type of noise and one course: what lay under the readings at every visit, without the noise,
 * as the start's hand would have measured it. O(n).
 */
export function smoothCourse(figure: FigureRuns, type: number, way: Way): SmoothRun {
  const { runs, values } = figure
  const { count, timing, steps } = runs
  const run = runAt(runs, figure.baseOf(type, way))
  const smoother = new Smoother(run, steps, { course: way.run, first: timing.sizes[0] as number })
  const means = smoother.smooth(values)
  const variances = smoother.spreads()
  const { places, variances: priors, means: found, covariance } = figure.coefficients(type, way)
  const size = places.length
  if (size === 0) return { means, variances }
  const columns = places.map((place) => smoother.smooth(runs.regressors[place] as readonly number[]))
  const share = places[0] === TREND ? way.line / (priors[0] as number) : 0
  for (let i = 0; i < count; i += 1) {
    const week = timing.weeks[i] as number
    const by = columns.map((column, k) => (k === 0 ? share * week : 0) - (column[i] as number))
    let [mean, variance] = [means[i] as number, variances[i] as number]
    for (let j = 0; j < size; j += 1) {
      mean += (by[j] as number) * (found[j] as number)
      for (let k = 0; k < size; k += 1)
        variance += (by[j] as number) * (by[k] as number) * (covariance[j * size + k] as number)
    }
    if (share < 1 && share > 0) variance += week * week * share * (1 - share) * (priors[0] as number)
    means[i] = mean
    variances[i] = variance
  }
  return { means, variances }
}
