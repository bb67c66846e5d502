/** Units a mass can be written in. */
export type MassUnit = 'kg' | 'lb'

/** Kilograms in one pound: exact by definition (international yard and pound agreement, 1959). */
export const KG_PER_LB = 0.45359237

/** Pounds in one stone: exact by definition. */
export const LB_PER_STONE = 14

/** Kilograms in one of `unit`. */
export const KG_PER: Record<MassUnit, number> = { kg: 1, lb: KG_PER_LB }

/** A mass written in `unit`, in kilograms. Unrounded. */
export function massToKg(value: number, unit: MassUnit): number {
  return unit === 'kg' ? value : value * KG_PER_LB
}

/** A mass in kilograms, written in `unit`. Unrounded. */
export function kgToMass(kg: number, unit: MassUnit): number {
  return unit === 'kg' ? kg : kg / KG_PER_LB
}
