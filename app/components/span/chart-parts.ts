import { sayTime } from '~/composables/useDays'
import { formatNumber } from '#core/units'
import { CHART_FONT, FIGURE_FONT, type ChartColours } from './theme'

/** What every chart over time has: no movement, the page's letters, a tip with one decimal. */
export function chartBase({ sheet, ink }: ChartColours) {
  return {
    animation: false,
    textStyle: { fontFamily: CHART_FONT },
    tooltip: {
      trigger: 'axis',
      backgroundColor: sheet,
      borderColor: ink,
      textStyle: { color: ink, fontFamily: CHART_FONT },
      valueFormatter: (value: unknown) => (typeof value === 'number' ? formatNumber(value, 1) : ''),
    },
  }
}

/** An axis of time; labels by a date-fns pattern. */
export function timeAxis({ ink, faded }: ChartColours, pattern: string) {
  return {
    type: 'time',
    axisLine: { lineStyle: { color: ink }, onZero: false },
    axisTick: { show: true, lineStyle: { color: faded } },
    axisLabel: {
      show: true,
      color: faded,
      fontSize: 13,
      hideOverlap: true,
      // By months: only where one begins, so that none stands there twice.
      formatter: (at: number) => (pattern.includes('d') || new Date(at).getDate() === 1 ? sayTime(at, pattern) : ''),
    },
    axisPointer: { label: { formatter: ({ value }: { value: number }) => sayTime(value, 'd MMM yyyy') } },
    splitLine: { show: false },
  }
}

/** An axis of values, its name above it in its own colour; what stands in `{level|...}` of it is faded. */
export function valueAxis({ faded, rule }: ChartColours, name: string, colour: string) {
  return {
    type: 'value',
    name,
    nameTextStyle: {
      color: colour,
      fontWeight: 650,
      fontSize: 14,
      align: 'left',
      padding: [0, 0, 0, -40],
      rich: { level: { color: faded, fontSize: 13, fontFamily: CHART_FONT } },
    },
    axisLabel: { color: faded, fontFamily: FIGURE_FONT, fontSize: 13 },
    splitLine: { lineStyle: { color: rule } },
  }
}
