import type { Day } from '../calendar'
import type { Flag } from '../cautions'
import type { CaliperFault, Correction } from '../devices/block'
import type { ConversionId } from '../equations/density'
import type { FormulaOptions, Sex } from '../equations/equation'
import type { Reading, SessionPolicies, Skip, Strike } from '../readings'
import type { Protocol } from '../protocols'
import type { Preparation } from '../safety/preparation'
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
  preparation?: Preparation | null
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
  caliper?: { id: string; daysSinceCheck: number | null; deviationMm: number | null; fault?: CaliperFault } | null
  /** What its caliper is known to read too much: taken off every fold's value. */
  correction?: Correction
  /** Which caliper it was, also where nothing more is known of it. */
  caliperId?: string
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

/** Which caliper a check-in was measured with; null: not noted. */
export function caliperOf({ caliperId, caliper }: Pick<CheckinFacts, 'caliperId' | 'caliper'>): string | null {
  return caliperId ?? caliper?.id ?? null
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
  /** The abdomen of Tran's and Weltman's equations as the mean of two levels, where both were taken. */
  abdomenOfTwo?: boolean
  /** How active the client is, for daily expenditure; without it nothing is said of it. */
  activity?: ChosenActivity
}

/** A factor of resting, or work and hours of training a week (see core/energy). */
export type ChosenActivity =
  | { kind: 'factor'; factor: number }
  | { kind: 'hours'; work: 'seated' | 'standing' | 'walking' | 'heavy'; trainingHours: number }

/** What the choices mean to a formula for this person. */
export function optionsOf({ ancestry }: Person, choices: Choices): FormulaOptions {
  return {
    blackAthleteTerm: choices.blackAthleteTerm === true && ancestry === 'black',
    abdomenOfTwo: choices.abdomenOfTwo === true,
  }
}

export const DEFAULT_CHOICES: Choices = { conversion: 'siri', equationId: null }
