import { daysBetween, type Day } from '../core/calendar'
import type { CheckinFacts } from '../core/composition/facts'
import { faultOf, type Correction } from '../core/devices/block'
import { sessionPolicies } from '../core/readings'
import { type SiteId } from '../core/sites'
import { findProtocol, protocolFor, PROTOCOLS, type Protocol } from '../core/protocols'
import type { Caliper } from './schemas/caliper'
import type { CheckinRecord } from './schemas/checkin'
import type { Client } from './schemas/client'

/** The protocol a record names, for a turn of a study its sites; the seven folds for one no longer known. */
export function protocolOf({ protocolId, studySites }: Pick<CheckinRecord, 'protocolId' | 'studySites'>): Protocol {
  const found = findProtocol(protocolId) ?? PROTOCOLS['laboratory-7']
  return studySites ? { ...found, sites: studySites } : found
}

/** A caliper with the age of its last check on a day, as core's cautions take it. */
export function caliperFacts(used: Caliper, day: Day): NonNullable<CheckinFacts['caliper']> {
  const { id, checkedOn, deviationMm, pressure = null } = used
  const fault = faultOf({ deviationMm, pressure, corrected: correctionOn(used, day) !== null })
  return { id, deviationMm, fault, daysSinceCheck: checkedOn ? daysBetween(checkedOn, day) : null }
}

/** The correction of a caliper that stood on a day; null: none. */
export function correctionOn({ corrections }: Pick<Caliper, 'corrections'>, day: Day): Correction | null {
  return corrections.findLast(({ fromDay }) => fromDay <= day)?.correction ?? null
}

/** A stored check-in as the facts core composes. `wished`: sites beyond what this person's equations need. Without `calipers` the caliper is known by its id only. */
export function checkinFacts(
  record: CheckinRecord,
  person: Client,
  calipers?: readonly Caliper[],
  wished: readonly SiteId[] = [],
): CheckinFacts {
  const { startedAt, day, readings, strikes, skips, conditions, assessorId, caliperId, policies } = record
  const used = calipers?.find(({ id }) => id === caliperId)
  const correction = used && correctionOn(used, day)
  return {
    person,
    // A study asks everybody the same.
    protocol: record.studySites
      ? protocolOf(record)
      : protocolFor(protocolOf(record), person.sex, [...wished, ...readings.map(({ site }) => site)]),
    startedAt,
    day,
    side: record.side,
    readings,
    strikes,
    skips,
    conditions,
    policies: { ...sessionPolicies(policies), ...(used ? { markMm: used.resolutionMm } : {}) },
    ...(assessorId ? { assessorId } : {}),
    ...(caliperId ? { caliperId } : {}),
    ...(correction ? { correction } : {}),
    ...(used ? { caliper: caliperFacts(used, day) } : {}),
  }
}
