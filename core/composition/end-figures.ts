import type { KnownHand } from '../error/hands'
import type { EstimateSettings, Reached } from '../equations/estimate'
import type { Measures } from '../equations/equation'
import type { Composition } from './checkin'
import { optionsOf, DEFAULT_CHOICES, type CheckinFacts, type Choices } from './facts'

/** A value with the variance of its measuring, in its unit squared. */
export interface Measured {
  value: number
  variance: number
}

/** One end of a span: a check-in with its result and, where weighed daily, its week's mean. */
export interface SpanEnd {
  facts: CheckinFacts
  result: Composition
  choices?: Choices
  week?: { weightKg: number; count: number }
  /** What the studio's studies say about assessors and calipers, oldest first. */
  hands?: readonly KnownHand[]
}

/** Weight at the visit, kg. The mean of its week is a figure of its own: what a check-in says never hangs on another. */
export function weightOf(end: SpanEnd): number | null {
  return end.result.weightKg
}

/** The chosen equation's answer where it reached a percent. */
export function reachedOf({ result }: SpanEnd): Reached | null {
  const { estimate } = result
  return estimate && 'percent' in estimate ? estimate : null
}

/** The chosen equation's measures and settings at a check-in; null without a percent. */
export function estimateInputs(
  end: SpanEnd,
): { reached: Reached; measures: Measures; settings: EstimateSettings } | null {
  const reached = reachedOf(end)
  if (!reached) return null
  const { person } = end.facts
  const { ageYears, values, heightCm, weightKg } = end.result
  const choices = end.choices ?? DEFAULT_CHOICES
  const measures = { ...values, age: ageYears, height: heightCm ?? NaN, weight: weightKg ?? NaN } as Measures
  return {
    reached,
    measures,
    settings: { person, conversion: choices.conversion, options: optionsOf(person, choices) },
  }
}
