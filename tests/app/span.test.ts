import { describe, expect, it } from 'vitest'
import { spanOption } from '../../app/components/span/span-option'
import { chartCourses, chartSeries } from '../../app/components/span/span-series'
import { tapeScale, tapeTicks } from '../../app/components/span/time-tape'
import { diaryOption } from '../../app/components/diary/diary-option'
import { setStudioZone, studioZone } from '~/composables/useDays'
import { ASSUMED_NOISES, endFigures, followedEnd } from '../../core/following'
import { PROTOCOLS, type Protocol } from '../../core/protocols'
import { readDiaryTrend } from '../../core/trend'
import { takeHomeChart } from '../../server/take-home/chart'
import type { FollowedEnd } from '../../shared/following'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import { rounds, weight } from '../support/readings'
import { COLOURS } from '../support/charts'

const DAY = 86_400_000
const person = { sex: 'female' as const, birthDate: '1992-03-14', heightCm: 174 }
const FOLDS = [14, 13, 8, 10, 15, 20, 22]

function end(day: string, share: number, kg: number, protocol: Protocol = PROTOCOLS['laboratory-7']): FollowedEnd {
  const values = protocol.sites.map((_, i) => (FOLDS[i] ?? 12) * share)
  const startedAt = `${day}T17:00:00.000Z`
  const facts = {
    person,
    protocol,
    startedAt,
    readings: [weight(kg), ...rounds(protocol, values, values)],
    strikes: [],
  }
  return { ...followedEnd(facts), record: { id: day, startedAt } as CheckinRecord }
}

describe('the tape of time', () => {
  const first = Date.parse('2026-06-01T12:00:00Z')
  const last = Date.parse('2026-11-23T12:00:00Z')

  it('lays instants out in proportion, with room for a jaw at both ends', () => {
    const at = tapeScale(first, last, 1280)
    expect([at(first), at(last)]).toEqual([28, 1252])
    expect(at((first + last) / 2)).toBeCloseTo(640, 9)
    expect(tapeScale(first, first, 400)(first)).toBe(28)
  })

  it('ticks every week and names as many months as have room', () => {
    const ticks = tapeTicks(first, last, 1280)
    const weeks = ticks.filter(({ long }) => !long).map(({ x }) => x)
    const week = (7 / 175) * (1280 - 56)
    weeks.slice(1).forEach((x, i) => expect(x - (weeks[i] ?? 0)).toBeCloseTo(week, 0))
    expect(ticks.flatMap(({ label }) => label ?? [])).toEqual(['Jun 2026', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov'])
    const narrow = tapeTicks(first, last, 300).filter(({ label }) => label)
    expect(narrow.length).toBeLessThan(4)
    narrow.slice(1).forEach(({ x }, i) => expect(x - (narrow[i]?.x ?? 0)).toBeGreaterThanOrEqual(78))
  })

  it('begins a month where it begins for the studio, summer time or not', () => {
    const before = studioZone()
    setStudioZone('Pacific/Auckland')
    const months = tapeTicks(Date.parse('2026-03-10T00:00:00Z'), Date.parse('2026-11-20T00:00:00Z'), 1280)
    setStudioZone(before)
    const scale = tapeScale(Date.parse('2026-03-10T00:00:00Z'), Date.parse('2026-11-20T00:00:00Z'), 1280)
    // There the clocks go back on 5 April and forward on 27 September 2026 (New Zealand’s rule, recalled).
    const begins = ['2026-03-31T11:00Z', '2026-04-30T12:00Z', '2026-08-31T12:00Z', '2026-09-30T11:00Z']
    const ticks = months.filter(({ long }) => long).map(({ x }) => x)
    for (const at of begins) expect(ticks).toContainEqual(expect.closeTo(scale(Date.parse(at)), 6))
  })

  it('leaves the weeks out where they would run together, and says the year again when it changes', () => {
    const long = tapeTicks(Date.parse('2022-01-10T12:00:00Z'), last, 1280)
    expect(long.every(({ long: is }) => is)).toBe(true)
    const years = long.flatMap(({ label }) => /\d{4}/.exec(label ?? '') ?? [])
    expect(years.map(String)).toEqual(['2022', '2023', '2024', '2025', '2026'])
  })
})

describe('what the span’s chart draws', () => {
  const ends = [
    end('2026-05-01', 1, 75, PROTOCOLS['kinanthropometry-8']),
    end('2026-07-01', 1, 74),
    end('2026-09-01', 0.9, 73),
    end('2026-11-01', 0.8, 72),
  ]
  const [, , , now] = ends
  if (!now) throw new Error('four')
  const settings = { noises: ASSUMED_NOISES, units: { mass: 'kg', length: 'cm' } as const }
  const series = chartSeries(ends, now, settings)

  it('marks what cannot be held against the later jaw', () => {
    expect(series.fat.map(({ comparable }) => comparable)).toEqual([false, true, true, true])
    expect(series.sum.map(({ comparable }) => comparable)).toEqual([false, true, true, true])
  })

  it('gives each point the error of its measuring, and mass the band of the level', () => {
    const variance = endFigures(ends[1] as FollowedEnd).sum?.variance ?? NaN
    expect(series.sum[1]?.value).toBeCloseTo(102, 9)
    expect(series.sum[1]?.error).toBeCloseTo(1.96 * Math.sqrt(variance), 9)
    const fat = series.fat[3]
    // The published error of the women's seven folds: 3.8 points, of 72 kg.
    expect((fat?.high ?? 0) - (fat?.value ?? 0)).toBeCloseTo((3.8 * 72) / 100, 9)
    expect(series.sum[0]?.low).toBeNull()
    const pounds = chartSeries(ends, now, { ...settings, units: { mass: 'lb', length: 'in' } })
    expect(pounds.fat[3]?.value).toBeCloseTo((fat?.value ?? 0) / 0.45359237, 9)
  })

  it('smooths a course through what compares, between the readings and inside its band', () => {
    const { fat, lean, sum, girths } = chartCourses(ends, now, settings)
    expect(girths).toEqual([])
    for (const course of [fat, lean, sum]) {
      expect(course.map(({ at }) => at)).toEqual(series.fat.slice(1).map(({ at }) => at))
      for (const { value, low, high } of course) expect(low < value && value < high).toBe(true)
    }
    // Falling from 102 to 81.6 mm: the ends are drawn in, the way is kept.
    expect(sum[0]?.value).toBeGreaterThan(sum[1]?.value ?? NaN)
    expect(sum[1]?.value).toBeGreaterThan(sum[2]?.value ?? NaN)
    const pounds = chartCourses(ends, now, { ...settings, units: { mass: 'lb', length: 'in' } })
    expect(pounds.fat[2]?.low).toBeCloseTo((fat[2]?.low ?? NaN) / 0.45359237, 9)
  })

  it('works a long course out at four dozen check-ins, its first and last among them', () => {
    const long = Array.from({ length: 100 }, (_, i) =>
      end(new Date(Date.parse('2024-01-01') + i * 7 * DAY).toISOString().slice(0, 10), 1 - i / 400, 75),
    )
    const { sum } = chartCourses(long, long.at(-1) as FollowedEnd, settings)
    expect(sum).toHaveLength(48)
    expect(sum[0]?.at).toBe(Date.parse(long[0]?.facts.startedAt ?? ''))
    expect(sum.at(-1)?.at).toBe(Date.parse(long.at(-1)?.facts.startedAt ?? ''))
  })

  it('puts lean and fat on scales of one length, and leaves masses out in neutral mode', () => {
    const courses = chartCourses(ends, now, settings)
    const about = {
      courses,
      units: settings.units,
      colours: COLOURS,
      sumName: 'Sum of seven',
      massHidden: false,
      first: Date.parse('2026-05-01'),
      last: Date.parse('2026-11-01'),
    }
    const { yAxis, series: drawn } = spanOption(series, about) as unknown as {
      yAxis: { name: string; min: number; max: number }[]
      series: { type: string; name: string; data: unknown[]; lineStyle?: { type?: string } }[]
    }
    const [lean, fat, sum] = yAxis
    // The published error of the women's seven folds: 3.8 points, of 72 kg.
    const level = '  {level|level ± 2.7}'
    expect([lean?.name, fat?.name, sum?.name]).toEqual([`Lean, kg${level}`, `Fat, kg${level}`, 'Sum of seven, mm'])
    expect(Math.abs((lean?.max ?? 0) - (lean?.min ?? 0) - ((fat?.max ?? 0) - (fat?.min ?? 0)))).toBeLessThanOrEqual(1)
    const dashed = drawn.filter(({ lineStyle }) => lineStyle?.type === 'dashed')
    expect(dashed.map(({ data }) => data.length)).toEqual([1, 1, 1])
    const neutral = spanOption(series, { ...about, massHidden: true }) as unknown as { yAxis: { name: string }[] }
    expect(neutral.yAxis.map(({ name }) => name)).toEqual(['Sum of seven, mm'])
  })
})

describe('the diary’s chart', () => {
  it('draws every weigh-in, the trend inside its band, and visits since the diary began', () => {
    const days = Array.from({ length: 20 }, (_, i) => new Date(Date.UTC(2026, 9, 1 + i)).toISOString().slice(0, 10))
    const { points } = readDiaryTrend(days.map((day, i) => ({ day, weightKg: 72 - 0.02 * i + (i % 3) * 0.2 })))
    const visits = [
      { at: '2026-09-01T17:00:00Z', weightKg: 73 },
      { at: '2026-10-10T17:00:00Z', weightKg: 72.4 },
    ]
    const { series } = diaryOption(points, visits, {
      units: { mass: 'kg', length: 'cm' },
      colours: COLOURS,
    }) as unknown as { series: { name: string; data: [number, number][] }[] }
    const [low, width, trend, dots, rings] = series.map(({ data }) => data)
    expect(dots).toHaveLength(20)
    expect(rings).toEqual([[Date.parse('2026-10-10T12:00:00Z'), 72.4]])
    trend?.forEach(([, level], i) => {
      const bottom = low?.[i]?.[1] ?? NaN
      expect(level).toBeGreaterThan(bottom)
      expect(level).toBeLessThan(bottom + (width?.[i]?.[1] ?? NaN))
    })
  })
})

describe('the chart to take home', () => {
  const points = [0, 40, 80].map((day, i) => ({ at: Date.parse('2026-08-01') + day * DAY, value: 20 - i, error: 0.5 }))
  const course = points.map(({ at, value }) => ({ at, value, low: value - 0.3, high: value + 0.3 }))
  const line = { name: 'Fat, kg', colour: '#b4601a', points, course }

  it('holds a dot and a whisker a check-in, and shades the span inside its axes', () => {
    const svg = takeHomeChart([line], { from: points[0]?.at ?? 0, to: points[2]?.at ?? 0 })
    expect(svg.match(/<circle/g)).toHaveLength(3)
    // The smoothed course and its band.
    expect(svg.match(/<path/g)).toHaveLength(2)
    expect(takeHomeChart([{ ...line, course: [] }], null)).not.toContain('<path')
    const [, x = '', width = ''] = /<rect x="([\d.]+)" y="12" width="([\d.]+)"/.exec(svg) ?? []
    expect(Number(x) + Number(width)).toBeLessThanOrEqual(515)
    expect(svg).toContain('Fat, kg')
  })

  it('clamps a span that begins before what can be drawn, and writes names safely', () => {
    const svg = takeHomeChart([{ ...line, name: 'Fat <kg> & "more"' }], { from: 0, to: points[2]?.at ?? 0 })
    const [, x = ''] = /<rect x="([\d.-]+)"/.exec(svg) ?? []
    expect(Number(x)).toBeGreaterThanOrEqual(0)
    expect(svg).toContain('Fat &#60;kg&#62; &#38; &#34;more&#34;')
  })
})
