import { format } from 'date-fns'
import type { EChartsCoreOption } from 'echarts/core'
import type { DiaryPoint } from '#core/trend'
import { formatNumber, kgToMass, type Units } from '#core/units'
import { CHART_FONT, FIGURE_FONT, type ChartColours } from '../span/theme'

/** Daily weigh-ins as dots, the trend as a line with its 95 % band, check-ins as rings. */
export function diaryOption(
  points: readonly DiaryPoint[],
  visits: readonly { at: string; weightKg: number }[],
  { units, colours, weight }: { units: Units; colours: ChartColours; weight: string },
): EChartsCoreOption {
  const mass = (kg: number) => kgToMass(kg, units.mass)
  const time = (day: string) => Date.parse(`${day.slice(0, 10)}T12:00:00Z`)
  const quiet = {
    type: 'line',
    name: '',
    stack: 'band',
    stackStrategy: 'all',
    symbol: 'none',
    silent: true,
    tooltip: { show: false },
    lineStyle: { opacity: 0 },
  }
  const first = time(points[0]?.day ?? '')
  return {
    animation: false,
    textStyle: { fontFamily: CHART_FONT },
    grid: { left: 48, right: 18, top: 28, bottom: 28 },
    tooltip: {
      trigger: 'axis',
      backgroundColor: colours.sheet,
      borderColor: colours.ink,
      textStyle: { color: colours.ink, fontFamily: CHART_FONT },
      valueFormatter: (value: unknown) => (typeof value === 'number' ? formatNumber(value, 1) : ''),
    },
    xAxis: {
      type: 'time',
      min: first,
      axisLine: { lineStyle: { color: colours.ink } },
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
      scale: true,
      name: `Weight, ${units.mass}`,
      nameTextStyle: { color: weight, fontWeight: 650, fontSize: 14, align: 'left', padding: [0, 0, 0, -40] },
      axisLabel: { color: colours.faded, fontFamily: FIGURE_FONT, fontSize: 13 },
      splitLine: { lineStyle: { color: colours.rule } },
    },
    series: [
      { ...quiet, data: points.map(({ day, level, error }) => [time(day), mass(level - error)]) },
      {
        ...quiet,
        data: points.map(({ day, error }) => [time(day), mass(2 * error)]),
        areaStyle: { color: weight, opacity: 0.18 },
      },
      {
        type: 'line',
        name: 'Trend',
        symbol: 'none',
        data: points.map(({ day, level }) => [time(day), mass(level)]),
        lineStyle: { color: weight, width: 2.5 },
        itemStyle: { color: weight },
      },
      {
        type: 'scatter',
        name: 'Weigh-in',
        symbolSize: 5,
        data: points.map(({ day, weightKg }) => [time(day), mass(weightKg)]),
        itemStyle: { color: colours.faded, opacity: 0.75 },
      },
      {
        type: 'scatter',
        name: 'At the check-in',
        symbol: 'emptyCircle',
        symbolSize: 11,
        data: visits.filter(({ at }) => time(at) >= first).map(({ at, weightKg }) => [time(at), mass(weightKg)]),
        itemStyle: { color: colours.ink },
      },
    ],
  }
}
