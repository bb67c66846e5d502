import type { SiteId } from '../../sites'

/** What a reading can be of, where slips are looked for. Folds in mm, girths and height in cm, weight in kg. */
export type SlipMeasure = SiteId | 'weight' | 'height'

export type KnownValues = Readonly<Partial<Record<SlipMeasure, number>>>

/** A reading about to be kept, with what it can be held against. Units as in SlipMeasure. */
export interface SlipEntry {
  measure: SlipMeasure
  value: number
  /** This client's values at the last check-in. */
  last: KnownValues
  /** Values of this session so far, without this reading. */
  here: KnownValues
  /** Smallest real change of this measure, in its unit, where the assessor's error is known. */
  realChange?: number
  /** Days since the last check-in, where there was one. */
  daysSince?: number | null
  /** Distance of the caliper's marks, mm, where it is known. */
  resolutionMm?: number | null
}

/** What the warning proposes instead: another value here, or this value at another site. */
export interface Correction {
  measure: SlipMeasure
  value: number
  label: string
  /** The site whose reading takes the typed value in turn. */
  swapWith?: SlipMeasure
}

export type SlipCode =
  | 'range'
  | 'unit'
  | 'decimal'
  | 'wrong-row'
  | 'swapped'
  | 'far'
  | 'fast'
  | 'order'
  | 'marks'
  | 'copied'

/** A warning beside the entry: what and why, in one sentence, and what would put it right. */
export interface Slip {
  code: SlipCode
  sentence: string
  /** True only for what no body can have: the reading is not taken. Everything else passes with one more press. */
  blocks: boolean
  correction: Correction | null
}

/** Distance of two positive values as a ratio: 0.1 is about ten percent. */
export function apartBy(a: number, b: number): number {
  return Math.abs(Math.log(a / b))
}
