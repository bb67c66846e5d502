import { FOLD_RANGE_MM, GIRTHS } from '../core/sites'
import { BOUNDS, CM_PER_INCH, HEIGHT_RANGE_CM, KG_PER_LB, WEIGHT_RANGE_KG } from '../core/units'

const girths = Object.values(GIRTHS).map(({ rangeCm }) => rangeCm)
const LENGTH_CM = {
  low: Math.min(HEIGHT_RANGE_CM.low, ...girths.map(({ low }) => low)),
  high: Math.max(HEIGHT_RANGE_CM.high, ...girths.map(({ high }) => high)),
}

/** What a reading in a unit can be: `low` to `high` once multiplied by `factor` (into mm, cm or kg). */
export interface UnitLimit {
  factor: number
  low: number
  high: number
}

/**
 * Limits of every stored reading by unit: the one table that the schemas of what devices send and the constraints of
 * the database are both made from. A site's own range (shared/schemas/checkin.ts) lies within.
 */
export const READING_LIMITS = {
  mm: { factor: 1, ...FOLD_RANGE_MM },
  cm: { factor: 1, ...LENGTH_CM },
  in: { factor: CM_PER_INCH, ...LENGTH_CM },
  kg: { factor: 1, ...WEIGHT_RANGE_KG },
  lb: { factor: KG_PER_LB, ...WEIGHT_RANGE_KG },
} as const satisfies Record<string, UnitLimit>

/** Instants and days of facts lie in these years; the first and the last count. */
export const YEARS = { first: BOUNDS.firstYear, last: BOUNDS.lastYear } as const

/** First birth date taken. */
export const FIRST_BIRTH_DATE = BOUNDS.firstBirthDay

/** Wrong PINs in a row after which a PIN opens nothing any more. */
export const MOST_PIN_TRIES = 5
