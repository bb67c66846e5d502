import fc from 'fast-check'
import { linearRegression } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { addDays, dayNumber } from '../../core/calendar'
import { along, seededRandom, simulateDiary, type Random } from '../../core/simulate'
import { diaryNoise, readDiary, readDiaryTrend, sevenDayMean, type PasteSettings } from '../../core/trend'

const settings: PasteSettings = { unit: 'kg', today: '2026-11-25' }
const read = (text: string, change: Partial<PasteSettings> = {}) => readDiary(text, { ...settings, ...change })
const days = (text: string, change: Partial<PasteSettings> = {}) => read(text, change).lines.map(({ day }) => day)

describe('a pasted diary', () => {
  it('reads dates in every notation people paste, and points or commas', () => {
    const found = read(
      '2026-11-20\t71.4\n21.11.2026;71,2\n22 Nov 2026  71.0 kg\nNov 23, 2026, 157 lb\n24.11.26 11 st 3 lb',
    )
    expect(found.lines.map(({ day, value, unit, problem }) => [day, value, unit, problem])).toEqual([
      ['2026-11-20', 71.4, 'kg', null],
      ['2026-11-21', 71.2, 'kg', null],
      ['2026-11-22', 71, 'kg', null],
      ['2026-11-23', 157, 'lb', null],
      ['2026-11-24', 157, 'lb', null],
    ])
    expect(found.askOrder).toBe(false)
  })

  it('tells day and month apart by any part above twelve, else asks', () => {
    expect(days('3/11/2026 71\n23/11/2026 71')).toEqual(['2026-11-03', '2026-11-23'])
    expect(days('11/3/2026 71\n11/23/2026 71')).toEqual(['2026-11-03', '2026-11-23'])
    const doubtful = read('3/4/2026 71\n5/4/2026 71')
    expect(doubtful.askOrder).toBe(true)
    expect(doubtful.lines[0]?.problem).toBe('Is the day or the month first? Please choose above.')
    expect(days('3/4/2026 71', { order: 'day-first' })).toEqual(['2026-04-03'])
    expect(days('3/4/2026 71', { order: 'month-first' })).toEqual(['2026-03-04'])
  })

  it('leaves holes out without a fuss, and the heading line too', () => {
    const found = read('Date, Weight\n2026-11-20, 71.4\n2026-11-21,\n2026-11-22, -')
    expect(found.lines.map(({ number, note, problem }) => [number, note !== null, problem])).toEqual([
      [2, false, null],
      [3, true, null],
      [4, true, null],
    ])
  })

  it.each([
    ['two values a day', '2026-11-20 71.4\n2026-11-20 71.9', 1, 'Line 1 is of the same day'],
    ['a day to come', '2026-11-26 71.4', 0, 'This day is still to come.'],
    ['a day that is none', '2026-02-30 71.4', 0, 'There is no such day.'],
    ['no date', 'about 71.4', 0, 'No date found'],
    ['no weight', '2026-11-20 heavy', 0, 'Please write a weight'],
    ['beyond a body', '2026-11-20 7140', 0, 'A weight lies between'],
    ['pounds among kilograms', '2026-11-20 71.4\n2026-11-21 157\n2026-11-22 71.2', 1, 'is 157 in lb?'],
    ['kilograms among pounds', '2026-11-20 157 lb\n2026-11-21 71.4 lb\n2026-11-22 157.5 lb', 1, 'is 71.4 in kg?'],
    ['far from the rest', '2026-11-20 71.4\n2026-11-21 114.7\n2026-11-22 71.2', 1, 'please check it'],
    ['a year far off', '2999-01-01 71.4', 0, 'This day is still to come.'],
    ['a year long past', '1066-10-14 71.4', 0, 'before 1990'],
    ['long ago', '1980-01-01 71', 0, 'before 1990'],
  ])('says at its line: %s', (_, text, line, sentence) => {
    const { lines } = read(text)
    expect(lines[line]?.problem).toContain(sentence)
    expect(lines.filter(({ problem }) => problem !== null)).toHaveLength(1)
  })

  it('knows the days that hold a weigh-in already', () => {
    expect(read('2026-11-20 71', { taken: new Set(['2026-11-20']) }).lines[0]?.problem).toContain('already')
  })

  it('never throws, whatever is pasted, and gives each line that is not empty', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 120 }), (text) => {
        for (const line of read(text).lines) {
          expect(line.value === null || line.problem !== null || line.day !== null).toBe(true)
        }
      }),
    )
  })
})

describe('a diary read', () => {
  const dayAt = (i: number) => new Date(Date.UTC(2026, 7, 1 + i)).toISOString().slice(0, 10)

  it('finds the rate of a straight loss as a regression does (simple-statistics)', () => {
    const random = seededRandom(7)
    const diary = Array.from({ length: 90 }, (_, i) => ({
      day: dayAt(i),
      weightKg: 75 - 0.05 * i + 0.3 * random.normal(),
    }))
    const { rate, week, points } = readDiaryTrend(diary)
    const { m } = linearRegression(diary.slice(-42).map(({ weightKg }, i) => [i, weightKg]))
    expect(rate?.perWeek).toBeCloseTo(7 * m, 0)
    expect(Math.abs((rate?.perWeek ?? 0) + 0.35)).toBeLessThan(rate?.error ?? 0)
    expect(week).toEqual(sevenDayMean(diary, dayAt(89)))
    expect(points).toHaveLength(90)
  })

  it('says no rate of a few days, and nothing of none', () => {
    expect(readDiaryTrend([{ day: '2026-11-01', weightKg: 70 }]).rate).toBeNull()
    expect(readDiaryTrend([])).toEqual({ points: [], week: null, rate: null })
  })

  it('holds the true rate of simulated diaries in its interval about as often as it says', () => {
    const course = { first: 80, last: 77 }
    let held = 0
    for (let seed = 1; seed <= 120; seed += 1) {
      const days = Array.from({ length: 120 }, (_, i) => dayAt(i))
      // In the middle of an eased course its rate is steady: the diary ends there.
      const diary = simulateDiary(seededRandom(seed), days, (share) => along(course, share / 2, 0))
      const { rate } = readDiaryTrend(diary)
      const truth = 7 * (along(course, 0.5, 0) - along(course, 0.5 - 1 / 240, 0)) * 0.99
      if (rate && Math.abs(rate.perWeek - truth) <= rate.error) held += 1
    }
    expect(held / 120).toBeGreaterThan(0.88)
  })
})

/** Steady weights whose noise lasts from day to day, some days missed; kg. */
function steadyDiary(
  random: Random,
  { days, correlation, missed = 0.15 }: { days: number; correlation: number; missed?: number },
) {
  let lasting = random.normal()
  return Array.from({ length: days }, (_, i) => i).flatMap((i) => {
    lasting = correlation * lasting + Math.sqrt(1 - correlation ** 2) * random.normal()
    const weightKg = Math.round(10 * 72 * (1 + 0.007 * lasting)) / 10
    return random.next() < missed ? [] : [{ day: addDays('2026-01-01', i), weightKg }]
  })
}

describe('a diary whose days hang together', () => {
  it.each([
    [21, 0.5],
    [60, 0.5],
    [60, 0.7],
    [60, 0],
  ])('keeps its promise: %i steady days, correlation %d, hold zero nineteen times in twenty', (days, correlation) => {
    const random = seededRandom(9)
    const DIARIES = 300
    let held = 0
    for (let i = 0; i < DIARIES; i += 1) {
      const { rate } = readDiaryTrend(steadyDiary(random, { days, correlation }))
      if (!rate || Math.abs(rate.perWeek) <= rate.error) held += 1
    }
    expect(held / DIARIES).toBeGreaterThanOrEqual(0.95)
  })

  it('learns how long the noise lasts, and stays with what is assumed while it is short', () => {
    const random = seededRandom(4)
    const learnt = (correlation: number, days = 400) =>
      diaryNoise(
        steadyDiary(random, { days, correlation, missed: 0 }).map(({ day, weightKg }) => ({
          day: dayNumber(day),
          value: weightKg,
        })),
      )
    expect(learnt(0.8).correlation).toBeGreaterThan(0.65)
    expect(learnt(0).correlation).toBeLessThan(0.3)
    expect(learnt(0.5).sd).toBeCloseTo(0.007 * 72, 1)
    expect(learnt(0.5, 3)).toEqual({ sd: expect.closeTo(0.504, 1), correlation: 0.5 })
  })
})
