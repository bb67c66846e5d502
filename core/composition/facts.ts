import type { Flag } from '../cautions'
import type { ConversionId } from '../equations/density'
import type { Sex } from '../equations/equation'
import type { Reading, SessionPolicies, Skip, Strike } from '../readings'
import type { Protocol } from '../sites'

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
  readings: readonly Reading[]
  strikes: readonly Strike[]
  skips?: readonly Skip[]
  policies?: SessionPolicies
  caliper?: { id: string; daysSinceCheck: number | null; deviationMm: number | null } | null
  assessorId?: string
  /** Conditions of the visit by name: "before training", "skin dry"; what differs is said in a span. */
  conditions?: Readonly<Record<string, string>>
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
