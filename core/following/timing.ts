import { NOISE_TYPES, SLOW } from './noise'
import { WANDERING } from './course-models'

/*
 * The half of the filters that knows nothing of the values: how much each visit counts under every noise and every course.
 * Figures measured at the same visits share it, and so do clients seen at the same weeks.
 */

/** When a figure was measured, how wide each visit is held against the others, and whose hand it was. */
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

/** One noise with one way of changing, filtered through the visits of a timing. */
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
  /** Course and its variance at the last visit, and what each regressor's course is there. */
  courseVariance: number
  courses: Float64Array
}

/** Every run over a timing. */
export interface Runs {
  timing: Timing
  count: number
  /** Weeks between visits. */
  steps: Float64Array
  columns: number
  regressors: readonly (readonly number[])[]
  /** By filtered type, then no course and the wandering ones. */
  runs: Run[][]
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
function runThrough(
  timing: Timing,
  steps: Float64Array,
  columns: readonly (readonly number[])[],
  { type, course }: { type: number; course: number },
): Run {
  const { rho, white } = FILTERED[type] as (typeof FILTERED)[number]
  const moving = WANDERING[course - 1]
  const spread = moving ? moving.sd * moving.sd : 0
  const isBend = moving?.kind === 'bend'
  const isWalk = moving?.kind === 'walk'
  const count = timing.weeks.length
  const share = 1 - white
  const root = Math.sqrt(share)
  const run: Run = {
    gains: new Float64Array(STATES * count),
    weights: new Float64Array(count),
    halfLogs: new Float64Array(count),
    kept: new Float64Array(count),
    lasting: new Float64Array(count),
    columns: columns.map((_, k) => ((k === COSINE || k === SINE) && rho > 0 ? null : new Float64Array(count))),
    products: new Float64Array((count * columns.length * (columns.length + 1)) / 2),
    courseVariance: 0,
    courses: new Float64Array(columns.length),
  }
  const { gains, weights, halfLogs, kept, lasting } = run
  const first = timing.sizes[0] as number
  lasting[0] = root * first
  // Covariance of (level, course, slope, lasting) given the first value, with nothing known of the level before it.
  let [ll, lc, ls, la] = [first * first, 0, 0, share > 0 ? -root * first : 0]
  let [cc, cs, ca, ss, sa, aa] = [0, 0, 0, 0, 0, share > 0 ? 1 : 0]
  let log = 0
  for (let i = 1; i < count; i += 1) {
    const dt = steps[i] as number
    const size = timing.sizes[i] as number
    const h = root * size
    lasting[i] = h
    if (isBend) {
      lc += dt * ls
      cc += dt * (2 * cs + dt * ss) + (spread * dt * dt * dt) / 3
      cs += dt * ss + (spread * dt * dt) / 2
      ca += dt * sa
      ss += spread * dt
    } else if (isWalk) cc += spread * dt
    if (share > 0) {
      const k = rho ** dt
      kept[i] = k
      la *= k
      ca *= k
      sa *= k
      aa = 1 - k * k * (1 - aa)
    }
    const gl = ll + lc + h * la
    const gc = lc + cc + h * ca
    const gs = ls + cs + h * sa
    const ga = la + ca + h * aa
    const total = gl + gc + h * ga + white * size * size
    const [kl, kc, ks, ka] = [gl / total, gc / total, gs / total, ga / total]
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
    const at = STATES * i
    gains[at] = kl
    gains[at + 1] = kc
    gains[at + 2] = ks
    gains[at + 3] = ka
    weights[i] = 1 / total
    log += 0.5 * Math.log(total)
    halfLogs[i] = log
  }
  run.courseVariance = cc
  columns.forEach((column, k) => {
    const into = run.columns[k]
    if (into) run.courses[k] = innovationsOf(run, steps, column, into)
  })
  multiply(run, columns.length)
  return run
}

/**
 * Innovations of a column of data under a run.
 * @param into where they are written
 * @returns the course at the last visit
 */
export function innovationsOf(run: Run, steps: Float64Array, data: ArrayLike<number>, into: Float64Array): number {
  const { gains, kept, lasting } = run
  const count = steps.length
  let level = data[0] as number
  let [course, slope, noise] = [0, 0, 0]
  for (let i = 1, at = STATES; i < count; i += 1, at += STATES) {
    course += (steps[i] as number) * slope
    noise *= kept[i] as number
    const off = (data[i] as number) - level - course - (lasting[i] as number) * noise
    level += (gains[at] as number) * off
    course += (gains[at + 1] as number) * off
    slope += (gains[at + 2] as number) * off
    noise += (gains[at + 3] as number) * off
    into[i] = off
  }
  return course
}

function multiply({ columns, products, weights }: Run, size: number): void {
  const pairs = (size * (size + 1)) / 2
  for (let j = 0; j < size; j += 1)
    for (let k = 0; k <= j; k += 1) {
      const [one, two] = [columns[j], columns[k]]
      if (!one || !two) continue
      let sum = 0
      const place = pairOf(j, k)
      for (let i = 1; i < weights.length; i += 1) {
        sum += (one[i] as number) * (two[i] as number) * (weights[i] as number)
        products[i * pairs + place] = sum
      }
    }
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
  const count = timing.weeks.length
  const steps = Float64Array.from(timing.weeks, (week, i) => (i === 0 ? 0 : week - (timing.weeks[i - 1] as number)))
  const columns = regressors(timing)
  const runs = FILTERED.map((_, type) =>
    [0, ...WANDERING.map((__, k) => k + 1)].map((course) => runThrough(timing, steps, columns, { type, course })),
  )
  const made: Runs = { timing, count, steps, columns: columns.length, regressors: columns, runs }
  recent.set(key, made)
  visitsKept += count
  for (const [old, { count: visits }] of recent) {
    if (visitsKept <= MOST_VISITS || old === key) break
    recent.delete(old)
    visitsKept -= visits
  }
  return made
}
