import { describe, expect, it } from 'vitest'
import { smoothedCourse } from '../../core/following/course'
import { CELLS, noiseFrom, placesOf } from '../../core/following/noise'
import { oddsOf } from '../../core/following/odds'
import { paceNow } from '../../core/following/planning'
import { ASSUMED_NOISE } from '../../core/following/studio-grid'
import { seededRandom } from '../../core/simulate'
import { SERIES, VALUES } from '../support/dense'

/** Noise as a large studio knows it: new at every visit, as wide as assumed. */
const LEARNT = noiseFrom(
  Float64Array.from({ length: CELLS }, (_, cell) => Number(placesOf(cell).type < 2 && placesOf(cell).scale === 4)),
  { clients: 40, visits: 400, followed: 40 },
)

// That each part is the regression on all values is shown in filters.test.ts.
describe('the smoothed course', () => {
  it('ends where the change says it ends, from where it began', () => {
    const course = smoothedCourse(SERIES, ASSUMED_NOISE)
    const odds = oddsOf(SERIES, ASSUMED_NOISE)
    expect(course).toHaveLength(VALUES.length)
    expect((course?.at(-1)?.value ?? 0) - (course?.[0]?.value ?? 0)).toBeCloseTo(odds?.change ?? NaN, 1)
    for (const { value, low, high } of course ?? []) {
      expect(low).toBeLessThan(value)
      expect(high).toBeGreaterThan(value)
    }
    expect(smoothedCourse({ weeks: [0], values: [1], variances: [1] }, ASSUMED_NOISE)).toBeNull()
  })

  it('bends: lost for half a year and held since, it is drawn level since, and goes on level', () => {
    const { normal } = seededRandom(12)
    const weeks = Array.from({ length: 18 }, (_, i) => 4 * i)
    const truth = weeks.map((week) => 120 - Math.min(week, 32))
    const series = { weeks, values: truth.map((mm) => mm + 3 * normal()), variances: weeks.map(() => 16) }
    const course = smoothedCourse(series, LEARNT)?.map(({ value }) => value) ?? []
    const at = (i: number) => course[i] ?? NaN
    expect(at(8) - at(0)).toBeLessThan(-18)
    expect(Math.abs(at(17) - at(10))).toBeLessThan(4)
    course.forEach((value, i) => expect(Math.abs(value - (truth[i] ?? NaN))).toBeLessThan(8))
    // What is to come starts from there, not from the whole of the loss (0.47 mm a week).
    expect(Math.abs(paceNow(series, LEARNT)?.perWeek ?? NaN)).toBeLessThan(0.2)
  })

  it('holds what lay under the readings in 95 % of visits', () => {
    const { normal } = seededRandom(37)
    const [people, visits] = [200, 12]
    let inside = 0
    for (let person = 0; person < people; person += 1) {
      const slope = 0.5 * normal()
      const truth = Array.from({ length: visits }, (_, week) => 100 + slope * 5 * week)
      const values = truth.map((value) => value + 5 * normal())
      const series = { weeks: truth.map((_, week) => week), values, variances: truth.map(() => 25) }
      smoothedCourse(series, ASSUMED_NOISE)?.forEach(({ low, high }, i) => {
        const at = truth[i] as number
        inside += Number(low <= at && at <= high)
      })
    }
    // White noise only, where the mixture allows for noise that lasts: it may be too wide, never too narrow.
    expect(inside / (people * visits)).toBeGreaterThan(0.94)
  }, 60_000)
})
