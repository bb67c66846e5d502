import { fixed } from '../units/round'
import type { Flag } from '../cautions/flags'
import type { Sex } from '../equations/equation'
import { bmi } from '../equations/measures'
import { massToKg } from '../units'

/** What a finding does: `caution` is shown beside, `stop` can never be stored. */
export type Outcome = 'caution' | 'stop'

/** What speaks for care or against doing something, with the facts that led to it. */
export interface Finding {
  outcome: Outcome
  code: GateCode
  sentence: string
  facts: Readonly<Record<string, number | string>>
}

export type GateCode =
  | Flag
  | 'under-18'
  | 'unplanned-loss'
  | 'preparation'
  | 'bmi-now'
  | 'bmi-end'
  | 'older'
  | 'percent-end'
  | 'percent-now'
  | 'folds-end'
  | 'pace'
  | 'gain'
  | 'gain-whole'
  | 'floor'
  | 'resting'
  | 'deficit'
  | 'surplus'
  | 'availability'
  | 'bmi-challenge'
  | 'percent-challenge'

/** The answer to a door. */
export interface Verdict {
  outcome: 'allow' | Outcome
  findings: Finding[]
}

/** What the gate knows of a person. Weight and height are enough for it: nothing hangs on a percentage being known. */
export interface SafetyFacts {
  sex: Sex
  ageYears: number
  heightCm: number | null
  weightKg: number | null
  /** Of the equation the person is followed with, else the lowest of the fitting ones; never of a tracking number. */
  percent: number | null
  flags: readonly Flag[]
  /** A preparation is under way with a clearance that covers it (`isPreparing`). */
  preparing?: boolean
}

/** Said wherever a stop leaves the decision to others. */
export const REFER = 'A doctor or registered dietitian decides here, not a coach.'
export const one = (value: number) => fixed(value, 1)
export const whole = (value: number) => Math.round(value).toLocaleString('en-US')

/** The strictest of some findings. */
export function verdictOf(findings: readonly Finding[]): Verdict {
  const has = (outcome: Outcome) => findings.some((finding) => finding.outcome === outcome)
  return { outcome: has('stop') ? 'stop' : has('caution') ? 'caution' : 'allow', findings: [...findings] }
}

export const finding = (outcome: Outcome, code: GateCode, sentence: string, facts: Finding['facts'] = {}): Finding => ({
  outcome,
  code,
  sentence,
  facts,
})

/** A mass in both units people read. @example massSaid(0.75) // '0.75 kg (1.65 lb)' */
export const massSaid = (kg: number, decimals = 2) =>
  `${fixed(kg, decimals)} kg (${fixed(kg / massToKg(1, 'lb'), decimals)} lb)`

/** Body mass index, kg/m²; null where weight or height is not known. */
export function bmiOf(weightKg: number | null, heightCm: number | null): number | null {
  return weightKg === null || heightCm === null ? null : bmi(weightKg, heightCm)
}

/** Limits met to the last digit that is typed are met. */
export const SLACK = 5e-4
