import type { Random } from './random'

/** A simulated caliper's own faults. */
export interface CaliperFaults {
  /** Shown at closed jaws, mm: added to every value. */
  zeroErrorMm: number
  /** Standard deviation of the shown value, mm. */
  noiseMm: number
}

/** How far above its settled value a fold shows at full pressure, as a share, and how fast it creeps down, 1/s. */
const CREEP = { share: 0.09, rate: 0.9 } as const

/**
 * What a caliper shows a while after the pinch: tissue water gives way and the number creeps down. At two seconds,
 * where the schools read, it shows the fold itself.
 * @param foldMm the fold as an assessor would read it at two seconds, mm
 * @param seconds since full pressure
 */
export function caliperShows(foldMm: number, seconds: number, faults: CaliperFaults, random: Random): number {
  const at = (t: number) => 1 + CREEP.share * Math.exp(-CREEP.rate * t)
  const crept = (foldMm * at(Math.max(0, seconds))) / at(2)
  return Math.max(0, crept + faults.zeroErrorMm + faults.noiseMm * random.normal())
}

/** What a scale shows a while after stepping on: it swings and settles within about three seconds. */
export function scaleShows(weightKg: number, seconds: number, random: Random): { kg: number; settled: boolean } {
  const swing = 1.5 * Math.exp(-1.4 * seconds) * Math.cos(5 * seconds)
  const settled = seconds > 3
  const kg = weightKg + (settled ? 0 : swing + 0.03 * random.normal())
  return { kg: Math.max(0, Math.round(kg * 10) / 10), settled }
}
