import { COURSES, type CourseModel } from '../following/course-models'
import type { Random } from '../simulate/random'
import { coverage, looksAt, measure, only, openTrial, startsOf, type Trial } from './trial'

/*
 * A studio in which some clients change in every way the courses hold likely, among others who do not change: what the
 * 95 % intervals promise is about changes as they are held likely, so that is what they are tried on.
 */

/** Every so many clients change. */
const CHANGES_EVERY = 8
/** What folds of a body followed for months can come to, against those at the start: a course beyond is drawn anew. */
const BODIES = { least: 0.5, most: 1.6 }

/** How often the clients are seen. */
export interface Cadence {
  weeksApart: number
  looks: number
}

/** What became of the intervals, over every look from the second on. */
export interface DrawnIntervals {
  /** Share of those of clients who change that hold the change. */
  changing: number
  /** Share of those of clients who do not change that hold none. */
  unchanged: number
  /** Their width, in the middle, against that of the two ends' own difference with the error known. */
  width: number
}

/** What a visit's sum of a world errs by, as a share of it: from two visits by the same hand, so far apart that little lasts. */
function visitShareIn(world: Trial): number {
  const squares = measure({ ...world, clients: 150, looks: 5, weeksApart: 1 }).map((own) => {
    const [first = NaN, last = NaN] = [own[0]?.result.sumMm, own[4]?.result.sumMm].map((sum) => sum ?? NaN)
    return ((last - first) / ((last + first) / 2)) ** 2
  })
  return Math.sqrt(squares.reduce((sum, one) => sum + one, 0) / squares.length / 2)
}

/** A course as a model draws it, against the start, by visit. */
function drawCourse({ kind }: CourseModel, size: number, { weeksApart, looks }: Cadence, random: Random): number[] {
  for (;;) {
    const slope = size * random.normal()
    let walked = 0
    const course = Array.from({ length: looks }, (_, i) => {
      if (i > 0) walked += size * Math.sqrt(weeksApart) * random.normal()
      return 1 + (kind === 'line' ? slope * i * weeksApart : walked)
    })
    if (course.every((share) => share >= BODIES.least && share <= BODIES.most)) return course
  }
}

/**
 * Measures, follows and judges such a studio.
 * @param world how it measures, and what else befalls its clients; without it as assumed
 * @example drawnIntervals(480, { weeksApart: 4, looks: 12 }) // changing 0.96, unchanged 0.99, width 0.8
 */
export function drawnIntervals(clients: number, cadence: Cadence, world: Trial = {}): DrawnIntervals {
  const { weeksApart, looks } = cadence
  const courses: number[][] = []
  const visitShare = visitShareIn(world)
  const studio = openTrial(
    {
      ...world,
      clients,
      weeksApart,
      looks,
      client: (place, random) => {
        const befalls = world.client?.(place, random) ?? {}
        // Clients in between have no model.
        const model = COURSES[(place / CHANGES_EVERY) % COURSES.length]
        if (model === undefined) return befalls
        const own = drawCourse(model, model.sd * visitShare, cadence, random)
        courses[place] = own
        const { course = () => 1 } = befalls
        return { ...befalls, course: (week) => course(week) * (own[Math.round(week / weeksApart)] ?? 1) }
      },
    },
    ['sum'],
  )
  const of = (changes: boolean) => {
    const holds = (client: number) => (client % CHANGES_EVERY === 0) === changes
    const some = only(studio, holds)
    const places = [...studio.ends.keys()].filter(holds)
    const starts = startsOf(some, (client, visit) => courses[places[client] ?? -1]?.[visit] ?? 1)
    const judged = looksAt(some, ['sum'])
    const truth = (client: number, visit: number) =>
      (starts[client] ?? NaN) * ((courses[places[client] ?? -1]?.[visit] ?? 1) - 1)
    const widths = judged.flatMap((own, client) =>
      own.flatMap(({ sum }) => (sum ? (sum.high - sum.low) / (starts[client] ?? NaN) : [])),
    )
    return { held: coverage(judged, truth), widths }
  }
  const [changing, unchanged] = [of(true), of(false)]
  const plain = 2 * 1.96 * Math.SQRT2 * visitShare
  const narrow = unchanged.widths.sort((a, b) => a - b)[unchanged.widths.length >> 1] ?? NaN
  return { changing: changing.held, unchanged: unchanged.held, width: narrow / plain }
}
