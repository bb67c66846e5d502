import type { EChartsCoreOption } from 'echarts/core'
import { formatNumber, type Units } from '#core/units'
import { course, whiskers, type Drawn } from './behind'
import type { DrawnPlan } from './chart-events'
import { chartBase, timeAxis, valueAxis } from './chart-parts'
import type { ChartCourses, ChartSeries, CoursePlace } from './span-series'
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

/** A line of the chart with the course through it. */
type Followed = Drawn & { id: string; course: readonly CoursePlace[] }

/** Fat and lean get ranges of the same length, so that a kilogram is as tall in one as in the other. */
function ranges(lines: readonly Followed[]): { min: number; max: number }[] {
  const bounds = lines.map(({ points, course }) => {
    const low = Math.min(...points.map(({ value, error }) => value - error), ...course.map((one) => one.low))
    const high = Math.max(...points.map(({ value, error }) => value + error), ...course.map((one) => one.high))
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

/** The check-ins: a mark each, joined by nothing. */
function pointSeries({ name, colour, grid, symbol, points }: Drawn, sheet: string) {
  const common = {
    type: 'line',
    name,
    xAxisIndex: grid,
    yAxisIndex: grid,
    // So close together that marks would only thicken the course: there the whiskers tell the check-ins apart.
    showSymbol: points.length <= DENSE,
    showAllSymbol: true,
    symbolSize: 7,
    z: 3,
  }
  const pairs = (comparable: boolean) =>
    points.filter((point) => point.comparable === comparable).map(({ at, value }) => [at, value])
  const others = pairs(false)
  return [
    { ...common, symbol, data: pairs(true), lineStyle: { width: 0 }, itemStyle: { color: colour } },
    // What cannot be compared with the later check-in stands apart: open and dashed.
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

/** The way planned: a thin dotted line. */
function planSeries({ points }: DrawnPlan, { grid, colour }: Drawn) {
  return {
    type: 'line',
    name: 'plan',
    xAxisIndex: grid,
    yAxisIndex: grid,
    data: points,
    showSymbol: false,
    silent: true,
    lineStyle: { color: colour, width: 1.5, type: 'dotted' },
    z: 2,
  }
}

/** How far the level may sit from the equation's line, after a figure's name: it is the same at every check-in. */
function levelSaid({ points }: Drawn): string {
  const latest = points.findLast(({ comparable }) => comparable)
  return latest === undefined || latest.high === null
    ? ''
    : `  {level|level ± ${formatNumber(latest.high - latest.value, 1)}}`
}

/** What a chart is drawn with, besides its points. */
export interface SpanPicture {
  units: Units
  colours: ChartColours
  sumName: string
  massHidden: boolean
  first: number
  last: number
  /** Null: not worked out yet. */
  courses: ChartCourses | null
  /** One figure alone, large. */
  only?: 'fat' | 'lean' | 'sum' | null
  /** The way a plan means its figure to go. */
  plan?: DrawnPlan | null
}

/** Lean mass, fat mass and sum of folds over time: smoothed course with its band, check-ins with the error of measuring. */
export function spanOption(series: ChartSeries, picture: SpanPicture): EChartsCoreOption {
  const { units, colours, sumName, massHidden, first, last, courses, only = null, plan = null } = picture
  const all: Followed[] = [
    {
      id: 'lean',
      name: `Lean, ${units.mass}`,
      colour: colours.lean,
      grid: 0,
      symbol: 'circle',
      points: series.lean,
      course: courses?.lean ?? [],
    },
    {
      id: 'fat',
      name: `Fat, ${units.mass}`,
      colour: colours.fat,
      grid: 1,
      symbol: 'diamond',
      points: series.fat,
      course: courses?.fat ?? [],
    },
    {
      id: 'sum',
      name: `${sumName}, mm`,
      colour: colours.sum,
      grid: 2,
      symbol: 'rect',
      points: series.sum,
      course: courses?.sum ?? [],
    },
  ]
  const girths = series.girths.map(({ name, points }, i): Followed => ({
    id: name,
    name,
    colour: colours.girth,
    grid: 3,
    symbol: 'triangle',
    points,
    course: courses?.girths[i] ?? [],
  }))
  const drawn = [...all, ...girths]
    .filter(({ id, grid, points }) => points.length > 0 && (grid >= 2 || !massHidden) && (!only || id === only))
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
    yAxis: lines.map((line) => {
      const { grid, name, colour } = line
      const axis = valueAxis(colours, `${name}${levelSaid(line)}`, colour)
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
    series: lines.flatMap((line) => [
      ...course(line, line.course),
      whiskers(line),
      ...pointSeries(line, colours.sheet),
      ...(plan?.figure === line.id ? [planSeries(plan, line)] : []),
    ]),
  }
}
