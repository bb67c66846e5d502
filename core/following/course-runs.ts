import {
  AT_ONCE,
  COURSES,
  runCourse,
  type CourseModel,
  type FilterRun,
  type FilterSeries,
  type NoiseTerms,
} from './course-filter'

type Line = Extract<CourseModel, { kind: 'line' }>
type Walk = Extract<CourseModel, { kind: 'walk' }>

const LINES = COURSES.filter((course): course is Line => course.kind === 'line')
const STILL: CourseModel = { kind: 'none' }

/** A history under one noise: with no change, and by each of `COURSES` in their order. */
export interface CourseRuns {
  still: FilterRun
  moved: FilterRun[]
}

/**
 * Every course under one noise through a series, as `runCourse` for each. O(n).
 * @param running what they leave is wanted after every value; else only the last is filled in
 */
export function runCourses(series: FilterSeries, noise: NoiseTerms, running = true): CourseRuns {
  // Offsets of other hands stand in the same equations as slopes and steps: with them each course is run by itself.
  if (series.offsets.length > 0) {
    const alone = (course: CourseModel) => runCourse(series, noise, course, running)
    return { still: alone(STILL), moved: COURSES.map(alone) }
  }
  const { still, lines } = runLines(series, noise, running)
  const one = (course: CourseModel) =>
    course.kind === 'walk' ? runWalk(series, noise, course, running) : (lines.get(course) ?? still)
  return { still, moved: COURSES.map(one) }
}

/**
 * No change and every line in one run: a line is a column of the weeks whose coefficient, the slope, is integrated out
 * over its prior (generalised least squares; Harvey 1989, section 3.4, recalled from memory), so that the slopes held
 * possible differ only in what is taken off at the end.
 */
function runLines(series: FilterSeries, { white, kept: keeping, sizes }: NoiseTerms, running: boolean) {
  const { weeks, values, variances, unit } = series
  const count = weeks.length
  const priors = LINES.map(({ sd }) => sd * sd * unit)
  const still = emptyRun(running ? count : 0)
  const lines = priors.map(() => emptyRun(running ? count : 0))
  const lastingShare = 1 - white
  const logUnit = Math.log(unit)
  // Covariance of (level, lasting part) given the first value, with nothing known of the level before it.
  let [ll, lz, zz] = [variances[0] ?? 1, lastingShare > 0 ? -(sizes[0] ?? 0) : 0, lastingShare > 0 ? 1 : 0]
  let [level, lasting] = [values[0] ?? 0, 0]
  let [columnLevel, columnLasting] = [weeks[0] ?? 0, 0]
  let [sum, cross, square] = [0, 0, 0]
  let [log, product] = [0, 1]
  for (let i = 1; i < count; i += 1) {
    const kept = keeping[i] as number
    const hz = sizes[i] as number
    lz *= kept
    zz = lastingShare > 0 ? 1 - kept * kept * (1 - zz) : 0
    const gl = ll + hz * lz
    const gz = lz + hz * zz
    const total = gl + hz * gz + white * (variances[i] as number)
    const kl = gl / total
    const kz = gz / total
    lasting *= kept
    columnLasting *= kept
    const surprise = (values[i] as number) - level - hz * lasting
    const off = (weeks[i] as number) - columnLevel - hz * columnLasting
    level += kl * surprise
    lasting += kz * surprise
    columnLevel += kl * off
    columnLasting += kz * off
    ll -= kl * gl
    lz -= kl * gz
    zz -= kz * gz
    sum += (surprise * surprise) / total
    cross += (off * surprise) / total
    square += (off * off) / total
    product *= total / unit
    const isLast = i === count - 1
    if (running || isLast || i % AT_ONCE === 0) {
      log += Math.log(product)
      product = 1
    }
    if (!running && !isLast) continue
    note(still, i, sum, -0.5 * (log + i * logUnit), running)
    for (let k = 0; k < priors.length; k += 1) {
      const prior = priors[k] as number
      const grown = 1 + prior * square
      const left = Math.max(0, sum - (cross * cross * prior) / grown)
      note(lines[k] as FilterRun, i, left, -0.5 * (log + i * logUnit + Math.log(grown)), running)
    }
  }
  const last = weeks[count - 1] ?? 0
  lines.forEach((line, k) => {
    const variance = 1 / (square + 1 / (priors[k] as number))
    line.change = last * variance * cross
    line.changeVariance = last * last * variance
  })
  return { still, lines: new Map(lines.map((line, k) => [LINES[k] as CourseModel, line])) }
}

/**
 * One random walk: the level and where the walk stands above it are one state, the place now, and the place at the start is
 * kept beside it, for the change between the two (fixed-point smoothing; Anderson & Moore 1979, recalled from memory).
 */
function runWalk(series: FilterSeries, noise: NoiseTerms, { sd }: Walk, running: boolean): FilterRun {
  const { weeks, values, variances, unit } = series
  const { white, kept: keeping, sizes } = noise
  const count = weeks.length
  const run = emptyRun(running ? count : 0)
  const spread = sd * sd * unit
  const lastingShare = 1 - white
  const logUnit = Math.log(unit)
  const first = variances[0] ?? 1
  const root = lastingShare > 0 ? (sizes[0] ?? 0) : 0
  // Covariance of (place, lasting part) given the first value, and of both with the place at the start.
  let [pp, pz, zz] = [first, -root, lastingShare > 0 ? 1 : 0]
  let [sp, sz, ss] = [first, -root, first]
  let [place, lasting, start] = [values[0] ?? 0, 0, values[0] ?? 0]
  let [sum, log, product] = [0, 0, 1]
  for (let i = 1; i < count; i += 1) {
    const kept = keeping[i] as number
    const hz = sizes[i] as number
    pp += spread * ((weeks[i] as number) - (weeks[i - 1] as number))
    pz *= kept
    sz *= kept
    zz = lastingShare > 0 ? 1 - kept * kept * (1 - zz) : 0
    lasting *= kept
    const gp = pp + hz * pz
    const gz = pz + hz * zz
    const gs = sp + hz * sz
    const total = gp + hz * gz + white * (variances[i] as number)
    const kp = gp / total
    const kz = gz / total
    const ks = gs / total
    const surprise = (values[i] as number) - place - hz * lasting
    place += kp * surprise
    lasting += kz * surprise
    start += ks * surprise
    pp -= kp * gp
    pz -= kp * gz
    zz -= kz * gz
    sp -= ks * gp
    sz -= ks * gz
    ss -= ks * gs
    sum += (surprise * surprise) / total
    product *= total / unit
    const isLast = i === count - 1
    if (running || isLast || i % AT_ONCE === 0) {
      log += Math.log(product)
      product = 1
    }
    if (running || isLast) note(run, i, sum, -0.5 * (log + i * logUnit), running)
  }
  run.change = place - start
  run.changeVariance = pp - 2 * sp + ss
  return run
}

function emptyRun(count: number): FilterRun {
  const [squares, logs] = [new Float64Array(count), new Float64Array(count)]
  return { lastSquares: 0, lastLog: 0, squares, logs, change: 0, changeVariance: 0 }
}

function note(run: FilterRun, i: number, squares: number, log: number, running: boolean): void {
  run.lastSquares = squares
  run.lastLog = log
  if (!running) return
  run.squares[i] = squares
  run.logs[i] = log
}
