import { COURSES } from '../following/course-filter'
import { coverage, looksAt, only, openTrial, startsOf } from './trial'

/*
 * A studio in which some clients change in every way the courses hold likely, among others who do not change: what the
 * 95 % intervals promise is about changes as they are held likely, so that is what they are tried on.
 */

/** Every so many clients change. */
const CHANGES_EVERY = 8
/** What a visit's sum of seven folds is assumed to err by, as a share of it. */
const VISIT_SHARE = 0.043
/** Folds never go below this share of those at the start. */
const LEAST = 0.3

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

/**
 * Measures, follows and judges such a studio.
 * @example drawnIntervals(480, { weeksApart: 4, looks: 12 }) // changing 0.96, unchanged 0.99, width 0.8
 */
export function drawnIntervals(clients: number, { weeksApart, looks }: Cadence, seed = 7): DrawnIntervals {
  const courses: number[][] = []
  const studio = openTrial(
    {
      clients,
      weeksApart,
      looks,
      seed,
      client: (place, random) => {
        const model = COURSES[(place / CHANGES_EVERY) % COURSES.length]
        const own = [1]
        courses[place] = own
        if (model === undefined || model.kind === 'none') return {}
        const size = model.sd * VISIT_SHARE
        const slope = size * random.normal()
        let walked = 0
        for (let i = 1; i < looks; i += 1) {
          walked += size * Math.sqrt(weeksApart) * random.normal()
          own.push(Math.max(LEAST, 1 + (model.kind === 'line' ? slope * i * weeksApart : walked)))
        }
        return { course: (week) => own[Math.round(week / weeksApart)] ?? 1 }
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
  const plain = 2 * 1.96 * Math.SQRT2 * VISIT_SHARE
  const narrow = unchanged.widths.sort((a, b) => a - b)[unchanged.widths.length >> 1] ?? NaN
  return { changing: changing.held, unchanged: unchanged.held, width: narrow / plain }
}
