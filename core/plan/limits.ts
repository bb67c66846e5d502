import type { Day } from '../calendar'
import { cautionFacts, cautionsFor } from '../cautions'
import { reachedOf } from '../composition'
import type { SpanEnd } from '../composition/end-figures'
import type { Person } from '../composition/facts'
import { Z_95 } from '../error/interval'
import { personFindings, type Finding } from '../safety'
import type { Units } from '../units'
import { safetyOf, targetFindings } from './safety'
import { aimAt, startOf, weekOf, weeksTo, type Target } from './target'

/** Longest plan, weeks: beyond two years a pace is a wish. */
export const LONGEST_WEEKS = 104

/** A reason not to keep a plan, at the field it is about; `plan`: whatever is typed. */
export interface Refusal {
  field: 'plan' | 'kind' | 'value' | 'perWeek'
  sentence: string
}

/** What a plan is checked against. */
export interface PlanContext {
  /** The check-in it starts from. */
  start: SpanEnd
  /** As on record now, with the flags noted since. */
  person: Person
  /** Today where the studio is: the person's age counts today. */
  today: Day
  units: Units
}

/** Reasons for which no plan to lose is kept for this person, as sentences. */
export function lossRefusals(context: PlanContext): string[] {
  return personFindings(safetyOf(context))
    .filter(({ outcome }) => outcome === 'stop')
    .map(({ sentence }) => sentence)
}

/** Whether a target in percent, fat or weight may be set at all for this person. */
function shownRefusal({ start, person, today }: PlanContext): string | null {
  const { estimate, indexes } = start.result
  const percent = estimate && 'percent' in estimate ? estimate.percent : null
  const found = cautionsFor(cautionFacts(person, today, { bmi: indexes.bmi, percent })).find(
    // Under 18 nothing is planned at all: the gate says so.
    ({ code, effects }) => code !== 'under-18' && (effects.includes('neutral-mode') || effects.includes('no-percent')),
  )
  return found ? `Only a sum of folds can be planned. ${found.sentence}` : null
}

/** A target in a number that was made on nobody: it can be followed, and no plan rests on it. */
function trackedRefusal({ kind }: Target, { start }: PlanContext): string | null {
  const isTracked = reachedOf(start)?.equation.population === 'tracking'
  return isTracked && (kind === 'percent' || kind === 'fat')
    ? 'This percent is a tracking number without a sample: plan a sum of folds or a weight.'
    : null
}

/** Loss of the first week in body weight at kept lean mass, kg; null where it cannot be said. */
export const firstWeekKg = (target: Target, { start }: PlanContext): number | null => weekOf(target, start)

/** The field of the form a finding is about. */
function fieldOf({ code }: Finding): Refusal['field'] {
  if (code === 'pace' || code === 'gain') return 'perWeek'
  return ['bmi-end', 'percent-end', 'folds-end', 'gain-whole'].includes(code) ? 'value' : 'plan'
}

/** Everything that speaks against keeping a target, first the person, then the fields. Empty: it can be kept. */
export function planRefusals(target: Target, context: PlanContext): Refusal[] {
  const { kind, value } = target
  const from = startOf(kind, context.start)?.value
  const unshown = kind === 'sum' ? null : shownRefusal(context)
  if (unshown) return [{ field: 'kind', sentence: unshown }]
  if (from === undefined) {
    const what = { percent: 'percent', fat: 'fat mass', weight: 'weight', sum: 'sum of folds' }[kind]
    return [{ field: 'kind', sentence: `The check-in it starts from has no ${what}.` }]
  }
  if (Math.abs(value - from) < 0.05) return [{ field: 'value', sentence: 'That is where it stands already.' }]
  const tracked = trackedRefusal(target, context)
  if (tracked) return [{ field: 'kind', sentence: tracked }]
  const stops = targetFindings(target, context).filter(({ outcome }) => outcome === 'stop')
  const [personal] = stops.filter((one) => fieldOf(one) === 'plan')
  if (personal)
    return [{ field: 'plan', sentence: `No plan to ${value < from ? 'lose' : 'gain'} is kept. ${personal.sentence}` }]
  const refusals: Refusal[] = stops.map((one) => ({ field: fieldOf(one), sentence: one.sentence }))
  const aim = aimAt(kind, value, context.start)
  if (kind === 'weight' && !aim && startOf('fat', context.start)) {
    refusals.push({ field: 'value', sentence: 'That is no more than the lean mass alone: refused.' })
  }
  const weeks = weeksTo(target, from)
  if (weeks > LONGEST_WEEKS) {
    refusals.push({
      field: 'perWeek',
      sentence: 'At this pace it takes more than two years: set a nearer target or check the pace.',
    })
  }
  return refusals
}

/** What should be known before keeping a target that is not refused. */
export function planNotes(target: Target, context: PlanContext): string[] {
  const start = startOf(target.kind, context.start)
  if (!start) return []
  const notes: string[] = []
  const tell = Z_95 * Math.sqrt(2 * start.variance)
  if (Math.abs(target.value - start.value) < tell) {
    notes.push('So small a change is within the error of measuring: reaching it could not be told.')
  }
  for (const { outcome, sentence } of targetFindings(target, context)) if (outcome === 'caution') notes.push(sentence)
  return notes
}
