import { describe, expect, it } from 'vitest'
import { band, course, whiskers } from '../../app/components/span/behind'
import { spanOption } from '../../app/components/span/span-option'
import type { ChartCourses, ChartPoint, ChartSeries } from '../../app/components/span/span-series'
import { COLOURS } from '../support/charts'

const DAY = 86_400_000
const point = (i: number, change: Partial<ChartPoint> = {}): ChartPoint => ({
  at: i * DAY,
  value: 50 + i,
  error: 2,
  low: 45 + i,
  high: 55 + i,
  comparable: true,
  ...change,
})

interface Custom {
  data: number[][]
  clip: boolean
  renderItem: (
    about: unknown,
    pen: { coord: (at: [number, number]) => [number, number] },
  ) => {
    type: string
    shape: { pathData: string }
    style: Record<string, unknown>
  }
}

/** A tenth of a pixel a day, ten a unit, downwards. */
const pen = { coord: ([at, value]: [number, number]): [number, number] => [at / DAY, 1000 - 10 * value] }
const drawn = (series: unknown) => (series as Custom).renderItem(null, pen)

describe('what is drawn behind a line', () => {
  const line = { colour: '#264', grid: 1, points: [point(0), point(1), point(2, { error: 3 })] }

  it('whiskers: one stroke a point, from value and error down to value less error', () => {
    const series = whiskers(line) as unknown as Custom
    expect(series.data).toHaveLength(1)
    expect(series.clip).toBe(true)
    const { type, shape, style } = drawn(series)
    expect(type).toBe('path')
    expect(shape.pathData).toBe('M0.0 480.0L0.0 520.0M1.0 470.0L1.0 510.0M2.0 450.0L2.0 510.0')
    expect(style).toMatchObject({ stroke: '#264', fill: 'none' })
  })

  it('a band: along the top, back along the bottom, closed', () => {
    const [series, ...more] = band(line)
    expect(more).toEqual([])
    expect(drawn(series).shape.pathData).toBe('M0.0 450.0L1.0 440.0L2.0 430.0L2.0 530.0L1.0 540.0L0.0 550.0Z')
  })

  it('no band where no bounds are known, and none around what does not compare', () => {
    expect(band({ ...line, points: [point(0, { low: null, high: null })] })).toEqual([])
    const [series] = band({ ...line, points: [point(0), point(1, { comparable: false }), point(2)] })
    expect(drawn(series).shape.pathData.match(/L/g)).toHaveLength(3)
    expect(band({ ...line, points: [] })).toEqual([])
  })
})

describe('a smoothed course', () => {
  const places = [0, 1, 2].map((i) => ({ at: i * DAY, value: 50 - i, low: 48 - i, high: 52 - i }))

  it('is one line through its best estimates, its band behind it', () => {
    const [behind, line, ...more] = course({ colour: '#264', grid: 1, points: [] }, places)
    expect(more).toEqual([])
    expect(drawn(behind).shape.pathData).toBe('M0.0 480.0L1.0 490.0L2.0 500.0L2.0 540.0L1.0 530.0L0.0 520.0Z')
    expect(drawn(line).shape.pathData).toBe('M0.0 500.0L1.0 510.0L2.0 520.0')
    expect(drawn(line).style).toMatchObject({ stroke: '#264', fill: 'none' })
  })

  it('is not there where nothing can be compared', () => {
    expect(course({ colour: '#264', grid: 1, points: [] }, [])).toEqual([])
  })
})

describe('the chart of a span', () => {
  const about = {
    units: { mass: 'kg', length: 'cm' } as const,
    colours: COLOURS,
    sumName: 'Sum of seven',
    massHidden: false,
    first: 0,
    last: 9,
    courses: null,
  }
  const many = (count: number): ChartSeries => {
    const points = Array.from({ length: count }, (_, i) => point(i))
    return { lean: points, fat: points, sum: points, girths: [] }
  }
  type Line = { type: string; name: string; showSymbol: boolean }
  const lines = (series: ChartSeries, change = {}) =>
    ((spanOption(series, { ...about, ...change }).series ?? []) as Line[]).filter(({ type }) => type === 'line')

  it('marks every check-in while they stand apart, and leaves the marks out where they would run together', () => {
    expect(lines(many(80)).every(({ showSymbol }) => showSymbol)).toBe(true)
    expect(lines(many(81)).some(({ showSymbol }) => showSymbol)).toBe(false)
  })

  it('draws a check-in of many with as many series as one of few', () => {
    const count = (series: ChartSeries) => (spanOption(series, about).series as unknown[]).length
    expect(count(many(200))).toBe(count(many(3)))
  })

  it('takes the whole band of a course into its scale', () => {
    const places = [
      { at: 0, value: 50, low: 20, high: 51 },
      { at: 2 * DAY, value: 51, low: 49, high: 80 },
    ]
    const courses: ChartCourses = { lean: [], fat: [], sum: places, girths: [] }
    const { yAxis } = spanOption(many(3), { ...about, courses }) as unknown as { yAxis: { min: number; max: number }[] }
    expect(yAxis[2]).toMatchObject({ min: 20, max: 80 })
  })

  it('shows only the sum where masses are hidden', () => {
    expect(lines(many(3), { massHidden: true }).map(({ name }) => name)).toEqual(['Sum of seven, mm'])
  })

  it('labels time under the lowest panel only', () => {
    const { xAxis } = spanOption(many(3), about) as unknown as {
      xAxis: { axisLabel: { show: boolean }; axisTick: { show: boolean } }[]
    }
    expect(xAxis.map(({ axisLabel }) => axisLabel.show)).toEqual([false, false, true])
    expect(xAxis.map(({ axisTick }) => axisTick.show)).toEqual([false, false, true])
  })
})
