import { KG_PER_LB, type MassUnit } from '../units'

/** A recomposition score: points, and the half-width of its 95 % interval. */
export interface Recomposition {
  points: number
  error: number
  unit: MassUnit
}

/**
 * One point for each pound (or kilogram) of fat lost and each of lean gained, minus for the reverse.
 * @param fatChangeKg fat now minus then, kg
 * @param leanChangeKg lean now minus then, kg
 * @param error half-width of the 95 % interval of (lean - fat) change, kg
 * @example recomposition(-0.4536, 0.4536, 0, 'lb') // 2 points: the scale still, a pound moved
 */
export function recomposition(fatChangeKg: number, leanChangeKg: number, error: number, unit: MassUnit): Recomposition {
  const per = unit === 'lb' ? KG_PER_LB : 1
  return { points: (leanChangeKg - fatChangeKg) / per, error: error / per, unit }
}
