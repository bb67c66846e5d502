import { caliperShows } from '../simulate/devices'
import type { Random } from '../simulate/random'

/** One round of reading a dial: what the needle does, and what is to be read. */
export interface DialRound {
  /** The fold as it is read at the second of the school, mm. */
  foldMm: number
  /** Seconds until full pressure: the needle swings before. */
  settles: number
  /** Seconds after full pressure at which it is to be read. */
  readAfter: number
  /** How it trembles, mm. */
  trembleMm: number
  seed: number
}

/** Draws a round; at higher levels it trembles more, settles at another moment, and the fold is larger. */
export function drawDial(random: Random, level: number, readAfter = 2): DialRound {
  return {
    foldMm: Math.round((6 + random.next() * (10 + 6 * level)) * 2) / 2,
    settles: 0.6 + random.next() * 0.25 * level,
    readAfter,
    trembleMm: 0.05 * level,
    seed: Math.floor(random.next() * 1e9),
  }
}

/**
 * What the needle shows so many seconds after the pinch, mm: it falls onto the fold until full pressure, then creeps down.
 */
export function needleAt(round: DialRound, seconds: number): number {
  const { foldMm, settles, trembleMm, seed } = round
  const after = seconds - settles
  const tremble = trembleMm * Math.sin(seconds * 31 + (seed % 7)) * Math.cos(seconds * 17 + (seed % 5))
  const settled = caliperShows(foldMm, Math.max(0, after), { zeroErrorMm: 0, noiseMm: 0 }, {
    normal: () => 0,
  } as Random)
  if (after >= 0) return settled + tremble
  // Opened wide, closing onto the fold.
  const share = Math.max(0, seconds) / settles
  return settled + (45 - settled) * (1 - share) ** 2 + tremble
}

/** How far off a typed value and the moment of typing were: mm, and seconds of the school's second. */
export function dialMiss(round: DialRound, typedMm: number, readAtSeconds: number): { mm: number; seconds: number } {
  return { mm: Math.abs(typedMm - round.foldMm), seconds: readAtSeconds - round.settles - round.readAfter }
}
