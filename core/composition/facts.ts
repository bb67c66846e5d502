import type { Day } from '../calendar'
import type { Flag } from '../cautions'
import type { ConversionId } from '../equations/density'
import type { Sex } from '../equations/equation'
import type { Reading, SessionPolicies, Skip, Strike } from '../readings'
import type { Protocol } from '../protocols'
import type { Conditions } from './conditions'

/** What composition needs to know of a person. */
export interface Person {
  sex: Sex
  /** ISO date. */
  birthDate: string
  heightCm: number | null
  athlete?: boolean | null
  ancestry?: string | null
  flags?: readonly Flag[]
  consentOn?: string | null
  guardianConsent?: boolean
}

/** Everything recorded at one check-in. */
export interface CheckinFacts {
  person: Person
  protocol: Protocol
  /** ISO instant. */
  startedAt: string
  /** The calendar day it was where the studio is. Without one: the day in UTC. */
  day?: Day
  /** Age and height to compute on, where it is held against another visit: the newest ones. */
  terms?: { ageYears: number; heightCm: number | null }
  readings: readonly Reading[]
  strikes: readonly Strike[]
  skips?: readonly Skip[]
  policies?: SessionPolicies
  caliper?: { id: string; daysSinceCheck: number | null; deviationMm: number | null } | null
  assessorId?: string
  /** The side of the body folds were taken on; without one the right. */
  side?: 'right' | 'left'
  /** Conditions of the visit, answers by their ids; what differs is said in a span. */
  conditions?: Conditions
}

/** The calendar day of a check-in: what ages, weeks and cadences are counted by. */
export function dayOf({ day, startedAt }: Pick<CheckinFacts, 'day' | 'startedAt'>): Day {
  return day ?? startedAt.slice(0, 10)
}

/** What the coach chose for this client. */
export interface Choices {
  conversion: ConversionId
  /** Null: the equation made for this person's sex and this set of sites. */
  equationId: string | null
  /** Girths rounded as military instructions do. */
  militaryRounding?: boolean
  /** The published term for Black athletes, where the record carries it. */
  blackAthleteTerm?: boolean
}

export const DEFAULT_CHOICES: Choices = { conversion: 'siri', equationId: null }
