import { addDays, daysBetween, type Day } from '../calendar'
import { conditionChanges, type Conditions } from '../composition/conditions'

/** A check-in as a challenge looks at it. */
export interface Measuring {
  id: string
  day: Day
  /** ISO instant it was begun. */
  startedAt: string
  protocolId: string
  assessorId: string | null
  caliperId: string | null
  conditions: Conditions
}

/** The first measuring lies within so many days of the start, the last of the end. */
export const WINDOW_DAYS = 7

/** The two measurings of somebody who takes part: the last before or nearest to the start, the newest since. */
export interface Measured<One extends Measuring> {
  first: One | null
  last: One | null
}

/**
 * Which check-ins a challenge stands on: the first is the nearest to the start within a week of it, the last the newest
 * after it, up to a week after the end.
 */
export function measuredFor<One extends Measuring>(
  checkins: readonly One[],
  { startsOn, endsOn }: { startsOn: Day; endsOn: Day },
): Measured<One> {
  const off = ({ day }: One) => Math.abs(daysBetween(startsOn, day))
  const first =
    [...checkins]
      .filter((one) => off(one) <= WINDOW_DAYS)
      .sort((a, b) => off(a) - off(b) || (a.startedAt < b.startedAt ? -1 : 1))[0] ?? null
  const last = first
    ? ([...checkins]
        .filter(
          (one) => one.startedAt > first.startedAt && one.day > first.day && one.day <= addDays(endsOn, WINDOW_DAYS),
        )
        .sort((a, b) => (a.startedAt < b.startedAt ? 1 : -1))[0] ?? null)
    : null
  return { first, last }
}

/** What was not as it has to be between the two measurings. */
export type Breach = 'set' | 'assessor' | 'caliper' | 'conditions' | 'not-blind'

/** What sets the last measuring apart from the first: other hands, another caliper, another set, other conditions. */
export function breachesOf(first: Measuring, last: Measuring, enteredAt: string): Breach[] {
  return [
    ...(first.protocolId === last.protocolId ? [] : (['set'] as const)),
    ...(first.assessorId !== null && first.assessorId === last.assessorId ? [] : (['assessor'] as const)),
    ...(first.caliperId !== null && first.caliperId === last.caliperId ? [] : (['caliper'] as const)),
    ...(conditionChanges(first.conditions, last.conditions).length === 0 ? [] : (['conditions'] as const)),
    // From the entry on the log sheet hides what was read before.
    ...(last.startedAt > enteredAt ? [] : (['not-blind'] as const)),
  ]
}

/** Each in a few words. */
export const BREACH_WORDS: Readonly<Record<Breach, string>> = {
  set: 'another set of sites',
  assessor: 'another or no assessor noted',
  caliper: 'another or no caliper noted',
  conditions: 'other conditions',
  'not-blind': 'begun before the entry, not blind',
}

/** Days a challenge lasts (common practice: four to twelve weeks). */
export const CHALLENGE_DAYS = { low: 14, high: 182 } as const
