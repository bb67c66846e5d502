import { dayOf } from '../composition/facts'
import { expectedCourse, intakeLimits, type Limit } from '../energy'
import { endFigures } from '../following'
import { dynamicCourse, forecastStart, type PlanEnergy } from './dynamic-course'
import { LONGEST_WEEKS, type PlanContext } from './limits'
import { safetyOf } from './safety'
import { startOf, type Target } from './target'

/** Whether an intake moves a body towards a target at all: one it leads away from ends nothing. */
function leadsThere({ intakeKcal, dailyKcal }: PlanEnergy, { kind, value }: Target, { start }: PlanContext): boolean {
  const from = startOf(kind, start)?.value
  return from === undefined || Math.sign(value - from) === Math.sign(intakeKcal - dailyKcal)
}

/**
 * Every limit a planned intake passes for this person, by its course from the check-in to the target, or for half a year
 * where it has none or leads away from it. Where no fat and lean mass were measured only what needs no course is looked at.
 */
export function limitsOfIntake(energy: PlanEnergy, target: Target | null, context: PlanContext): Limit[] {
  const { start } = context
  const { fat, lean } = endFigures(start)
  const facts = {
    safety: safetyOf(context),
    restingKcal: energy.restingKcal,
    dailyKcal: energy.dailyKcal,
    intakeKcal: energy.intakeKcal,
  }
  if (!fat || !lean) return intakeLimits({ ...facts, course: [] })
  const body = { fatKg: fat.value, leanKg: lean.value, energy }
  const weeks =
    target && target.kind !== 'sum' && leadsThere(energy, target, context)
      ? (dynamicCourse({ ...body, kind: target.kind, startDay: dayOf(start.facts), to: target.value }).weeks ??
        LONGEST_WEEKS)
      : LONGEST_WEEKS / 4
  const days = Array.from({ length: Math.ceil(weeks) + 1 }, (_, week) => Math.min(7 * week, Math.ceil(7 * weeks)))
  const plan = { kcal: energy.intakeKcal, breaks: energy.breaks }
  return intakeLimits({ ...facts, course: expectedCourse(forecastStart(body), plan, days) })
}
