import type { Measured } from '../composition/end-figures'
import type { ChosenActivity } from '../composition/facts'

/** A day's work beside training, with the factor it stands for (FAO/WHO/UNU 2004, rounded; recalled). */
export const WORK = [
  { id: 'seated', factor: 1.4, name: 'Seated', note: 'desk or driving, little walking' },
  { id: 'standing', factor: 1.55, name: 'On the feet', note: 'shop, teaching, coaching' },
  { id: 'walking', factor: 1.7, name: 'Moving', note: 'nursing, post, building site in part' },
  { id: 'heavy', factor: 1.9, name: 'Heavy', note: 'farm, forest, loading by hand' },
] as const
export type WorkId = (typeof WORK)[number]['id']

/** Whole-day factors in plain words, training in them (common practice). */
export const FACTORS = [
  { factor: 1.2, name: 'Hardly any', note: 'mostly lying or sitting' },
  { factor: 1.375, name: 'Light', note: 'training on one to three days a week' },
  { factor: 1.55, name: 'Moderate', note: 'three to five days' },
  { factor: 1.725, name: 'Much', note: 'six or seven days' },
  { factor: 1.9, name: 'Very much', note: 'twice a day, or heavy work besides' },
] as const

/** Bounds of a factor that is taken. */
export const FACTOR_RANGE = { low: 1.1, high: 2.6 } as const

/** Cost of an hour of training against resting: rowing, lifting, running taken together (Compendium of Physical Activities, rounded; recalled). */
export const TRAINING_TIMES = 6.5

/** How far a factor that was chosen may be off, standard deviation (assumed). */
const FACTOR_SD = 0.1

/** How active somebody is: a factor, or work and hours of training a week. */
export type Activity = ChosenActivity

/**
 * Daily expenditure as a multiple of resting: chosen, or by the factorial method, each hour at its own cost.
 * @throws RangeError for a kind of work that is not known
 * @example factorOf({ kind: 'hours', work: 'seated', trainingHours: 7 }).value // 1.6125
 */
export function factorOf(activity: Activity): Measured {
  if (activity.kind === 'factor') return { value: activity.factor, variance: FACTOR_SD ** 2 }
  const work = WORK.find(({ id }) => id === activity.work)
  if (!work) throw new RangeError(`No such work: ${activity.work}.`)
  const value = work.factor + ((activity.trainingHours / 7) * (TRAINING_TIMES - work.factor)) / 24
  return { value, variance: FACTOR_SD ** 2 }
}

/** Daily expenditure from resting and a factor, kcal a day; their errors together. */
export function dailyOf(resting: Measured, factor: Measured): Measured {
  return {
    value: resting.value * factor.value,
    variance:
      factor.value ** 2 * resting.variance + resting.value ** 2 * factor.variance + resting.variance * factor.variance,
  }
}
