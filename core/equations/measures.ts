/**
 * Body mass index, kg/m^2.
 * @param weightKg weight, kg
 * @param heightCm height, cm
 * @example bmi(86.18, 177.8) // 27.26
 */
export function bmi(weightKg: number, heightCm: number): number {
  const metres = heightCm / 100
  return weightKg / (metres * metres)
}
