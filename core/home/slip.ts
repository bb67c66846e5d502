import { KG_PER_LB } from '../units'

/** How far a weight lies from the last one before it is asked about, share (common practice: some 3 % of a day are rare). */
const FAR = 0.1
/** How near a weight with its point moved has to be to the last one, share. */
const NEAR = 0.05

/**
 * Whether a weight looks mistyped beside the last one: its point moved, or read in the other unit; kg.
 * @returns what may have been meant, kg; null where it looks right; NaN where it is far off and nothing says how
 * @example weightSlip(7.1, 71.4) // 71
 */
export function weightSlip(kg: number, lastKg: number | null): number | null {
  if (lastKg === null || Math.abs(kg - lastKg) <= FAR * lastKg) return null
  const meant = [kg * 10, kg / 10, kg * 100, kg / 100, kg / KG_PER_LB, kg * KG_PER_LB]
  return meant.find((one) => Math.abs(one - lastKg) <= NEAR * lastKg) ?? NaN
}
