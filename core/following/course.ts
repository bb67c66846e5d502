import { COURSES, noiseTerms, type CourseModel } from './course-filter'
import { runCourses } from './course-runs'
import { Mixture } from './mixture'
import type { Noise } from './noise'
import { filterSeriesOf, heldOf, likelihoodOf, scaleOf, type OddsSeries } from './odds'
import { smoothCourse } from './smoother'

/** Where a figure lay at a visit, its noise taken off: best estimate and 95 % interval, unit of the figure. */
export interface CoursePoint {
  value: number
  low: number
  high: number
}

/**
 * The smoothed course of a figure through its whole history: at every visit what lay under the readings, all readings
 * known, from the same courses and noises as the odds and without a part for no change. Between visits it runs straight.
 * Other hands' offsets are taken off: it is the course as the first visit's hand would have measured it.
 * @param places visits at which it is wanted; all without
 * @returns a point for each of them; null with fewer than two visits
 */
export function smoothedCourse(
  series: OddsSeries,
  held: Noise,
  places: readonly number[] = series.weeks.map((_, i) => i),
): CoursePoint[] | null {
  const count = series.weeks.length
  if (count < 2) return null
  const filter = filterSeriesOf(series)
  const parts = heldOf(held).flatMap((noise) => {
    const terms = noiseTerms(filter, noise)
    const logOf = likelihoodOf(noise, count)
    const { moved } = runCourses(filter, terms, false)
    return moved.map(({ lastSquares, lastLog }, k) => ({
      log: logOf(count - 1, lastLog, lastSquares),
      ...scaleOf(noise, lastSquares, count),
      ...smoothCourse(filter, terms, COURSES[k] as CourseModel),
    }))
  })
  const mixture = new Mixture()
  return places.map((i) => {
    mixture.clear()
    for (const { log, scale, freedom, means, variances } of parts)
      mixture.add(log, means[i] as number, Math.sqrt(scale * (variances[i] as number)), freedom)
    const { change: value, low, high } = mixture.interval()
    return { value, low, high }
  })
}
