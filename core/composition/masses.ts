/** A body weight split in two, kg. */
export interface Masses {
  fatKg: number
  leanKg: number
}

/**
 * Fat mass and fat-free mass.
 * @param weightKg body weight, kg
 * @param percent percent fat, points
 * @example splitWeight(100, 20) // { fatKg: 20, leanKg: 80 }
 */
export function splitWeight(weightKg: number, percent: number): Masses {
  const fatKg = (weightKg * percent) / 100
  return { fatKg, leanKg: weightKg - fatKg }
}
