import type { EChartsCoreOption } from 'echarts/core'
import { Z_95 } from '#core/error'
import { addDays, daysBetween, type Day } from '#core/calendar'
import { courseDays, forecastAt, type Against, type PlanLine } from '#core/plan'
import { band, whiskers } from '../span/behind'
import { chartBase, timeAxis, valueAxis } from '../span/chart-parts'
import type { ChartPoint } from '../span/span-series'
import type { ChartColours } from '../span/theme'

const DAY_MS = 24 * 60 * 60 * 1000
/** Points a course is drawn through. */
const STEPS = 24

/** What a plan's chart shows, besides the line itself. */
export interface PlanPicture {
  measured: readonly Against[]
  /** Displayed unit of a value in the target's own. */
  scale: (value: number) => number
  name: string
  colours: ChartColours
  /** Colour of what is measured. */
  colour: string
}

function point(at: number, value: number, error: number, half: number | null): ChartPoint {
  return {
    at,
    value,
    error,
    low: half === null ? null : value - half,
    high: half === null ? null : value + half,
    comparable: true,
  }
}

/** A plan with its band, and what happened beside it with its error. */
export function planOption(line: PlanLine, picture: PlanPicture): EChartsCoreOption {
  const { measured, scale, name, colours, colour } = picture
  const start = Date.parse(line.startedAt)
  // Days are drawn at the hour of the start, so that the line begins at its check-in.
  const placeOf = (day: Day) => start + daysBetween(line.startDay, day) * DAY_MS
  const end = addDays(line.startDay, Math.max(7, Math.ceil(line.weeks * 7)))
  const lastDay = measured.reduce((latest, { day }) => (day > latest ? day : latest), end)
  const last = placeOf(lastDay)
  const planned = courseDays(line.startDay, lastDay, STEPS).map((day) => {
    const { planned: value, band: half } = forecastAt(line, day)
    return point(placeOf(day), scale(value), 0, scale(half))
  })
  const happened = [
    point(start, scale(line.from), scale(line.startError), null),
    ...measured.map(({ at, measured: value, change }) =>
      point(Date.parse(at), scale(value), scale(Z_95 * change.noise.sd), null),
    ),
  ]
  const all = [...planned, ...happened]
  const low = Math.min(...all.map(({ low, value, error }) => low ?? value - error))
  const high = Math.max(...all.map(({ high, value, error }) => high ?? value + error))
  const dashed = { color: colours.ink, width: 1.8, type: 'dashed' as const }
  const common = { type: 'line', symbol: 'none', z: 3 }
  return {
    ...chartBase(colours),
    grid: { left: 48, right: 18, top: 32, bottom: 28 },
    xAxis: { ...timeAxis(colours, 'd MMM'), min: start - 2 * DAY_MS, max: last + 2 * DAY_MS },
    yAxis: {
      ...valueAxis(colours, name, colour),
      min: Math.max(0, Math.floor(low)),
      max: Math.ceil(high),
      splitNumber: 4,
    },
    series: [
      ...band({ colour: colours.ink, grid: 0, points: planned }),
      {
        ...common,
        name: 'Planned',
        data: planned.map(({ at, value }) => [at, value]),
        lineStyle: dashed,
        itemStyle: { color: colours.ink },
      },
      whiskers({ colour, grid: 0, points: happened }),
      {
        ...common,
        name: 'Measured',
        symbol: 'circle',
        symbolSize: 9,
        showAllSymbol: true,
        data: happened.map(({ at, value }) => [at, value]),
        lineStyle: { color: colour, width: 2.5 },
        itemStyle: { color: colour },
      },
    ],
  }
}
