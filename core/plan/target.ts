import { addDays, type Day } from '../calendar'
import { estimateInputs, type Measured, type SpanEnd } from '../composition/end-figures'
import { compute } from '../equations/estimate'
import type { Measures } from '../equations/equation'
import { endFigures } from '../following/end-figures'
import { asSite, isFold } from '../sites'

/** What a target is set in: points of percent fat, fat mass, weight at kept lean mass, or the sum of folds. */
export const TARGET_KINDS = ['percent', 'fat', 'weight', 'sum'] as const
export type TargetKind = (typeof TARGET_KINDS)[number]

/** A target and how fast it is to be reached. */
export interface Target {
  kind: TargetKind
  /** Percent in points, fat and weight in kg, the sum in mm. */
  value: number
  /** Pace, above zero, in the same unit a week. */
  perWeek: number
}

/** A body at kept lean mass. */
export interface Aim {
  weightKg: number
  fatKg: number
  percent: number
}

/** What a target of this kind starts from at a check-in, with its measuring error; null where it was not measured. */
export function startOf(kind: TargetKind, end: SpanEnd): Measured | null {
  return endFigures(end)[kind]
}

/** Percent the chosen equation gives when every fold of a check-in changes by the same share; null where it gives none. */
function percentAtSum(end: SpanEnd, sumMm: number): number | null {
  const { sumMm: own } = end.result
  const inputs = estimateInputs(end)
  if (!inputs || !own) return null
  const scaled = Object.entries(inputs.measures).map(([measure, value]) => {
    const site = asSite(measure)
    return [measure, site && isFold(site) ? (value * sumMm) / own : value] as const
  })
  const found = compute(inputs.reached.equation, Object.fromEntries(scaled) as Measures, inputs.settings)
  return 'percent' in found ? found.percent : null
}

/**
 * The body a target stands for when lean mass is kept: goal weight = FFM / (1 - target). A sum of folds goes through
 * the equation of the check-in. Null where the check-in holds no lean mass, or no such body can be.
 */
export function aimAt(kind: TargetKind, value: number, end: SpanEnd): Aim | null {
  const lean = endFigures(end).lean?.value
  if (lean === undefined) return null
  if (kind === 'weight') return value > lean ? bodyOf(lean, value) : null
  if (kind === 'fat') return bodyOf(lean, lean + value)
  const percent = kind === 'percent' ? value : percentAtSum(end, value)
  return percent === null || percent >= 100 ? null : bodyOf(lean, lean / (1 - percent / 100))
}

function bodyOf(leanKg: number, weightKg: number): Aim {
  const fatKg = weightKg - leanKg
  return { weightKg, fatKg, percent: (100 * fatKg) / weightKg }
}

/** Weeks from start to target at the target's pace. */
export function weeksTo({ value, perWeek }: Pick<Target, 'value' | 'perWeek'>, start: number): number {
  return Math.abs(value - start) / perWeek
}

/** The day a number of weeks after another, a part of a day counted whole. */
export function dayAfter(from: Day, weeks: number): Day {
  return addDays(from, Math.ceil(weeks * 7 - 1e-9))
}

/** Weeks kept in hand before a day that will not move, a race or a show (common practice). */
export const SLACK_WEEKS = 1

/** Latest day to start on for a target that takes these weeks and is wanted on a day, with a week's slack. */
export function latestStart(by: Day, weeks: number): Day {
  return addDays(by, -Math.ceil((weeks + SLACK_WEEKS) * 7 - 1e-9))
}

/** Loss (below zero) or gain of the first week in body weight at kept lean mass, kg; null where it cannot be said. */
export function weekOf({ kind, value, perWeek }: Target, start: SpanEnd): number | null {
  const from = startOf(kind, start)?.value
  if (from === undefined) return null
  const step = Math.min(perWeek, Math.abs(value - from)) * Math.sign(value - from)
  const [before, after] = [from, from + step].map((at) => aimAt(kind, at, start)?.weightKg ?? NaN)
  const change = (after ?? NaN) - (before ?? NaN)
  return Number.isFinite(change) ? change : kind === 'weight' || kind === 'fat' ? step : null
}
