import { CM_PER_INCH } from '../units'
import type { KnownMeasures } from './equation'

const TAPED = ['neck', 'waist', 'abdomen', 'hip'] as const

/**
 * Rounds girths as military tape instructions do: neck up, the others down, to the half inch. An option of the tape
 * school, off by default; a result that used it says so. Girths in and out in cm.
 * @example militaryRounded({ neck: 38 }) // 14.96 in -> 15 in -> { neck: 38.1 }
 */
export function militaryRounded(measures: KnownMeasures): KnownMeasures {
  const rounded = { ...measures }
  for (const site of TAPED) {
    const cm = measures[site]
    if (cm === undefined) continue
    // A hair against 14.999999 in from an entry of exactly 15 in.
    const halves = (cm / CM_PER_INCH) * 2
    const whole = site === 'neck' ? Math.ceil(halves - 1e-9) : Math.floor(halves + 1e-9)
    rounded[site] = (whole / 2) * CM_PER_INCH
  }
  return rounded
}
