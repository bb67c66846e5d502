import { isPersonal } from './person'
import type { Finding, GateCode } from './verdict'

/** Something that stood and does not count until a coach decides. */
export interface Suspension {
  about: 'plan' | 'challenge' | 'daily-weight'
  /** The plan, the entry or the link. */
  subjectId: string
  /** A challenge's name; empty otherwise. */
  name: string
  code: GateCode
  /** Why, for the coach. */
  sentence: string
  /** Whether a coach may let it go on, with a reason on record; a stop never goes on. */
  mayGoOn: boolean
}

/**
 * What suspends something that was agreed: a stop now, or a caution about the person that was not there when it was agreed and that no
 * coach has decided on since.
 * @param then what the gate said when it was agreed
 * @param decided codes a coach has decided on
 */
export function suspendedBy(
  now: readonly Finding[],
  then: readonly Finding[],
  decided: readonly string[] = [],
): Finding | null {
  const stop = now.find(({ outcome }) => outcome === 'stop')
  if (stop) return stop
  // Where a course leads shifts with every check-in; a caution about the person is news.
  const isNew = ({ code }: Finding) =>
    isPersonal(code) && !decided.includes(code) && !then.some((one) => one.code === code)
  return now.find(isNew) ?? null
}
