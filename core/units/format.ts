import { cmToLength, INCHES_PER_FOOT, type LengthUnit } from './length'
import { fixed, roundHalfAway } from './round'
import { kgToMass, type MassUnit } from './mass'

/** The units one person reads in. Folds are always shown in millimetres. */
export interface Units {
  mass: MassUnit
  length: LengthUnit
}

/** The sign a minus is printed with: as wide as a figure, unlike the hyphen. */
export const MINUS = '−'

/** A number with a fixed count of decimals, a real minus sign and no negative zero. Rounds once, here: half away from zero. */
export function formatNumber(value: number, decimals = 1): string {
  const text = fixed(Math.abs(value), decimals)
  return value < 0 && Number(text) !== 0 ? `${MINUS}${text}` : text
}

/** A change: like formatNumber, with a plus sign before a gain. */
export function formatChange(value: number, decimals = 1): string {
  const text = formatNumber(value, decimals)
  return value > 0 && Number(text) !== 0 ? `+${text}` : text
}

/** A mass in kg as a bare figure in the person's unit, one decimal. */
export function formatMass(kg: number, units: Units, decimals = 1): string {
  return formatNumber(kgToMass(kg, units.mass), decimals)
}

/** A change of mass in kg as a signed figure in the person's unit, one decimal. */
export function formatMassChange(kg: number, units: Units, decimals = 1): string {
  return formatChange(kgToMass(kg, units.mass), decimals)
}

/** A girth in cm as a bare figure in the person's unit, one decimal. */
export function formatGirth(cm: number, units: Units): string {
  return formatNumber(cmToLength(cm, units.length), 1)
}

const EIGHTHS = ['', '1/8', '1/4', '3/8', '1/2', '5/8', '3/4', '7/8'] as const

/**
 * A girth as tapes are read: centimetres with one decimal, inches to the nearest eighth.
 * @example formatTape(86.995, { mass: 'lb', length: 'in' }) // '34 1/4'
 */
export function formatTape(cm: number, units: Units): string {
  if (units.length === 'cm') return formatNumber(cm, 1)
  const eighths = roundHalfAway(cmToLength(cm, 'in') * 8)
  const [whole, part] = [Math.floor(eighths / 8), EIGHTHS[eighths % 8] ?? '']
  return part === '' ? String(whole) : `${whole} ${part}`
}

/** A body height with its unit: "174 cm", "5 ft 8.5 in". Half inches, half centimetres. */
export function formatHeight(cm: number, units: Units): string {
  if (units.length === 'cm') return `${trimZero(formatNumber(cm, 1))} cm`
  const halves = roundHalfAway(cmToLength(cm, 'in') * 2) / 2
  const feet = Math.floor(halves / INCHES_PER_FOOT)
  return `${feet} ft ${trimZero(formatNumber(halves - feet * INCHES_PER_FOOT, 1))} in`
}

/** "174.0" as "174": for places where a bare whole number reads better. */
export function trimZero(text: string): string {
  return text.replace(/\.0+$/, '')
}
