import { format } from 'date-fns'
import type { EChartsCoreOption } from 'echarts/core'
import type { ComposedCheckin } from '#core/composition'
import { formatNumber, kgToMass, type Units } from '#core/units'
import { CHART_FONT, FIGURE_FONT, type ChartColours } from './theme'

type TimePoint = [number, number]

interface Line {
  name: string
  colour: string
  grid: 0 | 1 | 2
  symbol: string
  points: TimePoint[]
}

/** Height share of each grid: fat and lean have a scale of equal length per kilogram only when their ranges match. */
const GRIDS = [
  { top: '6%', height: '25%' },
  { top: '38%', height: '25%' },
  { top: '70%', height: '22%' },
]

function pointsOf(
  history: readonly ComposedCheckin[],
  value: (checkin: ComposedCheckin) => number | null | undefined,
): TimePoint[] {
  return history.flatMap((checkin): TimePoint[] => {
    const y = value(checkin)
    return y === null || y === undefined ? [] : [[Date.parse(checkin.facts.startedAt), y]]
  })
}

function mass(kg: number | undefined, units: Units): number | null {
  return kg === undefined ? null : kgToMass(kg, units.mass)
}

function linesOf(history: readonly ComposedCheckin[], units: Units, colours: ChartColours, sumName: string): Line[] {
  return [
    {
      name: `Lean, ${units.mass}`,
      colour: colours.lean,
      grid: 0,
      symbol: 'circle',
      points: pointsOf(history, ({ result }) => mass(result.masses?.leanKg, units)),
    },
    {
      name: `Fat, ${units.mass}`,
      colour: colours.fat,
      grid: 1,
      symbol: 'diamond',
      points: pointsOf(history, ({ result }) => mass(result.masses?.fatKg, units)),
    },
    {
      name: `${sumName}, mm`,
      colour: colours.sum,
      grid: 2,
      symbol: 'rect',
      points: pointsOf(history, ({ result }) => result.sumMm),
    },
  ]
}

/** Fat and lean get ranges of the same length, so that a kilogram is as tall in one as in the other. */
function rangeOf(points: TimePoint[], span: number): { min: number; max: number } {
  const values = points.map(([, y]) => y)
  const middle = values.length > 0 ? (Math.min(...values) + Math.max(...values)) / 2 : 0
  return { min: Math.floor(middle - span / 2), max: Math.ceil(middle + span / 2) }
}

function spreadOf(points: TimePoint[]): number {
  const values = points.map(([, y]) => y)
  return values.length > 0 ? Math.max(...values) - Math.min(...values) : 0
}

/** Lean, fat and the sum of folds over time, one above the other on one time axis. */
export function trendOption(
  history: readonly ComposedCheckin[],
  units: Units,
  colours: ChartColours,
  sumName: string,
): EChartsCoreOption {
  const lines = linesOf(history, units, colours, sumName)
  const massSpan = Math.max(4, ...lines.slice(0, 2).map(({ points }) => spreadOf(points) * 1.3))
  const axis = { axisLine: { lineStyle: { color: colours.rule } }, axisTick: { lineStyle: { color: colours.faded } } }
  return {
    animation: false,
    textStyle: { fontFamily: CHART_FONT },
    grid: GRIDS.map((grid) => ({ ...grid, left: 48, right: 16 })),
    tooltip: {
      trigger: 'axis',
      backgroundColor: colours.sheet,
      borderColor: colours.ink,
      textStyle: { color: colours.ink, fontFamily: CHART_FONT },
      valueFormatter: (value: unknown) => (typeof value === 'number' ? formatNumber(value, 1) : ''),
    },
    axisPointer: { link: [{ xAxisIndex: 'all' }] },
    xAxis: lines.map(({ grid }) => ({
      type: 'time',
      gridIndex: grid,
      ...axis,
      min: lines[2]?.points[0]?.[0],
      axisLabel: {
        show: grid === 2,
        color: colours.faded,
        fontSize: 13,
        hideOverlap: true,
        formatter: (value: number) => format(value, 'MMM yy'),
      },
      splitLine: { show: false },
      axisPointer: { label: { formatter: ({ value }: { value: number }) => format(value, 'd MMM yyyy') } },
    })),
    yAxis: lines.map(({ grid, points, name, colour }) => ({
      type: 'value',
      gridIndex: grid,
      ...(grid === 2 ? { scale: true } : rangeOf(points, massSpan)),
      name,
      nameLocation: 'end',
      nameGap: 8,
      nameTextStyle: { color: colour, fontWeight: 650, fontSize: 14, align: 'left', padding: [0, 0, 0, -40] },
      splitNumber: 3,
      axisLabel: {
        color: colours.faded,
        fontFamily: FIGURE_FONT,
        fontSize: 13,
        showMinLabel: false,
        showMaxLabel: false,
      },
      splitLine: { lineStyle: { color: colours.rule } },
    })),
    series: lines.map(({ name, colour, grid, symbol, points }) => ({
      type: 'line',
      name,
      xAxisIndex: grid,
      yAxisIndex: grid,
      data: points,
      symbol,
      symbolSize: 8,
      showAllSymbol: true,
      lineStyle: { color: colour, width: 2.5 },
      itemStyle: { color: colour },
    })),
  }
}
