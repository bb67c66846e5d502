import type { NoiseModel } from './noise'

/** How something may have changed: not at all, along a straight line, or as a random walk. */
export type CourseModel = { kind: 'none' } | { kind: 'line'; sd: number } | { kind: 'walk'; sd: number }

/**
 * The courses held possible where something changed, all alike: lines with slopes a week, and walks by the square root
 * of a week, in units of the figure's visit sd.
 */
export const COURSES: readonly CourseModel[] = [
  ...[0.15, 0.5, 1.5].map((sd) => ({ kind: 'line' as const, sd })),
  ...[0.3, 1, 3].map((sd) => ({ kind: 'walk' as const, sd })),
]

/** A figure from its start on, as the filters take it. */
export interface FilterSeries {
  /** Weeks from the start: 0 first. */
  weeks: Float64Array
  values: Float64Array
  /** Assumed variances, unit squared. */
  variances: Float64Array
  /** Mean of the variances: the figure's visit variance. */
  unit: number
  /** Columns of other assessors and calipers: 1 where theirs, with the variance of their offset. */
  offsets: readonly { seen: Float64Array; variance: number }[]
}

/** What a filter leaves: the squares and log determinant of all contrasts, at the end and after each value, and the change. */
export interface FilterRun {
  lastSquares: number
  lastLog: number
  /** After each value; empty where not asked for. */
  squares: Float64Array
  logs: Float64Array
  /** Change from the start to the last value, and its variance on scale 1. */
  change: number
  changeVariance: number
}

interface Column {
  level: number
  course: number
  lasting: number
}

/** What every course under one noise shares: what is kept of the lasting part since the visit before, and its size. */
export interface NoiseTerms {
  white: number
  kept: Float64Array
  sizes: Float64Array
}

/**
 * The terms of one noise for a series.
 * @param room where they are written: the ones before are gone
 */
export function noiseTerms(
  { weeks, variances }: FilterSeries,
  { rho, white }: NoiseModel,
  room = { kept: new Float64Array(weeks.length), sizes: new Float64Array(weeks.length) },
): NoiseTerms {
  const { kept, sizes } = room
  for (let i = 0; i < weeks.length; i += 1) {
    kept[i] = i === 0 ? 0 : rho ** ((weeks[i] as number) - (weeks[i - 1] as number))
    sizes[i] = Math.sqrt((1 - white) * (variances[i] as number))
  }
  return { white, kept, sizes }
}

const NOTHING = new Float64Array(0)

/** Determinants multiplied up before their logarithm is taken: few enough not to run over. */
export const AT_ONCE = 12

/**
 * Runs one course under one noise through a series; the level is flat, the course 0 at the start. O(n).
 * @param running what it leaves is wanted after every value; else only the last is filled in, in half the time
 */
export function runCourse(series: FilterSeries, noise: NoiseTerms, course: CourseModel, running = true): FilterRun {
  const { weeks, values, variances, unit, offsets } = series
  const { white, kept: keeping, sizes } = noise
  const count = weeks.length
  const squares = running ? new Float64Array(count) : NOTHING
  const logs = running ? new Float64Array(count) : NOTHING
  let [lastSquares, lastLog] = [0, 0]
  const lastingShare = 1 - white
  const isWalk = course.kind === 'walk'
  const isLine = course.kind === 'line'
  const spread = course.kind === 'none' ? 0 : course.sd * course.sd * unit
  const first = variances[0] ?? 1
  const root = sizes[0] ?? 0
  // Covariance of (level, course, lasting part) given the first value, with nothing known of the level before it.
  let [ll, lc, lz, cc, cz, zz] = [first, 0, -root, isLine ? spread : 0, 0, lastingShare > 0 ? 1 : 0]
  if (lastingShare === 0) lz = 0
  const main: Column = { level: values[0] ?? 0, course: 0, lasting: 0 }
  const others: Column[] = offsets.map(({ seen }) => ({ level: seen[0] ?? 0, course: 0, lasting: 0 }))
  const size = others.length
  const s = size > 0 ? new Float64Array(size * size) : NOTHING
  const right = size > 0 ? new Float64Array(size) : NOTHING
  const logUnit = Math.log(unit)
  let [sum, log, product] = [0, 0, 1]
  let { level, course: moved, lasting } = main
  for (let i = 1; i < count; i += 1) {
    const week = weeks[i] as number
    if (isWalk) cc += spread * (week - (weeks[i - 1] as number))
    const kept = keeping[i] as number
    lz *= kept
    cz *= kept
    zz = lastingShare > 0 ? 1 - kept * kept * (1 - zz) : 0
    const hc = isLine ? week : isWalk ? 1 : 0
    const variance = variances[i] as number
    const hz = sizes[i] as number
    const gl = ll + hc * lc + hz * lz
    const gc = lc + hc * cc + hz * cz
    const gz = lz + hc * cz + hz * zz
    const total = gl + hc * gc + hz * gz + white * variance
    const kl = gl / total
    const kc = gc / total
    const kz = gz / total
    lasting *= kept
    const surprise = (values[i] as number) - level - hc * moved - hz * lasting
    level += kl * surprise
    moved += kc * surprise
    lasting += kz * surprise
    ll -= kl * gl
    lc -= kl * gc
    lz -= kl * gz
    cc -= kc * gc
    cz -= kc * gz
    zz -= kz * gz
    sum += (surprise * surprise) / total
    product *= total / unit
    if (running || i === count - 1 || i % AT_ONCE === 0) {
      log += Math.log(product)
      product = 1
    }
    const x = others.map((column, k) => {
      column.lasting *= kept
      const off = (offsets[k]?.seen[i] ?? 0) - column.level - hc * column.course - hz * column.lasting
      column.level += kl * off
      column.course += kc * off
      column.lasting += kz * off
      return off
    })
    for (let j = 0; j < size; j += 1) {
      right[j] = (right[j] as number) + ((x[j] as number) * surprise) / total
      for (let k = 0; k < size; k += 1)
        s[j * size + k] = (s[j * size + k] as number) + ((x[j] as number) * (x[k] as number)) / total
    }
    if (!running && i < count - 1) continue
    const taken = takeOffsets(s, right, offsets)
    lastSquares = Math.max(0, sum - taken.dot)
    lastLog = -0.5 * (log + i * logUnit + taken.logDet)
    if (running) {
      squares[i] = lastSquares
      logs[i] = lastLog
    }
  }
  const at = isLine ? (weeks[count - 1] ?? 0) : course.kind === 'walk' ? 1 : 0
  let change = at * moved
  let changeVariance = at * at * cc
  if (size > 0 && count > 1) {
    const { means, covariance } = takeOffsets(s, right, offsets)
    others.forEach((column, j) => {
      change -= at * column.course * (means[j] as number)
      others.forEach((other, k) => {
        changeVariance += at * at * column.course * other.course * (covariance[j * size + k] as number)
      })
    })
  }
  return { lastSquares, lastLog, squares, logs, change, changeVariance }
}

/** Offsets integrated out over their priors: what they take off the squares, add to the determinant, and are themselves. */
export function takeOffsets(s: Float64Array, right: Float64Array, offsets: FilterSeries['offsets']) {
  const size = offsets.length
  const m = Array.from({ length: size }, (_, j) =>
    Array.from({ length: 2 * size }, (_, k) =>
      k < size ? (s[j * size + k] as number) + (j === k ? 1 / (offsets[j]?.variance ?? 1) : 0) : Number(k - size === j),
    ),
  )
  // Gauss-Jordan; the matrix is positive definite, so no pivoting is needed.
  let logDet = offsets.reduce((total, { variance }) => total + Math.log(variance), 0)
  for (let j = 0; j < size; j += 1) {
    const row = m[j] as number[]
    const pivot = row[j] as number
    logDet += Math.log(pivot)
    for (let k = 0; k < 2 * size; k += 1) row[k] = (row[k] as number) / pivot
    for (let i = 0; i < size; i += 1) {
      if (i === j) continue
      const other = m[i] as number[]
      const factor = other[j] as number
      for (let k = 0; k < 2 * size; k += 1) other[k] = (other[k] as number) - factor * (row[k] as number)
    }
  }
  const covariance = m.flatMap((row) => row.slice(size))
  const means = Array.from({ length: size }, (_, j) =>
    right.reduce((total, value, k) => total + (covariance[j * size + k] as number) * value, 0),
  )
  const dot = right.reduce((total, value, j) => total + value * (means[j] as number), 0)
  return { dot, logDet, means, covariance }
}
