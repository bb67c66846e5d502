import { daysBetween, type Day } from '../calendar'
import type { Measured } from '../composition/end-figures'
import { Z_95 } from '../error/interval'
import type { Change } from '../following'
import { KCAL_PER_KG_FAT, KCAL_PER_KG_LEAN } from './dynamic'

/** What was eaten on a day, kcal. */
export interface Intake {
  day: Day
  kcal: number
}

/** Bounds of a day's intake that is taken, kcal. */
export const INTAKE_RANGE = { low: 500, high: 10_000 } as const

/** Days that have to be logged before an expenditure is said, and share of the span that has to be. */
const FEWEST_DAYS = 10
const FEWEST_SHARE = 0.4

/** What logs leave out or add, as a share of intake (assumed; logs of intake run low in most people). */
const LOGGING_SHARE = 0.05

/** Expenditure from what was logged and what was measured. */
export interface Observed extends Measured {
  /** Days logged, of how many. */
  logged: number
  days: number
  meanIntake: number
  /** Energy that left the body's stores a day, kcal: below zero when they grew. */
  fromStores: number
  /** Standard deviations, kcal a day: of the check-ins, of days not alike, of the log itself. */
  parts: { measuring: number; intake: number; log: number }
}

type Moved = Pick<Change, 'change' | 'low' | 'high'>

function varianceOf({ low, high }: Moved): number {
  return ((high - low) / (2 * Z_95)) ** 2
}

/**
 * Observed expenditure: mean intake less what the stores gained, 9,440 kcal a kg of fat and 1,807 of lean, kcal a day.
 * Fat and weight err nearly apart, fat and lean do not: the stores are taken as 7,633 a kg of fat and 1,807 a kg of weight.
 * @param intakes of the span between two check-ins, any days of it
 * @param changes of fat and weight over it
 * @returns null with fewer than ten days logged, or fewer than two in five
 */
export function observedExpenditure(
  intakes: readonly Intake[],
  { from, until, fat, weight }: { from: Day; until: Day; fat: Moved; weight: Moved },
): Observed | null {
  const days = daysBetween(from, until)
  const own = intakes.filter(({ day }) => day >= from && day < until)
  if (own.length < FEWEST_DAYS || own.length < FEWEST_SHARE * days) return null
  const meanIntake = own.reduce((sum, { kcal }) => sum + kcal, 0) / own.length
  const spread = own.reduce((sum, { kcal }) => sum + (kcal - meanIntake) ** 2, 0) / (own.length - 1)
  // Days that were not logged: the mean of those that were stands for all.
  const intake = (spread / own.length) * Math.max(0, 1 - own.length / days)
  const byFat = KCAL_PER_KG_FAT - KCAL_PER_KG_LEAN
  const stores = byFat * fat.change + KCAL_PER_KG_LEAN * weight.change
  const measuring = (byFat ** 2 * varianceOf(fat) + KCAL_PER_KG_LEAN ** 2 * varianceOf(weight)) / days ** 2
  const log = (LOGGING_SHARE * meanIntake) ** 2
  return {
    value: meanIntake - stores / days,
    variance: measuring + intake + log,
    logged: own.length,
    days,
    meanIntake,
    fromStores: -stores / days,
    parts: { measuring: Math.sqrt(measuring), intake: Math.sqrt(intake), log: Math.sqrt(log) },
  }
}

/** Two sources of the same figure as one. */
export interface Believed extends Measured {
  /** Weight of the observed one, 0 to 1; the rest is the predicted one's. */
  observedWeight: number
}

/** Predicted and observed expenditure weighted by their precision (inverse variance). */
export function believe(predicted: Measured, observed: Measured | null): Believed {
  if (!observed) return { ...predicted, observedWeight: 0 }
  const [a, b] = [1 / predicted.variance, 1 / observed.variance]
  return {
    value: (a * predicted.value + b * observed.value) / (a + b),
    variance: 1 / (a + b),
    observedWeight: b / (a + b),
  }
}

/**
 * Days between two check-ins, every day logged, from which the observed expenditure is surer than the predicted one.
 * @param fatVariance of a change of fat, kg squared; @param weightVariance of a change of weight
 * @returns null where the log's own error keeps it from ever being
 */
export function daysUntilBetter(
  predicted: Measured,
  { intakeKcal, fatVariance, weightVariance }: { intakeKcal: number; fatVariance: number; weightVariance: number },
): number | null {
  const left = predicted.variance - (LOGGING_SHARE * intakeKcal) ** 2
  if (left <= 0) return null
  const byFat = KCAL_PER_KG_FAT - KCAL_PER_KG_LEAN
  return Math.ceil(Math.sqrt((byFat ** 2 * fatVariance + KCAL_PER_KG_LEAN ** 2 * weightVariance) / left))
}
