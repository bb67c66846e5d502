import { KG_PER_LB, type MassUnit } from '../units'

/** A recomposition score with its 95 % interval, points. */
export interface Recomposition {
  points: number
  low: number
  high: number
  unit: MassUnit
}

/**
 * One point for each pound (or kilogram) of fat lost and each of lean gained, minus for the reverse.
 * @param change of lean less fat, kg, with its interval
 * @example recomposition({ change: 0.9072, low: 0, high: 1.8144 }, 'lb').points // 2: the scale still, a pound moved
 */
export function recomposition(
  { change, low, high }: { change: number; low: number; high: number },
  unit: MassUnit,
): Recomposition {
  const per = unit === 'lb' ? KG_PER_LB : 1
  return { points: change / per, low: low / per, high: high / per, unit }
}
