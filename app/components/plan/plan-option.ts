import { format } from 'date-fns'
import type { EChartsCoreOption } from 'echarts/core'
import { forecastAt, type Against, type PlanLine } from '#core/plan'
import { formatNumber } from '#core/units'
import { band, whiskers } from '../span/behind'
import type { ChartPoint } from '../span/span-series'
import { CHART_FONT, FIGURE_FONT, type ChartColours } from '../span/theme'

const DAY_MS = 24 * 60 * 60 * 1000

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
  const end = start + Math.max(7, Math.ceil(line.weeks * 7)) * DAY_MS
  const last = Math.max(end, ...measured.map(({ at }) => Date.parse(at)))
  const STEPS = 24
  const planned = Array.from({ length: STEPS + 1 }, (_, i) => {
    const at = start + ((last - start) * i) / STEPS
    const { planned: value, band: half } = forecastAt(line, new Date(at).toISOString())
    return point(at, scale(value), 0, scale(half))
  })
  const happened = [
    point(start, scale(line.from), scale(line.startError), null),
    ...measured.map(({ at, measured: value, change }) =>
      point(Date.parse(at), scale(value), scale(change.error), null),
    ),
  ]
  const all = [...planned, ...happened]
  const low = Math.min(...all.map(({ low, value, error }) => low ?? value - error))
  const high = Math.max(...all.map(({ high, value, error }) => high ?? value + error))
  const dashed = { color: colours.ink, width: 1.8, type: 'dashed' as const }
  const common = { type: 'line', symbol: 'none', z: 3 }
  return {
    animation: false,
    textStyle: { fontFamily: CHART_FONT },
    grid: { left: 48, right: 18, top: 32, bottom: 28 },
    tooltip: {
      trigger: 'axis',
      backgroundColor: colours.sheet,
      borderColor: colours.ink,
      textStyle: { color: colours.ink, fontFamily: CHART_FONT },
      valueFormatter: (value: unknown) => (typeof value === 'number' ? formatNumber(value, 1) : ''),
    },
    xAxis: {
      type: 'time',
      min: start - 2 * DAY_MS,
      max: last + 2 * DAY_MS,
      axisLine: { lineStyle: { color: colours.ink }, onZero: false },
      axisTick: { lineStyle: { color: colours.faded } },
      axisLabel: {
        color: colours.faded,
        fontSize: 13,
        hideOverlap: true,
        formatter: (at: number) => format(at, 'd MMM'),
      },
      axisPointer: { label: { formatter: ({ value }: { value: number }) => format(value, 'd MMM yyyy') } },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      min: Math.max(0, Math.floor(low)),
      max: Math.ceil(high),
      name,
      nameTextStyle: { color: colour, fontWeight: 650, fontSize: 14, align: 'left', padding: [0, 0, 0, -40] },
      splitNumber: 4,
      axisLabel: { color: colours.faded, fontFamily: FIGURE_FONT, fontSize: 13, showMaxLabel: false },
      splitLine: { lineStyle: { color: colours.rule } },
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
