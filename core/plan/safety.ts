import { ageInYears } from '../calendar'
import type { SpanEnd } from '../composition/end-figures'
import { reachedOf } from '../composition'
import { ADULT_YEARS } from '../cautions'
import { fittingOf } from '../equations'
import { endFigures } from '../following/end-figures'
import { courseFindings, isPreparing, type Course, type Finding, type SafetyFacts } from '../safety'
import { isFold } from '../sites'
import type { PlanContext } from './limits'
import { aimAt, startOf, weekOf, type Target } from './target'

/**
 * Percent fat that limits look at: of the equation a person is followed with, else the lowest of the fitting ones. A
 * tracking number was made on nobody and feeds no limit. Null: none can be said.
 */
export function limitPercent(end: SpanEnd): number | null {
  const followed = reachedOf(end)
  if (followed && followed.equation.population !== 'tracking') return followed.percent
  const isAdult = end.result.ageYears >= ADULT_YEARS
  const fitting = fittingOf(end.result.estimates).flatMap(({ equation, percent, cautions }) =>
    equation.population !== 'tracking' && (equation.population === 'young') !== isAdult && cautions.length === 0
      ? [percent]
      : [],
  )
  return fitting.length > 0 ? Math.min(...fitting) : null
}

/** What the gate knows of a person at a check-in, as the record stands today. */
export function safetyOf({ start, person, today }: PlanContext): SafetyFacts {
  return {
    sex: person.sex,
    ageYears: ageInYears(person.birthDate, today),
    heightCm: start.result.heightCm ?? person.heightCm ?? null,
    weightKg: endFigures(start).weight?.value ?? null,
    percent: limitPercent(start),
    flags: person.flags ?? [],
    preparing: isPreparing(person.preparation, today),
  }
}

/** Body weight and percent at the end of a target at kept lean mass, as far as they can be said. */
function endOf(target: Target, context: PlanContext): { weightKg: number | null; percent: number | null } {
  const aim = aimAt(target.kind, target.value, context.start)
  const followed = reachedOf(context.start)
  const isTracked = followed?.equation.population === 'tracking'
  if (aim && !isTracked) return aim
  const weightKg = startOf('weight', context.start)?.value ?? null
  const percent = limitPercent(context.start)
  const leanKg = weightKg === null || percent === null ? null : weightKg * (1 - percent / 100)
  const at = (kg: number) => ({ weightKg: kg, percent: leanKg === null ? null : (100 * (kg - leanKg)) / kg })
  if (target.kind === 'weight') return at(target.value)
  if (target.kind === 'percent') return { weightKg: leanKg && leanKg / (1 - target.value / 100), percent: target.value }
  const fat = startOf('fat', context.start)?.value
  if (target.kind === 'fat' && weightKg !== null && fat !== undefined) return at(weightKg - fat + target.value)
  return { weightKg: null, percent: null }
}

/** Points of percent fat the fastest week takes at kept lean mass; null: not known. */
function weekPointsOf(target: Target, context: PlanContext, endPercent: number | null): number | null {
  if (target.kind === 'percent') return target.perWeek
  const from = startOf(target.kind, context.start)?.value
  const percent = limitPercent(context.start)
  if (from === undefined || percent === null || endPercent === null) return null
  const weeks = Math.max(1, Math.abs(target.value - from) / target.perWeek)
  return (percent - endPercent) / weeks
}

/** Where a target leads. */
export function courseOf(target: Target, context: PlanContext): Course {
  const from = startOf(target.kind, context.start)?.value ?? target.value
  const { weightKg, percent } = endOf(target, context)
  const folds = context.start.result.session.sites.filter(({ site, value }) => isFold(site) && value !== null).length
  return {
    startKg: startOf('weight', context.start)?.value ?? null,
    endKg: weightKg,
    endPercent: percent,
    weekKg: weekOf(target, context.start),
    weekPoints: weekPointsOf(target, context, percent),
    endFoldMm: target.kind === 'sum' && folds > 0 ? target.value / folds : null,
    direction: target.value < from ? 'loss' : 'gain',
  }
}

/** Whether a loss at a pace can be kept by this person at all, wherever it ends. */
export function canLoseAt({ kind, perWeek }: Pick<Target, 'kind' | 'perWeek'>, context: PlanContext): boolean {
  const from = startOf(kind, context.start)?.value
  if (from === undefined) return true
  const found = targetFindings({ kind, perWeek, value: from - perWeek }, context)
  return !found.some(({ code, outcome }) => code === 'pace' && outcome === 'stop')
}

/** What speaks for care or against a target, by the gate. */
export const targetFindings = (target: Target, context: PlanContext): Finding[] =>
  courseFindings(safetyOf(context), courseOf(target, context))
