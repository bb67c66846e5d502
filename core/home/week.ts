import { addDays, type Day } from '../calendar'
import { answers, type Condition } from '../composition/conditions'
import { sevenDayMean, type WeekMean, type WeighIn } from '../trend'

/** What can differ in a week at home; nothing has to be said. */
export const HAND_IN_CONDITIONS: readonly Condition[] = [
  { id: 'sleep', label: 'Sleep', options: answers({ 'as-ever': 'as ever', short: 'shorter', long: 'longer' }) },
  { id: 'training', label: 'Training', options: answers({ 'as-ever': 'as ever', less: 'less', more: 'more' }) },
  { id: 'food', label: 'Eating', options: answers({ 'as-ever': 'as ever', out: 'out more', salty: 'saltier' }) },
  {
    id: 'health',
    label: 'Health',
    options: answers({ well: 'well', ill: 'ill', period: 'period', travel: 'on the road' }),
  },
  { id: 'scale', label: 'Scale', options: answers({ same: 'the same', other: 'another one' }) },
]

/** How clothes fit against last week. */
export const FITS = ['looser', 'same', 'tighter'] as const

/** A week's mean weight with what it is against the week before. */
export interface Week extends WeekMean {
  /** kg; null where the week before has too few weigh-ins. */
  sinceLast: number | null
}

/** The mean of the seven days up to a day, against the seven before; null with fewer than three weigh-ins. */
export function weekOf(weighIns: readonly WeighIn[], day: Day): Week | null {
  const now = sevenDayMean(weighIns, day)
  if (!now) return null
  const before = sevenDayMean(weighIns, addDays(day, -7))
  return { ...now, sinceLast: before ? now.weightKg - before.weightKg : null }
}
