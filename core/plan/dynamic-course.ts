import { daysBetween, type Day } from '../calendar'
import type { Measured } from '../composition/end-figures'
import { expectedCourse, FARTHEST_DAYS, forecast, WATER_SD, type CoursePoint, type ForecastStart } from '../energy'
import { Z_95 } from '../error/interval'
import { seededRandom } from '../simulate/random'
import type { Course } from './course'
import type { TargetKind } from './target'

/** What a plan by the dynamic model was set with, kept with it: kcal a day, and days on which weeks at balance begin. */
export interface PlanEnergy {
  intakeKcal: number
  restingKcal: number
  dailyKcal: number
  /** Standard deviation of the daily expenditure. */
  dailySd: number
  breaks: number[]
}

/** Where a dynamic course runs. */
export interface DynamicWay {
  kind: Exclude<TargetKind, 'sum'>
  startDay: Day
  fatKg: number
  leanKg: number
  to: number
  energy: PlanEnergy
}

/** A dynamic course with the weeks it takes; null: it does not get there within two years. */
export interface DynamicCourse extends Course {
  weeks: number | null
}

/** A weight is what a scale shows: the first days of a change of intake are water. */
function figureOf(
  kind: DynamicWay['kind'],
  { fatKg, weightKg, scaleKg }: Pick<CoursePoint, 'fatKg' | 'weightKg' | 'scaleKg'>,
): number {
  return kind === 'fat' ? fatKg : kind === 'weight' ? scaleKg : (100 * fatKg) / weightKg
}

/** What a forecast starts from, with nothing uncertain about the body: a plan's own start carries that error. */
export function forecastStart({
  fatKg,
  leanKg,
  energy,
}: Pick<DynamicWay, 'fatKg' | 'leanKg' | 'energy'>): ForecastStart {
  return {
    fatKg: { value: fatKg, variance: 0 },
    weightKg: { value: fatKg + leanKg, variance: 0 },
    restingKcal: energy.restingKcal,
    dailyKcal: { value: energy.dailyKcal, variance: energy.dailySd ** 2 },
  }
}

/** Simulated people the scatter about a course is taken from. */
const DRAWS = 60
/** Days between the points the scatter is worked out at. */
const GRID = 14

/**
 * The course of a body that eats so much a day, by the dynamic model, until it reaches its target and stays there. Real
 * people scatter about it by what is not known of their expenditure and by how well they keep to it.
 */
export function dynamicCourse(way: DynamicWay): DynamicCourse {
  const { kind, startDay, to, energy } = way
  const start = forecastStart(way)
  const plan = { kcal: energy.intakeKcal, breaks: energy.breaks }
  const course = expectedCourse(
    start,
    plan,
    Array.from({ length: FARTHEST_DAYS + 1 }, (_, day) => day),
  )
  const values = course.map((point) => figureOf(kind, point))
  const from = values[0] ?? to
  const towards = Math.sign(to - from)
  const end = values.findIndex((value) => (value - to) * towards >= 0)
  const last = end < 0 ? values.length - 1 : end
  const grid = Array.from({ length: Math.ceil(last / GRID) + 1 }, (_, i) => i * GRID)
  let spread: number[] | null = null
  const spreadAt = (day: number): number => {
    spread ??= forecast(start, plan, grid, seededRandom(20261126), DRAWS).map((point) => {
      const [low, high] = [
        figureOf(kind, { fatKg: point.fatLow, weightKg: point.weightLow, scaleKg: point.weightLow }),
        figureOf(kind, { fatKg: point.fatHigh, weightKg: point.weightHigh, scaleKg: point.weightHigh }),
      ]
      const water = kind === 'weight' ? WATER_SD * (point.scaleKg - point.weightKg) : 0
      return Math.hypot(Math.abs(high - low) / (2 * Z_95), water)
    })
    const place = day / GRID
    const [a = 0, b = a] = [spread[Math.floor(place)], spread[Math.floor(place) + 1]]
    return a + (place - Math.floor(place)) * (b - a)
  }
  return {
    weeks: end < 0 ? null : end / 7,
    at(on: Day): Measured {
      const day = Math.min(last, Math.max(0, daysBetween(startDay, on)))
      return { value: day === end ? to : (values[day] ?? to), variance: spreadAt(day) ** 2 }
    },
  }
}
