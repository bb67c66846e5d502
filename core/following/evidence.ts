import { exp, log } from './fast'
import { runOf } from './course-models'
import { FigureRuns, type Way } from './figure-runs'
import { PAIRS, pairLogs } from './likelihood'
import { CELLS, NOISE_TYPES, type FigureHistory } from './noise'
import { figureRuns } from './odds'
import { supportOf } from './studio-grid'

/*
 * What a client's history says about the noise of a figure: how likely it is under every cell of the grid, about a free line
 * of their own and one bend at most, so that a client who changes does not pass for a noisy one.
 */

/** Standard deviation of the free line's slope, visit sds a week: so wide that its degree of freedom is not counted. */
const FREE_SD = 30
/** Bends beside the line, and how likely each is. */
const BENDS: readonly (Way & { weight: number })[] = [
  { run: 0, weight: 0.5 },
  { run: runOf({ kind: 'walk', sd: 0.3 }), weight: 0.2 },
  { run: runOf({ kind: 'bend', sd: 0.03 }), weight: 0.15 },
  { run: runOf({ kind: 'bend', sd: 0.1 }), weight: 0.15 },
].map((one) => ({ ...one, line: FREE_SD ** 2 }))

/** A history speaks from this visit on. */
export const SPEAKS_FROM = 4

/** What a figure's history of one client, in one hand, is learnt from. */
export interface Evidence extends FigureHistory {
  /** Of a study, not of a client who is followed: squares of so many degrees of freedom, in units of the assumed variance. */
  study?: { freedom: number; squares: number }
  /** Who took it; null: not known. */
  assessorId: string | null
}

/** How many of a history's visits there were up to a time, weeks on its own zero. */
export function visitsUntil({ weeks }: FigureHistory, until: number): number {
  let [low, high] = [0, weeks.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((weeks[middle] as number) <= until) low = middle + 1
    else high = middle
  }
  return low
}

const ROOM = {
  squares: new Float64Array(NOISE_TYPES.length * BENDS.length),
  halves: new Float64Array(NOISE_TYPES.length * BENDS.length),
}
const BEND_LOGS = BENDS.map(({ weight }) => Math.log(weight) + Math.log(FREE_SD))
const PAIR_ROOM = BENDS.map(() => new Float64Array(PAIRS))
/** Terms so far beneath the largest add nothing. */
const NOTHING = 20

/** Log likelihoods by cell, into likelihoods as factors of the largest. */
function asFactors(logs: Float64Array): Float64Array {
  let top = -Infinity
  for (let cell = 0; cell < CELLS; cell += 1) top = Math.max(top, logs[cell] as number)
  for (let cell = 0; cell < CELLS; cell += 1) logs[cell] = exp((logs[cell] as number) - top)
  return logs
}

/** Log likelihood of a history by cell of the grid after so many visits, but for a constant. */
export function cellLogs(figure: FigureRuns, visits: number): Float64Array {
  const contrasts = visits - 1
  figure.fill(contrasts, BENDS, ROOM)
  const found = new Float64Array(CELLS)
  for (let type = 0; type < NOISE_TYPES.length; type += 1) {
    // The free line's degree of freedom is not counted.
    for (let b = 0; b < BENDS.length; b += 1)
      pairLogs(contrasts - 1, ROOM.squares[type * BENDS.length + b] as number, PAIR_ROOM[b] as Float64Array)
    for (let pair = 0; pair < PAIRS; pair += 1) {
      let top = -Infinity
      let sum = 0
      for (let b = 0; b < BENDS.length; b += 1) {
        const one =
          (BEND_LOGS[b] as number) +
          ((PAIR_ROOM[b] as Float64Array)[pair] as number) -
          (ROOM.halves[type * BENDS.length + b] as number)
        if (one <= top) {
          if (one > top - NOTHING) sum += exp(one - top)
        } else {
          sum = sum * exp(top - one) + 1
          top = one
        }
      }
      found[type * PAIRS + pair] = top + log(sum)
    }
  }
  return found
}

/** The filtered history of the speaker asked last: one is asked after every visit in turn. */
let latest: { speaker: Speaker; figure: FigureRuns } | null = null

/** What a history says for each hypothesis about its studio, asked for after any number of its visits. */
export class Speaker {
  private said: { visits: number; support: Float64Array | null } | null = null
  constructor(readonly evidence: Evidence) {}

  /** Null where so few visits say nothing. */
  after(visits: number): Float64Array | null {
    if (this.said?.visits !== visits) this.said = { visits, support: this.find(visits) }
    return this.said.support
  }

  private find(visits: number): Float64Array | null {
    const { study } = this.evidence
    if (study) {
      if (visits < 1) return null
      // Alike under every type: people measured twice a day say nothing about what lasts from week to week.
      const [found, own] = [new Float64Array(CELLS), new Float64Array(PAIRS)]
      pairLogs(study.freedom, study.squares, own)
      NOISE_TYPES.forEach((_, type) => found.set(own, type * PAIRS))
      return supportOf(asFactors(found))
    }
    if (visits < SPEAKS_FROM) return null
    if (latest?.speaker !== this) latest = { speaker: this, figure: figureRuns(this.evidence).figure }
    return supportOf(asFactors(cellLogs(latest.figure, visits)))
  }
}
