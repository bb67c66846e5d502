import type { EChartsCoreOption } from 'echarts/core'
import type { DiaryPoint } from '#core/trend'
import { kgToMass, type Units } from '#core/units'
import { chartBase, timeAxis, valueAxis } from '../span/chart-parts'
import type { ChartColours } from '../span/theme'

/** Daily weigh-ins as dots, the trend as a line with its 95 % band, check-ins as rings. */
export function diaryOption(
  points: readonly DiaryPoint[],
  visits: readonly { at: string; weightKg: number }[],
  { units, colours }: { units: Units; colours: ChartColours },
): EChartsCoreOption {
  const { weight } = colours
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
    ...chartBase(colours),
    grid: { left: 48, right: 18, top: 28, bottom: 28 },
    xAxis: { ...timeAxis(colours, 'd MMM'), min: first },
    yAxis: { ...valueAxis(colours, `Weight, ${units.mass}`, weight), scale: true },
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
