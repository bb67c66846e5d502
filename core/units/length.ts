/** Units a body length or girth can be written in. Folds are always millimetres. */
export type LengthUnit = 'cm' | 'in'

/** Centimetres in one inch: exact by definition (international yard and pound agreement, 1959). */
export const CM_PER_INCH = 2.54

/** Inches in one foot: exact by definition. */
export const INCHES_PER_FOOT = 12

/** A length written in `unit`, in centimetres. Unrounded. */
export function lengthToCm(value: number, unit: LengthUnit): number {
  return unit === 'cm' ? value : value * CM_PER_INCH
}

/** A length in centimetres, written in `unit`. Unrounded. */
export function cmToLength(cm: number, unit: LengthUnit): number {
  return unit === 'cm' ? cm : cm / CM_PER_INCH
}
