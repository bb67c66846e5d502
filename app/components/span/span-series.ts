import {
  figureCourses,
  figureSeries,
  type CourseAt,
  type FigureSeries,
  type Noises,
  type SeriesPoint,
} from '#core/following'
import { SITES } from '#core/sites'
import { cmToLength, kgToMass, type Units } from '#core/units'
import type { FollowedEnd } from '#shared/following'

/** A point of a chart: milliseconds, value, half of its 95 % interval, and the band of the level where it is known. */
export interface ChartPoint {
  at: number
  value: number
  error: number
  low: number | null
  high: number | null
  /** True where it can be held against the later jaw. */
  comparable: boolean
}

/** A point of a smoothed course: milliseconds, best estimate and 95 % interval. */
export interface CoursePlace {
  at: number
  value: number
  low: number
  high: number
}

/** Smoothed courses in the person's units, as `ChartSeries` holds the points. */
export interface ChartCourses {
  lean: CoursePlace[]
  fat: CoursePlace[]
  sum: CoursePlace[]
  girths: CoursePlace[][]
}

interface ChartSettings {
  noises: Noises
  units: Units
}

/** Points of lean, fat and sum, in the person's units; fat and lean carry the level's band. */
export interface ChartSeries {
  lean: ChartPoint[]
  fat: ChartPoint[]
  sum: ChartPoint[]
  /** Girths in the person's unit, where the set holds no folds. */
  girths: { name: string; points: ChartPoint[] }[]
}

/** A point of a series in a displayed unit. */
export function chartPoint({ at, value, error, level, comparable }: SeriesPoint, scale: (value: number) => number) {
  return {
    at: Date.parse(at),
    value: scale(value),
    error: scale(error),
    low: level === null ? null : scale(value - level),
    high: level === null ? null : scale(value + level),
    comparable,
  } satisfies ChartPoint
}

/** What the chart draws. `now` is the later jaw: its equation and folds say what can be compared. */
export function chartSeries(ends: readonly FollowedEnd[], now: FollowedEnd, settings: ChartSettings): ChartSeries {
  return drawnSeries(figureSeries(ends, now, settings), settings.units)
}

/** Figures over time in the person's units. */
export function drawnSeries({ fat, lean, sum, girths }: FigureSeries, units: Units): ChartSeries {
  const drawn = (points: readonly SeriesPoint[], scale: (value: number) => number = (value) => value) =>
    points.map((point) => chartPoint(point, scale))
  const mass = (kg: number) => kgToMass(kg, units.mass)
  return {
    fat: drawn(fat, mass),
    lean: drawn(lean, mass),
    sum: drawn(sum),
    girths: girths.map(({ site, points }) => ({
      name: `${SITES[site].name}, ${units.length}`,
      points: drawn(points, (cm) => cmToLength(cm, units.length)),
    })),
  }
}

/** The smoothed courses through what the chart draws: heavier than its points, so asked for apart. */
export function chartCourses(ends: readonly FollowedEnd[], now: FollowedEnd, settings: ChartSettings): ChartCourses {
  const { fat, lean, sum, girths } = figureCourses(ends, now, settings)
  const { mass, length } = settings.units
  const drawn = (course: readonly CourseAt[], scale: (value: number) => number = (value) => value) =>
    course.map(({ at, value, low, high }) => ({
      at: Date.parse(at),
      value: scale(value),
      low: scale(low),
      high: scale(high),
    }))
  return {
    fat: drawn(fat, (kg) => kgToMass(kg, mass)),
    lean: drawn(lean, (kg) => kgToMass(kg, mass)),
    sum: drawn(sum),
    girths: girths.map(({ points }) => drawn(points, (cm) => cmToLength(cm, length))),
  }
}
