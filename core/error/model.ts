import { isFold, type SiteId } from '../sites'

/** Error of one reading: a floor whatever the size, and a share of the value. */
export interface ReadingError {
  /** mm for folds, cm for girths. */
  floor: number
  share: number
}

/** Everything taken for the error of measuring, in one value that says where it comes from. */
export interface ErrorModel {
  folds: ReadingError
  girths: ReadingError
  /** A mark found anew at each visit: its error as a multiple of a reading's. */
  markFactor: number
  /** Day effect common to all folds of a visit (water, the pinch of the day), as a share of the fold. */
  dayShare: number
  /** How much wider the day effect is taken where conditions differ from the start's. */
  conditionsFactor: number
  /** Day noise of one weigh-in as a share of body weight, and its correlation from one day to the next. */
  weightShare: number
  weightDayCorrelation: number
  /** Spread, by site, of another assessor or caliper about the first, as a share of the value, until a study says. */
  handShare: number
  provenance: 'assumed' | 'learnt'
}

/** What is taken before anything is known (common practice; the shares of following.md). */
export const ASSUMED_ERRORS: ErrorModel = {
  folds: { floor: 0.4, share: 0.04 },
  girths: { floor: 0.3, share: 0.007 },
  markFactor: 1.5,
  dayShare: 0.03,
  conditionsFactor: 1.5,
  weightShare: 0.007,
  weightDayCorrelation: 0.5,
  handShare: 0.05,
  provenance: 'assumed',
}

/** Marks a caliper or tape is read to: mm for folds, cm for girths. */
export function markOf(site: SiteId): number {
  return isFold(site) ? 0.5 : 0.1
}

/** An error model with every fold read to this share of its value, floor and marks as they are. */
export function withFoldShare(model: ErrorModel, share: number): ErrorModel {
  return { ...model, folds: { ...model.folds, share } }
}

/**
 * Variance of one reading, in its unit squared: floor^2 + (share x value)^2 + mark^2 / 12.
 * @param mark distance of the marks it is read to, in its unit; 0: finer than matters
 * @example readingVariance('thigh', 20, 0.5, ASSUMED_ERRORS) // 0.8208
 */
export function readingVariance(site: SiteId, value: number, mark: number, model: ErrorModel): number {
  const { floor, share } = isFold(site) ? model.folds : model.girths
  return floor ** 2 + (share * value) ** 2 + mark ** 2 / 12
}

/**
 * Variance of a site's value at a visit without the day effect, in its unit squared: the mark found anew, and readings
 * that average out.
 */
export function siteVisitVariance(reading: number, readings: number, model: ErrorModel): number {
  return model.markFactor ** 2 * reading + reading / Math.max(1, readings)
}

/**
 * Variance of the mean of a week's weigh-ins, kg squared, days running on: correlated days average out less.
 * @param count weigh-ins in the mean; 1: a single one
 */
export function weighingVariance(weightKg: number, count: number, model: ErrorModel): number {
  const single = (model.weightShare * weightKg) ** 2
  let sum = count
  for (let lag = 1; lag < count; lag += 1) sum += 2 * (count - lag) * model.weightDayCorrelation ** lag
  return (single * sum) / count ** 2
}
