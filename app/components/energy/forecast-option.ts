import type { EChartsCoreOption } from 'echarts/core'
import { ruleOfThumbKg, type ForecastPoint } from '#core/energy'
import { kgToMass, type Units } from '#core/units'
import type { WhatIf } from '#shared/what-if'
import { band } from '../span/behind'
import { chartBase, timeAxis, valueAxis } from '../span/chart-parts'
import type { ChartColours } from '../span/theme'

const DAY_MS = 24 * 60 * 60 * 1000

/** What the lines of a forecast are called. */
export const WAYS = { 'eat-less': 'eat 200 kcal less', 'train-more': 'train two hours a week more' } as const

/** A forecast of weight on the scale with the band of its readings, the rule of thumb beside it, and other ways laid over it. */
export function forecastOption(
  found: WhatIf,
  points: readonly ForecastPoint[],
  { units, colours, from }: { units: Units; colours: ChartColours; from: number },
): EChartsCoreOption {
  const mass = (kg: number) => kgToMass(kg, units.mass)
  const at = (day: number) => from + day * DAY_MS
  const line = { type: 'line', symbol: 'none', z: 3 }
  const start = found.course[0]?.weightKg ?? 0
  const change = found.plan.kcal - found.energy.dailyKcal
  const rule = found.rule ? found.days.map((day) => [at(day), mass(start + ruleOfThumbKg(change, day))]) : []
  const bounds = points.flatMap(({ scaleLow, scaleHigh }) => [mass(scaleLow), mass(scaleHigh)])
  const values = [...found.course, ...found.others.flatMap(({ course }) => course)].map((one) => mass(one.scaleKg))
  const all = [...bounds, ...values]
  return {
    ...chartBase(colours),
    grid: { left: 48, right: 18, top: 32, bottom: 28 },
    xAxis: {
      ...timeAxis(colours, found.days.length > 18 ? 'MMM yy' : 'd MMM'),
      min: from,
      max: at(found.days.at(-1) ?? 1),
    },
    yAxis: {
      ...valueAxis(colours, `Weight, ${units.mass}`, colours.weight),
      min: Math.floor(Math.min(...all) - 0.2),
      max: Math.ceil(Math.max(...all) + 0.2),
      splitNumber: 4,
    },
    series: [
      ...band({
        colour: colours.weight,
        grid: 0,
        points: points.map(({ day, scaleLow, scaleHigh }) => ({
          at: at(day),
          low: mass(scaleLow),
          high: mass(scaleHigh),
        })),
      }),
      {
        ...line,
        name: 'Forecast',
        data: found.course.map(({ day, scaleKg }) => [at(day), mass(scaleKg)]),
        lineStyle: { color: colours.weight, width: 2.5 },
        itemStyle: { color: colours.weight },
      },
      {
        ...line,
        name: 'Rule of thumb',
        data: rule,
        lineStyle: { color: colours.faded, width: 1.6, type: 'dashed' },
        itemStyle: { color: colours.faded },
      },
      ...found.others.map(({ id, course }) => ({
        ...line,
        name: WAYS[id],
        data: course.map(({ day, scaleKg }) => [at(day), mass(scaleKg)]),
        lineStyle: { color: id === 'eat-less' ? colours.fat : colours.lean, width: 1.8 },
        itemStyle: { color: id === 'eat-less' ? colours.fat : colours.lean },
      })),
    ],
  }
}
