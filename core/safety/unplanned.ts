import { fixed } from '../units/round'
import { daysBetween, type Day } from '../calendar'
import { LIMITS } from './limits'
import { finding, type Finding } from './verdict'

/** Days a loss has to be seen over before its pace says anything: less is water. */
const LEAST_DAYS = 14
/** And the longest a pace is taken over, days. */
const PACE_DAYS = 56
/** A loss smaller than this share is within what water and a scale do. */
const LEAST_SHARE = 0.02

/** A weight on a day. */
export interface WeightOn {
  day: Day
  kg: number
}

/** Days on which a loss was planned, both included. */
export interface Planned {
  from: Day
  to: Day
}

/**
 * Weight lost without a plan: 5 % within six months, or more than 1 % a week over two to eight weeks. Looks at the newest
 * weight against every earlier one of that time.
 * @param weights in any order
 * @param planned when a loss was planned: such days do not count
 * @returns a caution to see a doctor; null: nothing of the kind
 */
export function unplannedLoss(weights: readonly WeightOn[], planned: readonly Planned[] = []): Finding | null {
  const sorted = [...weights].sort((a, b) => (a.day < b.day ? -1 : 1))
  const now = sorted.at(-1)
  if (!now) return null
  const { share, days: longest, weekShare } = LIMITS.unplanned.value
  for (const then of sorted.slice(0, -1)) {
    const days = daysBetween(then.day, now.day)
    if (days > longest || days < LEAST_DAYS) continue
    if (planned.some(({ from, to }) => from < now.day && to > then.day)) continue
    const lost = (then.kg - now.kg) / then.kg
    const isFast = days <= PACE_DAYS && lost >= LEAST_SHARE && lost > (weekShare * days) / 7
    if (lost >= share || isFast) {
      const weeks = Math.round(days / 7)
      return finding(
        'caution',
        'unplanned-loss',
        `Weight fell by ${fixed(100 * lost, 1)} % in ${weeks} weeks without a plan to lose. That is worth a doctor’s look: please say so kindly.`,
        { share: lost, days },
      )
    }
  }
  return null
}
