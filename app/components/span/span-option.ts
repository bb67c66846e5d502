import type { EChartsCoreOption } from 'echarts/core'
import type { Units } from '#core/units'
import { band, whiskers, type Drawn } from './behind'
import { chartBase, timeAxis, valueAxis } from './chart-parts'
import type { ChartSeries } from './span-series'
import type { ChartColours } from './theme'

/** Left and right of every grid, pixels: the shaded span is laid over the chart by them. */
export const GRID = { left: 48, right: 18 } as const

const GRIDS = [
  { top: '7%', height: '25%' },
  { top: '40%', height: '25%' },
  { top: '73%', height: '19%' },
]

/** A chart of fewer months than four is labelled by days: months alone would stand there twice. */
const FEW_MONTHS_MS = 120 * 24 * 60 * 60 * 1000

/** More points than this are drawn as a line without a mark each. */
const DENSE = 80

/** Fat and lean get ranges of the same length, so that a kilogram is as tall in one as in the other. */
function ranges(lines: readonly Drawn[]): { min: number; max: number }[] {
  const bounds = lines.map(({ points }) => {
    const low = Math.min(...points.map(({ low, value, error }) => low ?? value - error))
    const high = Math.max(...points.map(({ high, value, error }) => high ?? value + error))
    return { low, high }
  })
  const massSpan = Math.max(...bounds.slice(0, 2).map(({ low, high }) => high - low))
  return bounds.map(({ low, high }, i) => {
    const middle = (low + high) / 2
    const half = (i < 2 ? massSpan : high - low) / 2
    return Number.isFinite(middle)
      ? { min: Math.floor(middle - half), max: Math.ceil(middle + half) }
      : { min: 0, max: 1 }
  })
}

function lineSeries({ name, colour, grid, symbol, points }: Drawn, sheet: string) {
  const common = {
    type: 'line',
    name,
    xAxisIndex: grid,
    yAxisIndex: grid,
    // So close together that marks would only thicken the line: there the whiskers tell the check-ins apart.
    showSymbol: points.length <= DENSE,
    showAllSymbol: true,
    symbolSize: 8,
    z: 3,
  }
  const pairs = (comparable: boolean) =>
    points.filter((point) => point.comparable === comparable).map(({ at, value }) => [at, value])
  const others = pairs(false)
  return [
    { ...common, symbol, data: pairs(true), lineStyle: { color: colour, width: 2.5 }, itemStyle: { color: colour } },
    // What cannot be held against the later check-in stands apart: open and dashed.
    ...(others.length > 0
      ? [
          {
            ...common,
            symbol: 'circle',
            data: others,
            lineStyle: { color: colour, width: 1.5, type: 'dashed' },
            itemStyle: { color: sheet, borderColor: colour, borderWidth: 1.5 },
          },
        ]
      : []),
  ]
}

/** Lean mass, fat mass and sum of folds over time, each with the error of its measuring. */
export function spanOption(
  series: ChartSeries,
  about: { units: Units; colours: ChartColours; sumName: string; massHidden: boolean; first: number; last: number },
): EChartsCoreOption {
  const { units, colours, sumName, massHidden, first, last } = about
  const all: Drawn[] = [
    { name: `Lean, ${units.mass}`, colour: colours.lean, grid: 0, symbol: 'circle', points: series.lean },
    { name: `Fat, ${units.mass}`, colour: colours.fat, grid: 1, symbol: 'diamond', points: series.fat },
    { name: `${sumName}, mm`, colour: colours.sum, grid: 2, symbol: 'rect', points: series.sum },
  ]
  const girths = series.girths.map(({ name, points }): Drawn => ({
    name,
    colour: colours.girth,
    grid: 3,
    symbol: 'triangle',
    points,
  }))
  const drawn = [...all, ...girths]
    .filter(({ grid, points }) => points.length > 0 && (grid >= 2 || !massHidden))
    .slice(0, 4)
  const lines = drawn.map((line, i) => ({ ...line, grid: i }))
  const grids =
    lines.length === 3 && girths.length === 0
      ? GRIDS
      : lines.map((_, i) => ({ top: `${8 + (i * 88) / lines.length}%`, height: `${72 / lines.length}%` }))
  const bounds =
    lines.length === 3 && girths.length === 0
      ? ranges(lines)
      : lines.map((line) => ranges([line])[0] ?? { min: 0, max: 1 })
  const lowest = lines.length - 1
  const time = timeAxis(colours, last - first < FEW_MONTHS_MS ? 'd MMM' : 'MMM yy')
  return {
    ...chartBase(colours),
    // Labels keep to the margins given: measuring them to make room takes longer than drawing them.
    grid: grids.map((grid) => ({ ...grid, ...GRID, outerBoundsMode: 'none' })),
    axisPointer: { link: [{ xAxisIndex: 'all' }] },
    xAxis: lines.map(({ grid }) => ({
      ...time,
      gridIndex: grid,
      min: first,
      max: last,
      axisTick: { ...time.axisTick, show: grid === lowest },
      axisLabel: { ...time.axisLabel, show: grid === lowest },
    })),
    yAxis: lines.map(({ grid, name, colour }) => {
      const axis = valueAxis(colours, name, colour)
      return {
        ...axis,
        gridIndex: grid,
        ...bounds[grid],
        nameLocation: 'end',
        nameGap: 8,
        splitNumber: 3,
        axisLabel: { ...axis.axisLabel, showMinLabel: false, showMaxLabel: false },
      }
    }),
    series: lines.flatMap((line) => [...band(line), whiskers(line), ...lineSeries(line, colours.sheet)]),
  }
}
