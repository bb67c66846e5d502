import { equationsFor, estimate, findEquation, type ConversionId, type Estimate, type Sex } from '../equations'
import {
  joinLog,
  policyOf,
  sessionState,
  type LoggedReading,
  type Reading,
  type SessionState,
  type Strike,
} from '../readings'
import type { FoldSiteId, Protocol } from '../sites'
import { lengthToCm, massToKg } from '../units'
import { ageInYears } from './age'
import { splitWeight, type Masses } from './masses'

/** What composition needs to know of a person. */
export interface Person {
  sex: Sex
  /** ISO date. */
  birthDate: string
  heightCm: number | null
}

/** Everything recorded at one check-in. */
export interface CheckinFacts {
  person: Person
  protocol: Protocol
  /** ISO instant. */
  startedAt: string
  readings: readonly Reading[]
  strikes: readonly Strike[]
}

/** What the coach chose for this client. */
export interface Choices {
  conversion: ConversionId
  /** Null: the equation made for this person's sex and this set of folds. */
  equationId: string | null
}

export const DEFAULT_CHOICES: Choices = { conversion: 'siri', equationId: null }

/** The computed result of a check-in. Every number unrounded; null where it cannot be said yet. */
export interface Composition {
  session: SessionState
  ageYears: number
  weightKg: number | null
  heightCm: number | null
  /** Sum of the protocol's folds, mm, once each has a value. */
  sumMm: number | null
  /** Sites without any reading, and sites whose readings have not settled. */
  missing: FoldSiteId[]
  unsettled: FoldSiteId[]
  estimate: Estimate | null
  masses: Masses | null
}

function lastLive(log: readonly LoggedReading[], site: 'weight' | 'height'): LoggedReading | null {
  return log.filter((reading) => reading.site === site && !reading.struck).at(-1) ?? null
}

function weightOf(log: readonly LoggedReading[]): number | null {
  const reading = lastLive(log, 'weight')
  return reading ? massToKg(reading.value, reading.unit === 'lb' ? 'lb' : 'kg') : null
}

function heightOf(log: readonly LoggedReading[], person: Person): number | null {
  const reading = lastLive(log, 'height')
  return reading ? lengthToCm(reading.value, reading.unit === 'in' ? 'in' : 'cm') : person.heightCm
}

/** From a check-in's facts to everything a page shows about it. The one entry the rest of the product calls. */
export function composeCheckin(facts: CheckinFacts, choices: Choices = DEFAULT_CHOICES): Composition {
  const { person, protocol } = facts
  const log = joinLog(facts.readings, facts.strikes)
  const session = sessionState(protocol, policyOf(protocol.policy), facts.readings, facts.strikes)
  const ageYears = ageInYears(person.birthDate, facts.startedAt)
  const weightKg = weightOf(log)
  const heightCm = heightOf(log, person)
  const missing = session.sites.filter((site) => site.status === 'empty').map((site) => site.site)
  const unsettled = session.sites
    .filter((site) => site.status === 'partial' || site.status === 'disputed')
    .map((site) => site.site)

  const folds = Object.fromEntries(session.sites.map((site) => [site.site, site.value ?? NaN]))
  const known = { ...folds, age: ageYears, weight: weightKg ?? NaN, height: heightCm ?? NaN }
  const chosen = choices.equationId ? findEquation(choices.equationId) : null
  const equation = chosen ?? equationsFor(person.sex, protocol.sites)[0] ?? null
  const result = equation ? estimate(equation, known, person.sex, choices.conversion) : null
  const percent = result && 'percent' in result ? result.percent : null

  return {
    session,
    ageYears,
    weightKg,
    heightCm,
    sumMm: missing.length > 0 ? null : session.sites.reduce((sum, site) => sum + (site.value ?? 0), 0),
    missing,
    unsettled,
    estimate: result,
    masses: percent !== null && weightKg !== null ? splitWeight(weightKg, percent) : null,
  }
}
