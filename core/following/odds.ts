import { COURSES, ESTIMATE_COURSES, runOf, type CourseModel } from './course-models'
import { FigureRuns, type Way } from './figure-runs'
import { cellsByType, mostLog, scaleAfter, typeLog } from './likelihood'
import { Mixture } from './mixture'
import { NOISE_TYPES, type Noise } from './noise'
import { runsOver } from './timing'

/** A figure of one client from its start on: what the odds are asked about. */
export interface OddsSeries {
  /** Weeks from the start, rising; the first is the start. */
  weeks: readonly number[]
  values: readonly number[]
  /** Assumed variance of each value, unit squared. */
  variances: readonly number[]
  /** Who measured with which caliper at each visit; one other than the start's shares an unknown offset. */
  hands?: readonly string[]
  /** Variance of such an offset by hand, unit squared; what no study has found is assumed. */
  offsetVariances?: Readonly<Record<string, number>>
  /** What studies say each value is too high by, because of the hand that took it; unit of the figure. */
  biases?: readonly number[]
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
  /** Chance that the change is within so much of none, where a smallest worthwhile change was given. */
  within: number | null
  /** How far noise is held to last from one check-in to the next, these readings known and nothing having changed: 0 to 1. */
  lasting: number
}

/** Other hands than the start's that get an offset of their own; the others share the last one's. */
const MOST_HANDS = 3
/** Errors of a client's visits differ by steps of this size; smaller differences are left out. */
const WIDTH_STEP = Math.log(1.15)

function offsetsOf({ hands, offsetVariances = {} }: OddsSeries): { seen: number[]; variance: number }[] {
  if (!hands) return []
  const others = [...new Set(hands)].filter((hand) => hand !== hands[0] && (offsetVariances[hand] ?? 0) > 0)
  const shown = others.slice(0, MOST_HANDS)
  return shown.map((hand, k) => ({
    seen: hands.map((one) => (one === hand || (k === shown.length - 1 && others.indexOf(one) >= MOST_HANDS) ? 1 : 0)),
    variance: offsetVariances[hand] as number,
  }))
}

/** A figure's history as the filters take it, and its visit sd: what they count in. */
export function figureRuns(series: OddsSeries): { figure: FigureRuns; unit: number } {
  const count = series.weeks.length
  const start = series.weeks[0] as number
  const mean = series.variances.reduce((sum, one) => sum + one, 0) / count
  const unit = Math.sqrt(mean)
  const offsets = offsetsOf(series)
  const timing = {
    weeks: series.weeks.map((week) => week - start),
    sizes: series.variances.map((one) => Math.exp((WIDTH_STEP * Math.round(Math.log(one / mean) / WIDTH_STEP)) / 2)),
    seen: offsets.map(({ seen }) => seen),
  }
  const values = Float64Array.from(series.values, (value, i) => (value - (series.biases?.[i] ?? 0)) / unit)
  // The level is flat: values are taken from the first on, so that nothing is lost in a large one.
  const first = values[0] as number
  const figure = new FigureRuns(
    runsOver(timing),
    values.map((value) => value - first),
    offsets.map(({ variance }) => variance / mean),
  )
  return { figure, unit }
}

const wayOf = (course: CourseModel): Way => ({
  run: runOf(course),
  line: course.kind === 'line' ? course.sd * course.sd : 0,
})
const STILL: Way = { run: 0, line: 0 }

/** What a history is tried with: no change first, then each course. */
const WAYS: readonly Way[] = [STILL, ...COURSES.map(wayOf)]
const LOG_WEIGHTS = COURSES.map(({ weight }) => Math.log(weight))

const room = (ways: readonly Way[]) => ({
  squares: new Float64Array(NOISE_TYPES.length * ways.length),
  halves: new Float64Array(NOISE_TYPES.length * ways.length),
})
const ROOM = room(WAYS)

/** What is lighter than the heaviest by this factor's logarithm is left out of a likelihood. */
const UNHEARD = 10

/** Log likelihoods of no change and of a change, over all types held, from what `fill` left. */
function likelihoods(noise: Noise, contrasts: number): { still: number; moved: number } {
  const types = cellsByType(noise)
  const size = WAYS.length
  const { squares, halves } = ROOM
  const sums = [0, 0]
  const tops = [-Infinity, -Infinity]
  const add = (side: 0 | 1, log: number) => {
    const top = tops[side] as number
    if (log <= top) sums[side] = (sums[side] as number) + Math.exp(log - top)
    else {
      sums[side] = (sums[side] as number) * Math.exp(top - log) + 1
      tops[side] = log
    }
  }
  // The likeliest of each side first: what cannot come near it need not be worked out.
  const most = new Float64Array(types.length * size)
  const best: [number, number] = [-1, -1]
  for (let type = 0; type < types.length; type += 1)
    for (let w = 0; w < size; w += 1) {
      const place = type * size + w
      const side = w === 0 ? 0 : 1
      most[place] =
        (types[type]?.total as number) +
        mostLog(contrasts, squares[place] as number) -
        (halves[place] as number) +
        (w === 0 ? 0 : (LOG_WEIGHTS[w - 1] as number))
      if (best[side] < 0 || (most[place] as number) > (most[best[side]] as number)) best[side] = place
    }
  const take = (place: number, side: 0 | 1) => {
    const [type, w] = [Math.floor(place / size), place % size]
    const own = types[type]
    if (!own || own.logs.length === 0) return
    const log = typeLog(own, contrasts, squares[place] as number) - (halves[place] as number)
    add(side, w === 0 ? log : log + (LOG_WEIGHTS[w - 1] as number))
  }
  for (const side of [0, 1] as const) take(best[side], side)
  for (let place = 0; place < most.length; place += 1) {
    const side = place % size === 0 ? 0 : 1
    if (place !== best[side] && (most[place] as number) > (tops[side] as number) - UNHEARD) take(place, side)
  }
  return {
    still: (tops[0] as number) + Math.log(sums[0] as number),
    moved: (tops[1] as number) + Math.log(sums[1] as number),
  }
}

/** Correlation of two check-ins so many weeks apart as the noise is held, nothing having changed. */
function lastingOver(weeks: number, noise: Noise, contrasts: number): number {
  const types = cellsByType(noise)
  let [top, all, lasting] = [-Infinity, 0, 0]
  const logs = types.map((own, type) =>
    own.logs.length === 0
      ? -Infinity
      : typeLog(own, contrasts, ROOM.squares[type * WAYS.length] as number) -
        (ROOM.halves[type * WAYS.length] as number),
  )
  for (const log of logs) top = Math.max(top, log)
  logs.forEach((log, type) => {
    const share = Math.exp(log - top)
    all += share
    const { rho, white } = NOISE_TYPES[type] as (typeof NOISE_TYPES)[number]
    if (rho > 0) lasting += share * (1 - white) * rho ** weeks
  })
  return lasting / all
}

/** How the odds are asked for. */
export interface Asking {
  /** The odds are wanted after every visit: the noise held at each look, by its place. */
  running?: (look: number) => Noise
  /** The smallest change that matters, unit of the figure: how likely it is less. */
  smallest?: number
}

/**
 * How much likelier a figure's history is if something changed than if nothing did, under every noise held possible, its
 * scale integrated out: Student t likelihoods by Kalman filters, O(n).
 *
 * Of clients who do not change at most one in twenty is ever given odds of 20 or more, however often one looks: the odds
 * are a likelihood ratio that averages one (Ville 1939).
 * @returns null with fewer than two visits, or none on another day than the first
 */
export function oddsOf(series: OddsSeries, noise: Noise, { running, smallest }: Asking = {}): Odds | null {
  const count = series.weeks.length
  if (count < 2 || !((series.weeks.at(-1) as number) > (series.weeks[0] as number))) return null
  const { figure, unit } = figureRuns(series)
  const all = running ? [1] : []
  if (running)
    for (let look = 1; look < count - 1; look += 1) {
      figure.fill(look, WAYS, ROOM)
      const { still, moved } = likelihoods(running(look), look)
      all.push(Math.exp(moved - still))
    }
  figure.fill(count - 1, WAYS, ROOM)
  const { still, moved } = likelihoods(noise, count - 1)
  const odds = Math.exp(moved - still)
  if (running) all.push(odds)
  const lasting = lastingOver(
    ((series.weeks.at(-1) as number) - (series.weeks[0] as number)) / (count - 1),
    noise,
    count - 1,
  )
  const mixture = changeMixture(figure, noise, unit)
  const interval = mixture.interval()
  const within = smallest === undefined ? null : mixture.share(-smallest, smallest)
  return { running: all, odds, ...interval, within, lasting }
}

/** What an estimate is made of, by the place of its course. */
export const ESTIMATE_WAYS: readonly Way[] = ESTIMATE_COURSES.map(wayOf)
const ESTIMATE_ROOM = room(ESTIMATE_WAYS)
/** Parts of an estimate lighter than the heaviest by this factor's logarithm are left out. */
const LIGHT = 5

/** A type with a course, as an estimate holds it after all visits. */
export interface EstimatePart {
  type: number
  course: number
  /** Log of its weight. */
  log: number
  scale: number
  freedom: number
}

/** What an estimate is made of, after all visits: every type with every course that counts. */
export function estimateParts(figure: FigureRuns, noise: Noise): EstimatePart[] {
  const contrasts = figure.values.length - 1
  figure.fill(contrasts, ESTIMATE_WAYS, ESTIMATE_ROOM)
  const { squares, halves } = ESTIMATE_ROOM
  const size = ESTIMATE_WAYS.length
  const types = cellsByType(noise)
  let top = -Infinity
  const held: { type: number; course: number; log: number; squares: number }[] = []
  types.forEach((own, type) => {
    if (own.logs.length === 0) return
    for (let course = 0; course < size; course += 1) {
      const place = type * size + course
      const q = squares[place] as number
      const beside = Math.log((ESTIMATE_COURSES[course] as CourseModel).weight) - (halves[place] as number)
      if (own.total + mostLog(contrasts, q) + beside < top - LIGHT) continue
      const log = typeLog(own, contrasts, q) + beside
      top = Math.max(top, log)
      held.push({ type, course, log, squares: q })
    }
  })
  return held
    .filter(({ log }) => log > top - LIGHT)
    .map(({ type, course, log, squares: q }) => ({
      type,
      course,
      log,
      ...scaleAfter(types[type] as (typeof types)[number], contrasts, q),
    }))
}

/** Used again for every change, so that thousands of them need no memory of their own. */
const mixture = new Mixture()

function changeMixture(figure: FigureRuns, noise: Noise, unit: number): Mixture {
  mixture.clear()
  for (const { type, course, log, scale, freedom } of estimateParts(figure, noise)) {
    const { change, variance } = figure.change(type, ESTIMATE_WAYS[course] as Way)
    mixture.add(log, unit * change, unit * Math.sqrt(Math.max(0, scale * variance)), freedom)
  }
  return mixture
}

/**
 * The first look, of those from a place on, at which the odds reach what is asked; null: at none.
 * @param from place of the first look that counts
 */
export function firstLookOver(
  series: OddsSeries,
  noise: Noise,
  { from, asked }: { from: number; asked: number },
): number | null {
  const { figure } = figureRuns(series)
  for (let look = Math.max(1, from); look < series.weeks.length; look += 1) {
    figure.fill(look, WAYS, ROOM)
    const { still, moved } = likelihoods(noise, look)
    if (moved - still >= Math.log(asked)) return look
  }
  return null
}
