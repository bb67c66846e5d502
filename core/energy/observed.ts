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

/**
 * What logs leave out, as a share of what is eaten: their mean over people and its standard deviation. Adults in diet studies
 * log 10 to 30 % low (recalled).
 */
export const UNDER_REPORTED = { mean: 0.1, sd: 0.1 } as const
/** What was eaten for what was logged, and its standard deviation, as shares of the log. */
const EATEN = 1 / (1 - UNDER_REPORTED.mean)
const EATEN_SD = UNDER_REPORTED.sd / (1 - UNDER_REPORTED.mean) ** 2

/** Days after a change of intake that say nothing: they are water. */
export const WATER_DAYS = 14
/** A change of intake larger than this share is one, beyond what days differ by. */
const CHANGED_SHARE = 0.15
const CHANGED_ERRORS = 3.5

/** Mean and its squared standard error of some days. */
function meanOf(own: readonly Intake[]): { mean: number; variance: number } {
  const mean = own.reduce((sum, { kcal }) => sum + kcal, 0) / own.length
  const squares = own.reduce((sum, { kcal }) => sum + (kcal - mean) ** 2, 0) / Math.max(1, own.length - 1)
  return { mean, variance: squares / own.length }
}

/**
 * The last day on which what is eaten changed by more than 15 %: the mean of two weeks against that of the two before.
 * @param intakes oldest first
 * @returns null where it never did
 */
export function lastIntakeChange(intakes: readonly Intake[]): Day | null {
  let found: { day: Day; share: number } | null = null
  for (const { day } of intakes) {
    const before = intakes.filter((one) => one.day < day && daysBetween(one.day, day) <= WATER_DAYS)
    const after = intakes.filter((one) => one.day >= day && daysBetween(day, one.day) < WATER_DAYS)
    if (before.length < WATER_DAYS / 2 || after.length < WATER_DAYS / 2) continue
    const [a, b] = [meanOf(before), meanOf(after)]
    const by = Math.abs(b.mean - a.mean)
    if (by <= CHANGED_SHARE * a.mean || by <= CHANGED_ERRORS * Math.sqrt(a.variance + b.variance)) continue
    // Of days near each other the one with the largest step.
    const share = by / a.mean
    if (!found || daysBetween(found.day, day) >= WATER_DAYS || share > found.share) found = { day, share }
  }
  return found?.day ?? null
}

/** Expenditure from what was logged and what was measured. */
export interface Observed extends Measured {
  /** Days logged, of how many. */
  logged: number
  days: number
  /** As logged, kcal a day. */
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
 * Observed expenditure: mean intake, the log taken as a tenth low, less what the stores gained, 9,440 kcal a kg of fat and 1,807 of lean, kcal a day.
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
  const log = (EATEN_SD * meanIntake) ** 2
  return {
    value: EATEN * meanIntake - stores / days,
    variance: measuring + EATEN ** 2 * intake + log,
    logged: own.length,
    days,
    meanIntake,
    fromStores: -stores / days,
    parts: { measuring: Math.sqrt(measuring), intake: EATEN * Math.sqrt(intake), log: Math.sqrt(log) },
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
  const left = predicted.variance - (EATEN_SD * intakeKcal) ** 2
  if (left <= 0) return null
  const byFat = KCAL_PER_KG_FAT - KCAL_PER_KG_LEAN
  return Math.ceil(Math.sqrt((byFat ** 2 * fatVariance + KCAL_PER_KG_LEAN ** 2 * weightVariance) / left))
}
