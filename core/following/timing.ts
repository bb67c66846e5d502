import { NOISE_TYPES, SLOW } from './noise'
import { WANDERING } from './course-models'

/*
 * The half of the filters that knows nothing of the values: how much each visit counts under every noise and every course.
 * Figures measured at the same visits share it, and so do clients seen at the same weeks.
 */

/** When a figure was measured, how wide the error of each visit is beside the others', and whose hand it was. */
export interface Timing {
  /** Weeks from the start: 0 first. */
  weeks: readonly number[]
  /** Standard deviation of each visit in units of the figure's visit sd. */
  sizes: readonly number[]
  /** A column for each other hand than the start's: 1 where theirs. */
  seen: readonly (readonly number[])[]
}

/** Types that are filtered: slow noise is white noise with regressors. */
export const FILTERED = NOISE_TYPES.filter(({ slow }) => !slow)

/** Regressors every run carries: the weeks, a wave's cosine and sine (under white noise), then other hands. */
export const TREND = 0
export const COSINE = 1
export const SINE = 2
export const HANDS = 3

/** Level, course, slope of the course, lasting noise. */
export const STATES = 4

/** One noise with one way of changing, filtered through the visits of a timing: views of what `Runs` holds. */
export interface Run {
  /** Gains of the four states at each visit. */
  gains: Float64Array
  /** One over the variance of each innovation. */
  weights: Float64Array
  /** Half the log determinant of the contrasts after each visit. */
  halfLogs: Float64Array
  /** What is kept of the lasting noise since the visit before, and its size. */
  kept: Float64Array
  lasting: Float64Array
  /** Innovations of each regressor; null where a noise does not use it. */
  columns: (Float64Array | null)[]
  /** Sums of the regressors' products, a triangle after each visit. */
  products: Float64Array
  /** Variance of the course at the last visit, and what each regressor's course is there. */
  courseVariance: number
  courses: Float64Array
}

/** Every run over a timing, one after another in long columns: filtered types, in each no course and the wandering ones. */
export interface Runs {
  timing: Timing
  count: number
  /** Weeks between visits. */
  steps: Float64Array
  columns: number
  regressors: readonly (readonly number[])[]
  perType: number
  gains: Float64Array
  weights: Float64Array
  halfLogs: Float64Array
  /** By filtered type. */
  kept: Float64Array
  lasting: Float64Array
  /** Innovations by regressor; a wave's under white noise only. */
  innovations: Float64Array[]
  products: Float64Array
  courseVariances: Float64Array
  courses: Float64Array
}

/** Runs of each type: without a course, and by each wandering one. */
const PER_TYPE = WANDERING.length + 1
const BASES = FILTERED.length * PER_TYPE

/** True where a regressor is used under a filtered type. */
export const isUsed = (column: number, type: number) => type === 0 || (column !== COSINE && column !== SINE)

/** One of the runs. */
export function runAt(all: Runs, base: number): Run {
  const { count, columns } = all
  const type = Math.floor(base / PER_TYPE)
  const of = (from: Float64Array, place: number, size = count) => from.subarray(place * size, (place + 1) * size)
  const pairs = (columns * (columns + 1)) / 2
  return {
    gains: of(all.gains, base, STATES * count),
    weights: of(all.weights, base),
    halfLogs: of(all.halfLogs, base),
    kept: of(all.kept, type),
    lasting: of(all.lasting, type),
    columns: all.innovations.map((column, k) => (isUsed(k, type) ? of(column, base) : null)),
    products: of(all.products, base, count * pairs),
    courseVariance: all.courseVariances[base] as number,
    courses: of(all.courses, base, columns),
  }
}

/** Place of a pair of regressors in the triangle of their products. */
export function pairOf(j: number, k: number): number {
  return j >= k ? (j * (j + 1)) / 2 + k : (k * (k + 1)) / 2 + j
}

function regressors({ weeks, seen }: Timing): number[][] {
  const turn = (2 * Math.PI) / SLOW.seasonWeeks
  return [
    [...weeks],
    weeks.map((week) => Math.cos(turn * week)),
    weeks.map((week) => Math.sin(turn * week)),
    ...seen.map((one) => [...one]),
  ]
}

/** Filters one noise with one course through the visits; the level is flat, the course 0 at the start. O(n). */
function runThrough(all: Runs, base: number): void {
  const { count, steps, timing, gains, weights, halfLogs } = all
  const [type, course] = [Math.floor(base / PER_TYPE), base % PER_TYPE]
  const { rho, white } = FILTERED[type] as (typeof FILTERED)[number]
  const moving = WANDERING[course - 1]
  const spread = moving ? moving.sd * moving.sd : 0
  const isBend = moving?.kind === 'bend'
  const isWalk = moving?.kind === 'walk'
  const share = 1 - white
  const from = base * count
  const ofType = type * count
  const first = timing.sizes[0] as number
  // Covariance of (level, course, slope, lasting) given the first value, with nothing known of the level before it.
  let [ll, lc, ls, la] = [first * first, 0, 0, share > 0 ? -Math.sqrt(share) * first : 0]
  let [cc, cs, ca, ss, sa, aa] = [0, 0, 0, 0, 0, share > 0 ? 1 : 0]
  let log = 0
  for (let i = 1; i < count; i += 1) {
    const dt = steps[i] as number
    const size = timing.sizes[i] as number
    const h = all.lasting[ofType + i] as number
    if (isBend) {
      lc += dt * ls
      cc += dt * (2 * cs + dt * ss) + (spread * dt * dt * dt) / 3
      cs += dt * ss + (spread * dt * dt) / 2
      ca += dt * sa
      ss += spread * dt
    } else if (isWalk) cc += spread * dt
    if (share > 0) {
      const k = all.kept[ofType + i] as number
      la *= k
      ca *= k
      sa *= k
      aa = 1 - k * k * (1 - aa)
    }
    const gl = ll + lc + h * la
    const gc = lc + cc + h * ca
    const gs = ls + cs + h * sa
    const ga = la + ca + h * aa
    const total = gl + gc + h * ga + (rho > 0 ? white : 1) * size * size
    const kl = gl / total
    const kc = gc / total
    const ks = gs / total
    const ka = ga / total
    ll -= kl * gl
    lc -= kl * gc
    ls -= kl * gs
    la -= kl * ga
    cc -= kc * gc
    cs -= kc * gs
    ca -= kc * ga
    ss -= ks * gs
    sa -= ks * ga
    aa -= ka * ga
    const at = STATES * (from + i)
    gains[at] = kl
    gains[at + 1] = kc
    gains[at + 2] = ks
    gains[at + 3] = ka
    weights[from + i] = 1 / total
    log += 0.5 * Math.log(total)
    halfLogs[from + i] = log
  }
  all.courseVariances[base] = cc
}

/**
 * Innovations of a column of data under a run.
 * @param into where they are written, from the run's place on
 * @returns the course at the last visit
 */
export function innovationsOf(all: Runs, base: number, data: ArrayLike<number>, into: Float64Array): number {
  const { count, steps, gains, kept, lasting, perType } = all
  const from = base * count
  const ofType = Math.floor(base / perType) * count
  let level = data[0] as number
  let course = 0
  let slope = 0
  let noise = 0
  for (let i = 1, at = STATES * (from + 1); i < count; i += 1, at += STATES) {
    course += (steps[i] as number) * slope
    noise *= kept[ofType + i] as number
    const off = (data[i] as number) - level - course - (lasting[ofType + i] as number) * noise
    level += (gains[at] as number) * off
    course += (gains[at + 1] as number) * off
    slope += (gains[at + 2] as number) * off
    noise += (gains[at + 3] as number) * off
    into[from + i] = off
  }
  return course
}

function multiply({ count, columns, innovations, products, weights }: Runs, base: number): void {
  const pairs = (columns * (columns + 1)) / 2
  const type = Math.floor(base / PER_TYPE)
  const from = base * count
  for (let j = 0; j < columns; j += 1)
    for (let k = 0; k <= j; k += 1) {
      if (!isUsed(j, type) || !isUsed(k, type)) continue
      const [one, two] = [innovations[j], innovations[k]] as [Float64Array, Float64Array]
      const place = pairOf(j, k)
      let sum = 0
      for (let i = from + 1; i < from + count; i += 1) {
        sum += (one[i] as number) * (two[i] as number) * (weights[i] as number)
        products[i * pairs + place] = sum
      }
    }
}

function everyRun(timing: Timing): Runs {
  const count = timing.weeks.length
  const columns = regressors(timing)
  const size = BASES * count
  const steps = Float64Array.from(timing.weeks, (week, i) => (i === 0 ? 0 : week - (timing.weeks[i - 1] as number)))
  const all: Runs = {
    timing,
    count,
    steps,
    columns: columns.length,
    regressors: columns,
    perType: PER_TYPE,
    gains: new Float64Array(STATES * size),
    weights: new Float64Array(size),
    halfLogs: new Float64Array(size),
    kept: new Float64Array(FILTERED.length * count),
    lasting: new Float64Array(FILTERED.length * count),
    innovations: columns.map((_, k) => new Float64Array(k === COSINE || k === SINE ? PER_TYPE * count : size)),
    products: new Float64Array((size * columns.length * (columns.length + 1)) / 2),
    courseVariances: new Float64Array(BASES),
    courses: new Float64Array(BASES * columns.length),
  }
  FILTERED.forEach(({ rho, white }, type) => {
    const root = rho > 0 ? Math.sqrt(1 - white) : 0
    for (let i = 0; i < count; i += 1) {
      all.lasting[type * count + i] = root * (timing.sizes[i] as number)
      if (rho > 0 && i > 0) all.kept[type * count + i] = rho ** (steps[i] as number)
    }
  })
  for (let base = 0; base < BASES; base += 1) {
    runThrough(all, base)
    columns.forEach((column, k) => {
      if (!isUsed(k, Math.floor(base / PER_TYPE))) return
      all.courses[base * columns.length + k] = innovationsOf(all, base, column, all.innovations[k] as Float64Array)
    })
    multiply(all, base)
  }
  return all
}

/** Timings asked for of late, the newest last. */
const recent = new Map<string, Runs>()
/** Visits whose runs are kept: a client with 200 check-ins takes some 3 MB. */
const MOST_VISITS = 3000
let visitsKept = 0

/** Every run over a timing; the same timing is answered from before. */
export function runsOver(timing: Timing): Runs {
  const key = `${timing.weeks.join()};${timing.sizes.join()};${timing.seen.join(';')}`
  const known = recent.get(key)
  if (known) {
    recent.delete(key)
    recent.set(key, known)
    return known
  }
  const made = everyRun(timing)
  recent.set(key, made)
  visitsKept += made.count
  for (const [old, { count: visits }] of recent) {
    if (visitsKept <= MOST_VISITS || old === key) break
    recent.delete(old)
    visitsKept -= visits
  }
  return made
}
