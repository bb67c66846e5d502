import { takeOffsets, type CourseModel, type FilterSeries, type NoiseTerms } from './course-filter'

/** What one course under one noise makes of every value, all values known. Unit of the figure; variances on scale 1. */
export interface SmoothRun {
  means: Float64Array
  variances: Float64Array
}

/** Covariance of (level, course, lasting part), its upper half by rows. */
type Covariance = [ll: number, lc: number, lz: number, cc: number, cz: number, zz: number]
type Vector = [number, number, number]

const times = ([ll, lc, lz, cc, cz, zz]: Covariance, [a, b, c]: Vector): Vector => [
  ll * a + lc * b + lz * c,
  lc * a + cc * b + cz * c,
  lz * a + cz * b + zz * c,
]
const dot = (x: Vector, y: Vector) => x[0] * y[0] + x[1] * y[1] + x[2] * y[2]
const plus = (x: Vector, y: Vector, by: number): Vector => [x[0] + by * y[0], x[1] + by * y[1], x[2] + by * y[2]]

/** What is kept of a value on the way forward, for the way back. */
interface Step {
  before: Covariance
  seen: Vector
  total: number
  /** What is kept of the lasting part since the value before. */
  kept: number
}

/**
 * Smooths a figure under one course and one noise: what lay under the readings at every visit, without the noise, as the
 * start's hand would have measured it. Forward as in `runCourse`, back by the adjoint of the filter, which needs no
 * inverse (de Jong 1989; Durbin and Koopman, Time Series Analysis by State Space Methods, 4.4). O(n).
 */
export function smoothCourse(series: FilterSeries, noise: NoiseTerms, course: CourseModel): SmoothRun {
  const { weeks, values, variances, unit, offsets } = series
  const count = weeks.length
  const { white, kept: keeping, sizes } = noise
  const lasting = 1 - white > 0
  const [isLine, isWalk] = [course.kind === 'line', course.kind === 'walk']
  const spread = course.kind === 'none' ? 0 : course.sd * course.sd * unit
  const start: Covariance = [
    variances[0] ?? 1,
    0,
    lasting ? -(sizes[0] ?? 0) : 0,
    isLine ? spread : 0,
    0,
    lasting ? 1 : 0,
  ]
  let p: Covariance = [...start]
  const steps: Step[] = []
  for (let i = 1; i < count; i += 1) {
    const week = weeks[i] as number
    const kept = keeping[i] as number
    const [ll, lc, lz, cc, cz, zz] = p
    const before: Covariance = [
      ll,
      lc,
      lz * kept,
      cc + (isWalk ? spread * (week - (weeks[i - 1] as number)) : 0),
      cz * kept,
      lasting ? 1 - kept * kept * (1 - zz) : 0,
    ]
    const seen: Vector = [1, isLine ? week : isWalk ? 1 : 0, sizes[i] as number]
    const g = times(before, seen)
    const total = dot(seen, g) + white * (variances[i] as number)
    steps.push({ before, seen, total, kept })
    p = [
      before[0] - (g[0] * g[0]) / total,
      before[1] - (g[0] * g[1]) / total,
      before[2] - (g[0] * g[2]) / total,
      before[3] - (g[1] * g[1]) / total,
      before[4] - (g[1] * g[2]) / total,
      before[5] - (g[2] * g[2]) / total,
    ]
  }
  /** What lies under the readings: the level and the course, without the lasting noise. */
  const shown = (i: number): Vector => [1, isLine ? (weeks[i] as number) : isWalk && i > 0 ? 1 : 0, 0]
  const spreads = backSpreads(start, steps, shown)
  const column = (data: ArrayLike<number>) => smoothColumn(data, start, steps, shown)
  const main = column(values)
  if (offsets.length === 0) return { means: main.smooth, variances: spreads }

  const others = offsets.map(({ seen }) => column(seen))
  const s = Float64Array.from(
    others.flatMap((one) => others.map((two) => sum(steps, (step, i) => (at(one, i) * at(two, i)) / step.total))),
  )
  const right = Float64Array.from(others.map((one) => sum(steps, (step, i) => (at(one, i) * at(main, i)) / step.total)))
  const { means, covariance } = takeOffsets(s, right, offsets)
  const size = others.length
  return {
    means: main.smooth.map((value, i) =>
      others.reduce((left, { smooth }, k) => left - (means[k] as number) * (smooth[i] as number), value),
    ),
    variances: spreads.map((value, i) =>
      others.reduce(
        (total, one, j) =>
          others.reduce(
            (inner, two, k) =>
              inner + (covariance[j * size + k] as number) * (one.smooth[i] as number) * (two.smooth[i] as number),
            total,
          ),
        value,
      ),
    ),
  }
}

interface Smoothed {
  surprises: Float64Array
  smooth: Float64Array
}
const at = ({ surprises }: Smoothed, i: number) => surprises[i] as number
const sum = (steps: readonly Step[], of: (step: Step, i: number) => number) =>
  steps.reduce((total, step, i) => total + of(step, i), 0)

/** The row (I - K h)' of a vector carried from after a value to before it. */
function carried({ before, seen, total }: Step, r: Vector): Vector {
  return plus(r, seen, -dot(times(before, seen), r) / total)
}

/** A column of data through the filter and back: what it makes of every value. */
function smoothColumn(
  data: ArrayLike<number>,
  start: Covariance,
  steps: readonly Step[],
  shown: (i: number) => Vector,
): Smoothed {
  const surprises = new Float64Array(steps.length)
  const smooth = new Float64Array(steps.length + 1)
  const first: Vector = [data[0] ?? 0, 0, 0]
  const states: Vector[] = []
  let state = first
  steps.forEach(({ before, seen, total, kept }, k) => {
    state = [state[0], state[1], state[2] * kept]
    states.push(state)
    const surprise = (data[k + 1] as number) - dot(seen, state)
    surprises[k] = surprise
    state = plus(state, times(before, seen), surprise / total)
  })
  let r: Vector = [0, 0, 0]
  for (let k = steps.length - 1; k >= 0; k -= 1) {
    const step = steps[k] as Step
    r = plus(carried(step, r), step.seen, (surprises[k] as number) / step.total)
    smooth[k + 1] = dot(shown(k + 1), plus(states[k] as Vector, times(step.before, r), 1))
    r = [r[0], r[1], r[2] * step.kept]
  }
  smooth[0] = dot(shown(0), plus(first, times(start, r), 1))
  return { surprises, smooth }
}

/** Variances of what is shown at every value, all values known. */
function backSpreads(start: Covariance, steps: readonly Step[], shown: (i: number) => Vector): Float64Array {
  const spreads = new Float64Array(steps.length + 1)
  let n: Covariance = [0, 0, 0, 0, 0, 0]
  const left = (p: Covariance, h: Vector) => {
    const ph = times(p, h)
    return Math.max(0, dot(h, ph) - dot(ph, times(n, ph)))
  }
  for (let k = steps.length - 1; k >= 0; k -= 1) {
    const step = steps[k] as Step
    const { seen, total, kept } = step
    // (I - K h)' N (I - K h) + h h' / total
    const gain = times(step.before, seen).map((one) => one / total) as Vector
    const nk = times(n, gain)
    const knk = dot(gain, nk)
    const of = (i: 0 | 1 | 2, j: 0 | 1 | 2, held: number) =>
      held - nk[i] * seen[j] - seen[i] * nk[j] + (knk + 1 / total) * seen[i] * seen[j]
    n = [of(0, 0, n[0]), of(0, 1, n[1]), of(0, 2, n[2]), of(1, 1, n[3]), of(1, 2, n[4]), of(2, 2, n[5])]
    spreads[k + 1] = left(step.before, shown(k + 1))
    n = [n[0], n[1], n[2] * kept, n[3], n[4] * kept, n[5] * kept * kept]
  }
  spreads[0] = left(start, shown(0))
  return spreads
}
