import type { Sex } from '../equations/equation'

/** A girth corrected for the fold over it: muscle size of a limb, bone included. All in cm. */
export interface CorrectedGirths {
  arm: number | null
  thigh: number | null
  calf: number | null
}

/**
 * Fold-corrected girth: girth - pi x fold, both in cm.
 * @param girthCm girth, cm
 * @param foldMm fold over it, mm
 * @example correctedGirth(32, 10) // 28.858
 */
export function correctedGirth(girthCm: number, foldMm: number): number {
  return girthCm - (Math.PI * foldMm) / 10
}

/** Fat-free mass index, kg/m^2: fat-free mass in kg, height in cm. */
export function fatFreeMassIndex(fatFreeKg: number, heightCm: number): number {
  return fatFreeKg / (heightCm / 100) ** 2
}

/** FFMI brought to a height of 1.80 m (Kouri et al. 1995, recalled). */
export function adjustedFatFreeMassIndex(fatFreeKg: number, heightCm: number): number {
  return fatFreeMassIndex(fatFreeKg, heightCm) + 6.3 * (1.8 - heightCm / 100)
}

/**
 * Skeletal muscle mass in kg from corrected girths in cm, non-obese adults. Lee et al. 2000, Am J Clin Nutr 72:796
 * (recalled); the ancestry term is left out.
 */
export function skeletalMuscleKg(
  { arm, thigh, calf }: { arm: number; thigh: number; calf: number },
  person: { sex: Sex; ageYears: number; heightCm: number },
): number {
  const girths = 0.00744 * arm ** 2 + 0.00088 * thigh ** 2 + 0.00441 * calf ** 2
  return (person.heightCm / 100) * girths + (person.sex === 'male' ? 2.4 : 0) - 0.048 * person.ageYears + 7.8
}
