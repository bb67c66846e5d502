import type { Day } from '../calendar'
import { cautionFacts, cautionsFor, ESSENTIAL_FAT, UNDERWEIGHT_BMI } from '../cautions'
import type { SpanEnd } from '../composition/end-figures'
import type { Person } from '../composition/facts'
import { FASTEST_KG, FASTEST_SHARE } from '../energy'
import { Z_95 } from '../error/interval'
import { formatMass, formatNumber, type Units } from '../units'
import { aimAt, startOf, weeksTo, type Target } from './target'

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

/** Checks the person alone, before anything is typed. */
function ofPerson({ start, person, today }: PlanContext) {
  const { estimate, indexes } = start.result
  const percent = estimate && 'percent' in estimate ? estimate.percent : null
  return cautionsFor(cautionFacts(person, today, { bmi: indexes.bmi, percent }))
}

/** Reasons for which no plan to lose is kept for this person, as sentences of the cautions that apply. */
export function lossRefusals(context: PlanContext): string[] {
  return ofPerson(context)
    .filter(({ effects }) => effects.includes('no-deficits'))
    .map(({ sentence }) => sentence)
}

/** Whether a target in percent, fat or weight may be set at all for this person. */
function shownRefusal(context: PlanContext): string | null {
  const found = ofPerson(context).find(
    ({ effects }) => effects.includes('neutral-mode') || effects.includes('no-percent'),
  )
  return found ? `Only a sum of folds can be planned. ${found.sentence}` : null
}

function essentialRefusal(percent: number, { person }: PlanContext): string | null {
  const { low } = ESSENTIAL_FAT[person.sex]
  const range = person.sex === 'male' ? 'men about 3 to 5 %' : 'women about 10 to 13 %'
  return percent < low
    ? `That is ${formatNumber(percent)} % fat at kept lean mass, below essential fat (${range}): refused.`
    : null
}

/** A plan of an adult that ends under a BMI of 18.5. */
function underweightRefusal(weightKg: number, { start, person }: PlanContext): string | null {
  const heightCm = start.result.indexes.bmi === null ? null : person.heightCm
  if (heightCm === null) return null
  const bmi = weightKg / (heightCm / 100) ** 2
  return bmi < UNDERWEIGHT_BMI
    ? `It would end at a BMI of ${formatNumber(bmi)}, under ${UNDERWEIGHT_BMI}: refused. A doctor or registered dietitian decides here.`
    : null
}

/** Loss of the first week in body weight at kept lean mass, kg; null where it cannot be said. */
export function firstWeekKg({ kind, value, perWeek }: Target, { start }: PlanContext): number | null {
  const from = startOf(kind, start)?.value
  if (from === undefined) return null
  const step = Math.min(perWeek, Math.abs(value - from)) * Math.sign(value - from)
  const [before, after] = [from, from + step].map((at) => aimAt(kind, at, start)?.weightKg ?? NaN)
  const change = (after ?? NaN) - (before ?? NaN)
  return Number.isFinite(change) ? change : kind === 'weight' || kind === 'fat' ? step : null
}

function paceRefusal(target: Target, context: PlanContext): string | null {
  const week = firstWeekKg(target, context)
  const weight = startOf('weight', context.start)?.value
  if (week === null || weight === undefined || week >= 0) return null
  const limit = Math.min(FASTEST_KG, FASTEST_SHARE * weight)
  const { units } = context
  // A limit met to the last digit that is typed is met.
  if (-week <= limit + 5e-4) return null
  return `That is ${formatMass(-week, units, 2)} ${units.mass} a week; no more than ${formatMass(limit, units, 2)} (0.9 kg or 1 % of body weight).`
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
  const refusals: Refusal[] = []
  if (value < from) {
    const [personal] = lossRefusals(context)
    if (personal) return [{ field: 'plan', sentence: `No plan to lose is kept. ${personal}` }]
  }
  const aim = aimAt(kind, value, context.start)
  if (kind === 'weight' && !aim && startOf('fat', context.start)) {
    refusals.push({ field: 'value', sentence: 'That is no more than the lean mass alone: refused.' })
  }
  const essential = aim && value < from ? essentialRefusal(aim.percent, context) : null
  if (essential) refusals.push({ field: 'value', sentence: essential })
  const thin = aim && value < from ? underweightRefusal(aim.weightKg, context) : null
  if (thin) refusals.push({ field: 'value', sentence: thin })
  const weeks = weeksTo(target, from)
  if (weeks > LONGEST_WEEKS) {
    refusals.push({
      field: 'perWeek',
      sentence: 'At this pace it takes more than two years: set a nearer target or check the pace.',
    })
  }
  const pace = paceRefusal(target, context)
  if (pace) refusals.push({ field: 'perWeek', sentence: pace })
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
  const { high } = ESSENTIAL_FAT[context.person.sex]
  const aim = aimAt(target.kind, target.value, context.start)
  if (aim && aim.percent < high && target.value < start.value) {
    notes.push('Close to essential fat: for a contest only, for a short time, and a medical matter.')
  }
  return notes
}
