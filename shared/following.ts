import { type SpanEnd } from '../core/composition'
import { followedEnd } from '../core/following'
import { errorLookup, type ErrorLookup } from '../core/error'
import type { WeighIn } from '../core/trend/seven-day'
import { massToKg } from '../core/units'
import { checkinFacts } from './checkin-facts'
import type { CheckinRecord } from './schemas/checkin'
import type { AssessorErrors, ClientHistory, WeighInRecord } from './schemas/following'

/** A check-in of a client's history as an end of a span, with its record. */
export interface FollowedEnd extends SpanEnd {
  record: CheckinRecord
}

/** A diary as core takes it: kg. */
export function diaryOf(weighIns: readonly WeighInRecord[]): WeighIn[] {
  return weighIns.map(({ day, value, unit }) => ({ day, weightKg: massToKg(value, unit) }))
}

/** Assessors' errors as core looks them up; the prior where nothing is known. */
export function lookupErrors(errors: readonly AssessorErrors[]): ErrorLookup {
  return errorLookup(
    new Map(errors.map(({ assessorId, sites }) => [assessorId, new Map(sites.map(({ site, ...own }) => [site, own]))])),
  )
}

/** The facts ends are made from. */
export type FollowedFacts = Pick<ClientHistory, 'client' | 'calipers' | 'choices' | 'weighIns'> &
  Partial<Pick<ClientHistory, 'hands'>>

/**
 * Check-ins as ends of spans, in the order given. Each is composed when it is first asked what it says: a page that shows
 * two of a long history does not wait for all.
 */
export function followedEnds(
  checkins: readonly CheckinRecord[],
  { client, calipers, choices, weighIns, hands = [] }: FollowedFacts,
): FollowedEnd[] {
  const diary = diaryOf(weighIns)
  const chosen = choices[0]?.choices
  const following = { weighIns: diary, ...(chosen ? { choices: chosen } : {}) }
  return checkins.map((record) => {
    let made: SpanEnd | undefined
    const end = () => (made ??= followedEnd(checkinFacts(record, client, calipers), following))
    return {
      record,
      get facts() {
        return end().facts
      },
      get choices() {
        return end().choices
      },
      get result() {
        return end().result
      },
      get week() {
        return end().week
      },
      ...(hands.length > 0 ? { hands } : {}),
    }
  })
}
