import { COURSES, runOf, type CourseModel } from './course-models'
import { exp, log } from './fast'
import type { FigureRuns, Way } from './figure-runs'
import { cellsByType, mostLog, typeLog, type OfType } from './likelihood'
import { NOISE_TYPES, type Noise } from './noise'

/*
 * How much likelier a history is if something changed, after any of its visits. Thousands of looks are asked about: what
 * cannot matter is not worked out, and where only a line has to be reached, the work stops once that is settled.
 */

/** A course as the filters take it. */
export const wayOf = (course: CourseModel): Way => ({
  run: runOf(course),
  line: course.kind === 'line' ? course.sd * course.sd : 0,
})

/** No change first, then each course. */
const WAYS: readonly Way[] = [{ run: 0, line: 0 }, ...COURSES.map(wayOf)]
const SIZE = WAYS.length
const LOG_WEIGHTS = [0, ...COURSES.map(({ weight }) => Math.log(weight))]
const PLACES = NOISE_TYPES.length * SIZE

const ROOM = { squares: new Float64Array(PLACES), halves: new Float64Array(PLACES) }
/** No part of the likelihoods is over this, a logarithm each. */
const most = new Float64Array(PLACES)

/** What is lighter than the heaviest by this factor's logarithm is left out of a likelihood. */
const UNHEARD = 10

/** Fills the room for a look, and the bounds. */
function prepare(figure: FigureRuns, look: number, types: readonly OfType[]): void {
  figure.fill(look, WAYS, ROOM)
  for (let type = 0, place = 0; type < types.length; type += 1) {
    const { total } = types[type] as OfType
    for (let w = 0; w < SIZE; w += 1, place += 1)
      most[place] =
        total +
        mostLog(look, ROOM.squares[place] as number) -
        (ROOM.halves[place] as number) +
        (LOG_WEIGHTS[w] as number)
  }
}

/** Log of one part: a type with no change, or with a course. */
function partLog(types: readonly OfType[], look: number, place: number): number {
  const own = types[Math.floor(place / SIZE)] as OfType
  if (own.logs.length === 0) return -Infinity
  return (
    typeLog(own, look, ROOM.squares[place] as number) -
    (ROOM.halves[place] as number) +
    (LOG_WEIGHTS[place % SIZE] as number)
  )
}

/** The likeliest part of a side by its bound; -1: none is left. */
function likeliest(side: 'still' | 'moved'): number {
  let best = -1
  for (let place = 0; place < PLACES; place += 1) {
    if ((place % SIZE === 0) !== (side === 'still')) continue
    if ((most[place] as number) > (best < 0 ? -Infinity : (most[best] as number))) best = place
  }
  return best
}

/** Log likelihood of one side, from the bounds that `prepare` left. */
function sideLog(types: readonly OfType[], look: number, side: 'still' | 'moved'): number {
  const first = likeliest(side)
  if (first < 0) return -Infinity
  let top = partLog(types, look, first)
  let sum = 1
  for (let place = 0; place < PLACES; place += 1) {
    if ((place % SIZE === 0) !== (side === 'still') || place === first) continue
    if (!((most[place] as number) > top - UNHEARD)) continue
    const one = partLog(types, look, place)
    if (one <= top) sum += exp(one - top)
    else {
      sum = sum * exp(top - one) + 1
      top = one
    }
  }
  return top + log(sum)
}

/** Log of the odds after a look: "something changed" over "nothing changed". */
export function logOdds(figure: FigureRuns, noise: Noise, look: number): number {
  const types = cellsByType(noise)
  prepare(figure, look, types)
  return sideLog(types, look, 'moved') - sideLog(types, look, 'still')
}

/**
 * Whether the odds after a look reach what is asked: as `logOdds` would say, without working out what cannot settle it.
 * @param asked odds, over 0
 */
export function oddsReach(figure: FigureRuns, noise: Noise, look: number, asked: number): boolean {
  const types = cellsByType(noise)
  prepare(figure, look, types)
  const still = sideLog(types, look, 'still')
  const line = still + Math.log(asked)
  // What is left out of a likelihood when it is worked out in full is left out here.
  let rest = 0
  for (let place = 0; place < PLACES; place += 1)
    if (place % SIZE !== 0) rest += most[place] = exp(Math.min(700, (most[place] as number) - line))
  let sum = 0
  let heaviest = 0
  while (sum + rest >= 1) {
    const next = likeliest('moved')
    const bound = most[next] as number
    if (next < 0 || bound <= heaviest * exp(-UNHEARD)) break
    const one = exp(Math.min(700, partLog(types, look, next) - line))
    sum += one
    if (sum >= 1) return true
    heaviest = Math.max(heaviest, one)
    rest -= bound
    most[next] = 0
    // What is subtracted leaves rounding behind.
    if (rest < 1e-9) break
  }
  return sum >= 1
}

/** Correlation of two check-ins so many weeks apart as the noise is held, nothing having changed. */
export function lastingOver(figure: FigureRuns, noise: Noise, weeks: number): number {
  const look = figure.values.length - 1
  const types = cellsByType(noise)
  figure.fill(look, WAYS, ROOM)
  const logs = types.map((_, type) => partLog(types, look, type * SIZE))
  const top = Math.max(...logs)
  let [all, lasting] = [0, 0]
  logs.forEach((one, type) => {
    const share = Math.exp(one - top)
    all += share
    const { rho, white } = NOISE_TYPES[type] as (typeof NOISE_TYPES)[number]
    if (rho > 0) lasting += share * (1 - white) * rho ** weeks
  })
  return lasting / all
}
