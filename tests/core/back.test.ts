import { describe, expect, it } from 'vitest'
import { forbesShare, splitOf, splitSaid } from '../../core/energy'
import { dynamicCourse, straightCourse, wayBack } from '../../core/plan'
import { addDays } from '../../core/calendar'
import { seededRandom } from '../../core/simulate'

describe('a plan laid back from a day that does not move', () => {
  const race = { by: '2026-09-20', start: '2026-05-04', from: 22, to: 16, perWeek: 0.5, breakEvery: null }

  it('by hand: six points at half a point a week, a week in hand', () => {
    const way = wayBack(race)
    // 12 weeks and one of slack before 20 September.
    expect(way.weeks).toBe(12)
    expect(way.latest).toBe('2026-06-21')
    expect(way.late).toBe(false)
    expect(way.table).toHaveLength(13)
    expect(way.table[6]).toEqual({ week: 6, day: '2026-06-15', planned: 19, atBalance: false })
    expect(way.table.at(-1)?.planned).toBe(16)
    // 19.86 weeks from 4 May to the day, less the slack and the weeks of delay.
    expect(way.starts[3]?.perWeek).toBeCloseTo(6 / (139 / 7 - 1 - 4), 9)
  })

  it('puts weeks at balance in, which nothing moves in and the start has to make room for', () => {
    const way = wayBack({ ...race, breakEvery: 6 })
    expect(way.weeks).toBe(13)
    expect(way.latest).toBe(addDays('2026-06-21', -7))
    expect(way.table.filter(({ atBalance }) => atBalance).map(({ week }) => week)).toEqual([7])
    expect(way.table[7]?.planned).toBe(way.table[6]?.planned)
    expect(way.table.at(-1)).toMatchObject({ week: 13, planned: 16 })
  })

  it('says that it is late, and that no time is left', () => {
    const way = wayBack({ ...race, start: '2026-08-30' })
    expect(way.late).toBe(true)
    expect(way.starts.map(({ perWeek }) => perWeek)).toEqual([6 / (3 - 1 - 1), null, null, null])
  })
})

describe('the split of a change of weight', () => {
  const around = (change: number, sd: number) => ({ change, low: change - 1.96 * sd, high: change + 1.96 * sd })
  const real = (change: number, sd: number) => ({ ...around(change, sd), verdict: 'real' as const })

  it('by Forbes: the leaner the body, the more lean goes', () => {
    // By hand: fat from 30 to f with f - 30 + 10.4 ln(f / 30) = -5 gives f = 26.35: 3.65 of 5.
    expect(forbesShare(30, -5)).toBeCloseTo(0.73, 2)
    expect(forbesShare(10, -5)).toBeLessThan(forbesShare(30, -5))
    // A small change: F / (F + 10.4).
    expect(forbesShare(20, -0.001)).toBeCloseTo(20 / 30.4, 3)
  })

  it('holds the true share in 95 % of simulated people', () => {
    const { normal } = seededRandom(31)
    let held = 0
    for (let i = 0; i < 300; i += 1) {
      const split = splitOf(around(-4 + 0.5 * normal(), 0.5), real(-5 + 0.4 * normal(), 0.4), 25)
      held += Number(split !== null && split.low <= 0.8 && 0.8 <= split.high)
    }
    expect(held / 300).toBeGreaterThan(0.92)
  })

  it('says that lean goes faster than in bodies of this fatness, beyond error only', () => {
    const much = splitOf(around(-1, 0.4), real(-5, 0.4), 30)
    expect(much?.against).toBe('faster-lean')
    expect(much && splitSaid(much, true)).toContain('Losing lean mass or water faster than bodies of this fatness do.')
    expect(splitOf(around(-3.5, 0.8), real(-5, 0.5), 30)?.against).toBeNull()
    expect(splitOf(around(-6, 0.2), real(-5, 0.2), 30)?.against).toBe('leaner')
  })

  it('prints a share below nothing with the sign figures are printed with', () => {
    const said = splitSaid({ share: 0.1, low: -0.04, high: 0.31, expected: 0.7, against: 'faster-lean' }, true)
    expect(said).toContain('10 % was fat (−4 % to 31 %)')
  })

  it('is not said where the weight did not move for real', () => {
    expect(splitOf(around(-1, 0.5), { ...around(-0.5, 0.5), verdict: 'some-sign' }, 20)).toBeNull()
  })
})

describe('a dynamic course', () => {
  const energy = { intakeKcal: 2000, restingKcal: 1600, dailyKcal: 2400, dailySd: 150, breaks: [] }
  const way = { kind: 'weight' as const, startDay: '2026-05-04', fatKg: 22, leanKg: 55, to: 73, energy }

  it('bends: slower than the straight pace at the end, and stops at its target', () => {
    const course = dynamicCourse(way)
    const weeks = course.weeks ?? NaN
    const straight = straightCourse({ startDay: way.startDay, from: 77, to: 73, weeks })
    const half = addDays(way.startDay, Math.round((7 * weeks) / 2))
    expect(course.at(way.startDay).value).toBeCloseTo(77, 9)
    expect(course.at(half).value).toBeLessThan(straight.at(half).value)
    expect(course.at(addDays(way.startDay, Math.round(7 * weeks) + 30)).value).toBe(73)
  })

  it('scatters by what is not known of the expenditure, more as it goes on', () => {
    const course = dynamicCourse(way)
    const sd = (days: number) => Math.sqrt(course.at(addDays(way.startDay, days)).variance)
    expect(sd(0)).toBeCloseTo(0, 6)
    expect(sd(56)).toBeGreaterThan(sd(28))
    const sure = dynamicCourse({ ...way, energy: { ...energy, dailySd: 0 } })
    expect(Math.sqrt(sure.at(addDays(way.startDay, 56)).variance)).toBeLessThan(sd(56))
  })

  it('has no end where the intake never gets there', () => {
    expect(dynamicCourse({ ...way, to: 60, energy: { ...energy, intakeKcal: 2350 } }).weeks).toBeNull()
  })
})
