import type { Measured } from '../composition/end-figures'
import { ASSUMED_ERRORS } from '../error/model'
import { quantileOf } from '../error/monte-carlo'
import type { Random } from '../simulate/random'
import { dynamicModel, ruleOfThumbKg, type CoursePoint, type IntakeChange } from './dynamic'
import { WATER_SD } from './water'

/** A body a forecast starts from, each with the variance it is known with. kg and kcal a day. */
export interface ForecastStart {
  fatKg: Measured
  /** Lean is what is left of it: their errors go together, the weight's own is small. */
  weightKg: Measured
  restingKcal: number
  /** Daily expenditure at the start: predicted, observed or both. */
  dailyKcal: Measured
}

/** What is eaten, kcal a day: a plan of so much, and weeks at balance put in. */
export interface IntakePlan {
  kcal: number
  /** Days from the start on which a week at balance begins. */
  breaks?: readonly number[]
}

/** Days a break lasts. */
const BREAK_DAYS = 7

/** How well plans are kept to: standard deviation of mean intake, as a share (our choice). */
export const ADHERENCE_SD = 0.05

/** A forecast on a day: the middle and the bounds of 95 of 100 simulated courses. */
export interface ForecastPoint extends CoursePoint {
  weightLow: number
  weightHigh: number
  fatLow: number
  fatHigh: number
  /** Where a reading of the scale lies: with a day's water and how people's water answers. */
  scaleLow: number
  scaleHigh: number
}

/** Change of intake against balance over the days of a plan. */
export function intakeChange({ kcal, breaks = [] }: IntakePlan, balanceKcal: number, kept = 1): IntakeChange {
  const change = kcal * kept - balanceKcal
  return (day) => (breaks.some((from) => day >= from && day < from + BREAK_DAYS) ? 0 : change)
}

function modelOf({ fatKg, weightKg, restingKcal, dailyKcal }: ForecastStart) {
  return dynamicModel({
    fatKg: fatKg.value,
    leanKg: weightKg.value - fatKg.value,
    restingKcal,
    activity: dailyKcal.value / restingKcal,
  })
}

/** The expected course of a plan, on some days from its start. */
export function expectedCourse(start: ForecastStart, plan: IntakePlan, days: readonly number[]): CoursePoint[] {
  const model = modelOf(start)
  return model.course(intakeChange(plan, model.balanceKcal), days)
}

/**
 * A plan's course with its band by Monte Carlo: over fat and weight at the start and with them lean, daily expenditure,
 * and how well the plan is kept to.
 * @param draws simulated people; 400 give the bounds to about a tenth of their distance
 */
export function forecast(
  start: ForecastStart,
  plan: IntakePlan,
  days: readonly number[],
  random: Random,
  draws = 400,
): ForecastPoint[] {
  const drawn = (one: Measured) => one.value + Math.sqrt(one.variance) * random.normal()
  const columns = () => days.map(() => new Float64Array(draws))
  const [weights, fats, scales] = [columns(), columns(), columns()]
  for (let i = 0; i < draws; i += 1) {
    const weight = drawn(start.weightKg)
    const person: ForecastStart = {
      fatKg: { value: Math.min(0.8 * weight, Math.max(1, drawn(start.fatKg))), variance: 0 },
      weightKg: { value: weight, variance: 0 },
      restingKcal: start.restingKcal,
      dailyKcal: { value: Math.max(500, drawn(start.dailyKcal)), variance: 0 },
    }
    const kept = 1 + ADHERENCE_SD * random.normal()
    const response = Math.max(0, 1 + WATER_SD * random.normal())
    const model = modelOf(person)
    model.course(intakeChange(plan, model.balanceKcal, kept), days).forEach(({ weightKg, fatKg, scaleKg }, k) => {
      const [kg, fat, scale] = [weights[k], fats[k], scales[k]] as [Float64Array, Float64Array, Float64Array]
      kg[i] = weightKg
      fat[i] = fatKg
      scale[i] = (weightKg + response * (scaleKg - weightKg)) * (1 + ASSUMED_ERRORS.weightShare * random.normal())
    })
  }
  return expectedCourse(start, plan, days).map((point, k) => {
    const [kg, fat, scale] = [weights[k], fats[k], scales[k]] as [Float64Array, Float64Array, Float64Array]
    return {
      ...point,
      weightLow: quantileOf(kg, 0.025),
      weightHigh: quantileOf(kg, 0.975),
      fatLow: quantileOf(fat, 0.025),
      fatHigh: quantileOf(fat, 0.975),
      scaleLow: quantileOf(scale, 0.025),
      scaleHigh: quantileOf(scale, 0.975),
    }
  })
}

/** A target of fat mass, or of body weight as a scale shows it, kg. */
export interface BodyTarget {
  of: 'fat' | 'weight'
  kg: number
}

const reached = ({ of }: BodyTarget, point: CoursePoint) => (of === 'fat' ? point.fatKg : point.scaleKg)

/** Intakes that are searched, kcal a day. */
const INTAKES = { low: 0, high: 8000 } as const

/**
 * Intake that brings a body to a target by a day, kcal a day; null where none between nothing and 8,000 does.
 * @param day from the start, 1 or more
 */
export function intakeFor(
  start: ForecastStart,
  target: BodyTarget,
  day: number,
  breaks: readonly number[] = [],
): number | null {
  const at = (kcal: number) => {
    const [point] = expectedCourse(start, { kcal, breaks }, [day])
    // Run out before the day: less than any target.
    return point ? reached(target, point) : 0
  }
  let { low, high }: { low: number; high: number } = INTAKES
  if (at(low) > target.kg || at(high) < target.kg) return null
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2
    if (at(middle) < target.kg) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** Longest a target is looked for, days: two years. */
export const FARTHEST_DAYS = 730

/** Day on which a plan reaches a target; null where it does not within two years. */
export function dayFor(start: ForecastStart, target: BodyTarget, plan: IntakePlan): number | null {
  const days = Array.from({ length: FARTHEST_DAYS + 1 }, (_, day) => day)
  const course = expectedCourse(start, plan, days)
  const [first] = course
  if (!first) return null
  const way = Math.sign(target.kg - reached(target, first))
  const place = course.findIndex((point) => (reached(target, point) - target.kg) * way >= 0)
  return place < 0 ? null : place
}

/** Where the rule of thumb and the model part: a tenth of what the rule says. */
const PARTED = 0.1

/** The rule of thumb beside the model at the end of a plan, and the day from which they differ by over a tenth. */
export function besideTheRule(start: ForecastStart, plan: IntakePlan, days: number) {
  const all = Array.from({ length: days + 1 }, (_, day) => day)
  const course = expectedCourse(start, plan, all)
  const change = plan.kcal - start.dailyKcal.value
  const began = start.weightKg.value
  const parts = course.findIndex(({ day, weightKg }) => {
    const rule = ruleOfThumbKg(change, day)
    // The first days, where both are near nothing, say nothing.
    return day >= 7 && Math.abs(weightKg - began - rule) > PARTED * Math.abs(rule)
  })
  return {
    ruleKg: ruleOfThumbKg(change, days),
    modelKg: (course.at(-1)?.weightKg ?? NaN) - began,
    partsOnDay: parts < 0 ? null : parts,
  }
}
