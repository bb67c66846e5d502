import { Mixture } from './mixture'
import type { Noise } from './noise'
import { ESTIMATE_WAYS, estimateParts, figureRuns, type OddsSeries } from './odds'
import { smoothCourse } from './smoother'
import type { Way } from './figure-runs'

/** Where a figure lay at a visit, its noise taken off: best estimate and 95 % interval, unit of the figure. */
export interface CoursePoint {
  value: number
  low: number
  high: number
}

/**
 * The smoothed course of a figure through its whole history: at every visit what lay under the readings, all readings
 * known, from the same courses and noises as the estimate of its change. Between visits it runs straight. Other hands'
 * offsets are taken off: it is the course as the first visit's hand would have measured it.
 * @param places visits at which it is wanted; all without
 * @returns a point for each of them; null with fewer than two visits
 */
export function smoothedCourse(
  series: OddsSeries,
  held: Noise,
  places: readonly number[] = series.weeks.map((_, i) => i),
): CoursePoint[] | null {
  if (series.weeks.length < 2) return null
  const { figure, unit } = figureRuns(series)
  const from = (series.values[0] as number) - (series.biases?.[0] ?? 0)
  const parts = estimateParts(figure, held).map(({ type, course, log, scale, freedom }) => ({
    log,
    scale,
    freedom,
    ...smoothCourse(figure, type, ESTIMATE_WAYS[course] as Way),
  }))
  const mixture = new Mixture()
  return places.map((i) => {
    mixture.clear()
    for (const { log, scale, freedom, means, variances } of parts)
      mixture.add(log, from + unit * (means[i] as number), unit * Math.sqrt(scale * (variances[i] as number)), freedom)
    const { change: value, low, high } = mixture.interval()
    return { value, low, high }
  })
}
