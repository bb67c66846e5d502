import {
  besideTheRule,
  dayFor,
  expectedCourse,
  FARTHEST_DAYS,
  intakeFor,
  type BodyTarget,
  type CoursePoint,
  type ForecastStart,
  type IntakePlan,
  type Limit,
} from '../core/energy'
import { endFigures } from '../core/following'
import { limitsOfIntake, type PlanContext, type PlanEnergy, type Target } from '../core/plan'
import { forecastStartOf, trainingMore, type EnergyFacts } from './energy'

/** What is asked: so much eaten a day, a week at balance every so many, and perhaps a target. */
export interface Asked {
  kcal: number
  /** Weeks between weeks at balance; null: none. */
  breakEvery: number | null
  /** kg of fat or of weight; null: none. */
  target: BodyTarget | null
}

/** Another way laid over it. */
export interface OtherWay {
  id: 'eat-less' | 'train-more'
  course: CoursePoint[]
}

/** What it comes to. Where a limit stops it there is no course: nobody should have it before their eyes. */
export interface WhatIf {
  energy: PlanEnergy
  plan: IntakePlan
  start: ForecastStart
  limits: Limit[]
  stopped: boolean
  /** Days from today at which the course is given, a week apart. */
  days: number[]
  course: CoursePoint[]
  /** Day on which it reaches the target; null: no target, or not within two years. */
  arrives: number | null
  rule: ReturnType<typeof besideTheRule> | null
  others: OtherWay[]
}

/** How far ahead is looked where nothing ends it, weeks. */
const USUAL_WEEKS = 26
/** kcal a day less, and hours of training a week more, that are laid over it. */
export const EAT_LESS = 200
export const TRAIN_MORE = 2

function breaksOf(every: number | null): number[] {
  if (every === null) return []
  const breaks: number[] = []
  for (let day = 7 * every; day < FARTHEST_DAYS; day += 7 * (every + 1)) breaks.push(day)
  return breaks.slice(0, 20)
}

function energyOfPlan({ believed, resting }: EnergyFacts, intakeKcal: number, breaks: number[]): PlanEnergy {
  return {
    intakeKcal,
    restingKcal: resting.lead.value,
    dailyKcal: believed?.value ?? 0,
    dailySd: Math.sqrt(believed?.variance ?? 0),
    breaks,
  }
}

function asTarget(target: BodyTarget | null): Target | null {
  return target && { kind: target.of, value: target.kg, perWeek: 1 }
}

/**
 * What an intake comes to for a client: limits, course, arrival, the rule of thumb beside it and other ways laid over it.
 * @returns null where fat and lean mass or the expenditure are not known
 */
export function whatIf(
  facts: EnergyFacts,
  { kcal, breakEvery, target }: Asked,
  about: Omit<PlanContext, 'start'>,
): WhatIf | null {
  const start = forecastStartOf(facts)
  if (!start) return null
  const breaks = breaksOf(breakEvery)
  const context = { ...about, start: facts.end }
  const energy = energyOfPlan(facts, kcal, breaks)
  const limits = limitsOfIntake(energy, asTarget(target), context)
  const stopped = limits.some(({ stop }) => stop)
  const plan = { kcal, breaks }
  const nothing = { energy, plan, start, limits, stopped, days: [], course: [], arrives: null, rule: null, others: [] }
  if (stopped) return nothing
  const arrives = target && dayFor(start, target, plan)
  const weeks = arrives === null ? USUAL_WEEKS : Math.max(4, Math.ceil(arrives / 7))
  const days = Array.from({ length: weeks + 1 }, (_, week) => 7 * week)
  const less = kcal - EAT_LESS
  const allowed = !limitsOfIntake({ ...energy, intakeKcal: less }, asTarget(target), context).some(({ stop }) => stop)
  // Training more is the same as eating less by what it costs, as far as the model goes.
  const trained = kcal - trainingMore(facts, TRAIN_MORE)
  const deficit = trained < energy.dailyKcal
  const others: OtherWay[] = [
    ...(allowed ? [{ id: 'eat-less' as const, course: expectedCourse(start, { kcal: less, breaks }, days) }] : []),
    ...(deficit && facts.personal.length > 0
      ? []
      : [{ id: 'train-more' as const, course: expectedCourse(start, { kcal: trained, breaks }, days) }]),
  ]
  return {
    ...nothing,
    days,
    course: expectedCourse(start, plan, days),
    arrives,
    rule: Math.abs(kcal - energy.dailyKcal) < 1 ? null : besideTheRule(start, plan, days.at(-1) ?? 0),
    others,
  }
}

/** Intake that reaches a target by a day from today; null where no forecast can be made or none does. */
export function intakeToReach(facts: EnergyFacts, target: BodyTarget, day: number, breakEvery: number | null) {
  const start = forecastStartOf(facts)
  return start && intakeFor(start, target, day, breaksOf(breakEvery))
}

/** A target of percent as fat in kg at kept lean mass; null where lean was not measured. */
export function fatAtPercent({ end }: EnergyFacts, percent: number): BodyTarget | null {
  const lean = endFigures(end).lean?.value
  return lean === undefined ? null : { of: 'fat', kg: (lean * percent) / (100 - percent) }
}
