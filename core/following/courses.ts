import type { Day } from '../calendar'
import type { SpanEnd } from '../composition/end-figures'
import { dayOf } from '../composition/facts'
import { onTermsOf } from '../composition/terms'
import { ASSUMED_ERRORS } from '../error/model'
import { isFold, type GirthSiteId } from '../sites'
import { copyingIn } from './copies'
import { smoothedCourse, type CoursePoint } from './course'
import { sameSet } from './ends'
import { figureOver } from './figures'
import { ASSUMED_NOISES, familyOf } from './learning'
import { girthsDrawn, type SeriesSettings } from './series'
import { figureTerms, type FigureId } from './weights'

/** The smoothed course of a figure at a check-in. */
export interface CourseAt extends CoursePoint {
  /** ISO instant of the check-in, and the day it was where the studio is. */
  at: string
  day: Day
}

/** The smoothed courses of what is drawn over time; empty where no two check-ins can be compared. */
export interface FigureCourses {
  fat: CourseAt[]
  lean: CourseAt[]
  sum: CourseAt[]
  girths: { site: GirthSiteId; points: CourseAt[] }[]
}

/** A course is worked out at this many check-ins at most; between them it runs straight. */
const COURSE_POINTS = 48

/** Places spread evenly over a history, the first and the last among them. */
function spreadPlaces(count: number): number[] {
  const points = Math.min(count, COURSE_POINTS)
  return Array.from({ length: points }, (_, i) => Math.round((i * (count - 1)) / Math.max(1, points - 1)))
}

/**
 * The smoothed course of every figure drawn over time, through all check-ins that can be compared with `now`.
 */
export function figureCourses(
  ends: readonly SpanEnd[],
  now: SpanEnd,
  { model = ASSUMED_ERRORS, noises = ASSUMED_NOISES }: SeriesSettings = {},
): FigureCourses {
  const onTerms = ends.map((end) => onTermsOf(end, now))
  const reference = onTerms[ends.indexOf(now)] ?? now
  const terms = figureTerms(onTerms, reference, model)
  const summed = now.facts.protocol.sites.filter((site) => isFold(site) && now.result.values[site] !== undefined)
  const settings = { summed, model, copying: copyingIn(onTerms, model) }
  const course = (figure: FigureId, held: readonly SpanEnd[]): CourseAt[] => {
    const over = figureOver(figure, held, terms, settings)
    if (!over) return []
    const places = spreadPlaces(over.ends.length)
    return (smoothedCourse(over.series, noises[familyOf(figure)], places) ?? []).map((point, i) => {
      const { facts } = over.ends[places[i] as number] as SpanEnd
      return { ...point, at: facts.startedAt, day: dayOf(facts) }
    })
  }
  const weighed = onTerms.filter((end) => terms.percentOf.has(end))
  const sameFolds = onTerms.filter((_, i) => sameSet(ends[i] as SpanEnd, now))
  return {
    fat: course('fat', weighed),
    lean: course('lean', weighed),
    sum: course('sum', sameFolds),
    girths: girthsDrawn(now).map((site) => ({
      site,
      points: course(
        site,
        onTerms.filter((end) => end.result.values[site] !== undefined),
      ),
    })),
  }
}
