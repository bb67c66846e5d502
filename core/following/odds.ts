import { ESTIMATE_COURSES, type CourseModel } from './course-models'
import { FigureRuns, type Way } from './figure-runs'
import { cellsByType, mostLog, scaleAfter, typeLog } from './likelihood'
import { lastingOver, logOdds, oddsReach, wayOf } from './looks'
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

/** What a whole history says about a change since its start. */
export interface WholeOdds {
  /** Likelihood of "something changed" over "nothing changed" at the last visit. */
  odds: number
  /** Best estimate of the change and its 95 % interval, something or other having happened; unit of the figure. */
  change: number
  low: number
  high: number
  /** Chance that the change is within so much of none, where a smallest worthwhile change was given. */
  within: number | null
}

/** As `WholeOdds`, with more that is asked for less often. */
export interface Odds extends WholeOdds {
  /** The odds after each visit, 1 at the start; empty where not asked for. */
  running: readonly number[]
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

const room = (ways: readonly Way[]) => ({
  squares: new Float64Array(NOISE_TYPES.length * ways.length),
  halves: new Float64Array(NOISE_TYPES.length * ways.length),
})

/** How the odds are asked for. */
export interface Asking {
  /** The odds are wanted after every visit: the noise held at each look, by its place. */
  running?: (look: number) => Noise
  /** The smallest change that matters, unit of the figure: how likely it is less. */
  smallest?: number
}

/** A figure's history, filtered once and asked about after any of its visits. */
export class FollowedSeries {
  private readonly figure: FigureRuns
  private readonly unit: number

  constructor(private readonly series: OddsSeries) {
    const { figure, unit } = figureRuns(series)
    this.figure = figure
    this.unit = unit
  }

  /** The odds after a visit, by its place: 1 at the start. */
  oddsAt(look: number, noise: Noise): number {
    return look < 1 ? 1 : Math.exp(logOdds(this.figure, noise, look))
  }

  /** Whether the odds after a visit reach what is asked: a fraction of the work. */
  reach(look: number, noise: Noise, asked: number): boolean {
    return look < 1 ? asked <= 1 : oddsReach(this.figure, noise, look, asked)
  }

  /** What the whole history says. */
  whole(noise: Noise, smallest?: number): WholeOdds {
    const odds = this.oddsAt(this.series.weeks.length - 1, noise)
    const mixture = changeMixture(this.figure, noise, this.unit)
    const interval = mixture.interval()
    const within = smallest === undefined ? null : mixture.share(-smallest, smallest)
    return { odds, ...interval, within }
  }

  /** How far noise is held to last from one check-in to the next: see `Odds`. */
  lasting(noise: Noise): number {
    const { weeks } = this.series
    const last = weeks.length - 1
    return lastingOver(this.figure, noise, ((weeks[last] as number) - (weeks[0] as number)) / last)
  }
}

/** Whether a history can be asked about: two visits on different days at least. */
export function canAsk({ weeks }: OddsSeries): boolean {
  return weeks.length >= 2 && (weeks.at(-1) as number) > (weeks[0] as number)
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
  if (!canAsk(series)) return null
  const history = new FollowedSeries(series)
  const whole = history.whole(noise, smallest)
  const earlier = running
    ? series.weeks.slice(0, -1).map((_, look) => history.oddsAt(look, look < 1 ? noise : running(look)))
    : []
  return { ...whole, running: running ? [...earlier, whole.odds] : [], lasting: history.lasting(noise) }
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
  const history = new FollowedSeries(series)
  for (let look = Math.max(1, from); look < series.weeks.length; look += 1)
    if (history.reach(look, noise, asked)) return look
  return null
}
