import type { TargetKind } from '#core/plan'
import { kgToMass, massToKg, parseMass, parseNumber, type Units } from '#core/units'
import { unitOfTarget } from '#shared/plan'
import { planInput, type PlanInput, type TargetUnit } from '#shared/schemas/plan'

/** A plan as typed: numbers are text, so that nothing typed is lost by being wrong. */
export interface TypedPlan {
  checkinId: string
  kind: TargetKind
  value: string
  perWeek: string
  byDay: string
}

/** What was typed as a plan, with a sentence for each field that cannot be read; null while something is missing. */
export interface ReadPlan {
  plan: Omit<PlanInput, 'id'> | null
  problems: Partial<Record<'value' | 'perWeek' | 'byDay', string>>
}

interface Amount {
  value: number
  unit: TargetUnit
}

const PLAIN = 'Please write one number, such as 14 or 0.5.'

function amount(text: string, kind: TargetKind, units: Units): Amount | { problem: string } {
  const unit = unitOfTarget(kind, units)
  if (unit === 'kg' || unit === 'lb') {
    const parsed = parseMass(text, unit)
    return parsed.kind === 'value' ? { value: parsed.value, unit: parsed.unit } : { problem: parsed.sentence }
  }
  const value = parseNumber(text.replace(/(%|mm|points?)\s*$/i, ''))
  return value >= 0 ? { value, unit } : { problem: PLAIN }
}

function inUnit({ value, unit }: Amount, wanted: TargetUnit): number {
  if (unit === wanted) return value
  return kgToMass(massToKg(value, unit === 'lb' ? 'lb' : 'kg'), wanted === 'lb' ? 'lb' : 'kg')
}

/**
 * Reads a typed plan.
 * @param id any id: only what was typed is checked
 */
export function readPlan(typed: TypedPlan, units: Units, id: string): ReadPlan {
  const problems: ReadPlan['problems'] = {}
  const read = (field: 'value' | 'perWeek') => {
    if (typed[field].trim() === '') return null
    const found = amount(typed[field], typed.kind, units)
    if ('value' in found) return found
    problems[field] = found.problem
    return null
  }
  const [target, pace] = [read('value'), read('perWeek')]
  if (!target || !pace) return { plan: null, problems }
  const found = planInput.safeParse({
    id,
    checkinId: typed.checkinId,
    kind: typed.kind,
    value: target.value,
    perWeek: inUnit(pace, target.unit),
    unit: target.unit,
    byDay: typed.byDay || null,
  })
  if (found.success) {
    const { id: _, ...plan } = found.data
    return { plan, problems }
  }
  for (const { path, message } of found.error.issues) {
    const [field] = path
    if (field === 'value' || field === 'perWeek' || field === 'byDay') problems[field] ??= message
  }
  return { plan: null, problems }
}

/** Paces within reach of one press, in the unit of the target a week. */
export function paces(kind: TargetKind, units: Units): readonly string[] {
  if (kind === 'percent') return ['0.25', '0.5', '1']
  if (kind === 'sum') return ['1', '2', '3']
  return units.mass === 'kg' ? ['0.2', '0.4', '0.6'] : ['0.5', '1', '1.5']
}
