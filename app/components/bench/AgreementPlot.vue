<script setup lang="ts">
import type { Agreement } from '#core/study'
import { formatChange, formatNumber } from '#core/units'

/** Differences against means, with bias and limits: one point a person. Drawn as what it is, a scale with ticks. */
const props = defineProps<{
  agreement: Agreement
  pairs: readonly (readonly [number, number])[]
  unit: string
  label: string
}>()
const [WIDTH, HEIGHT] = [460, 230]
const isLog = computed(() => props.agreement.scale === 'log')
const points = computed(() =>
  props.pairs.map(([a, b]) => ({ x: (a + b) / 2, y: isLog.value ? 100 * (b / a - 1) : b - a })),
)
const shown = (value: number) => (isLog.value ? 100 * (value - 1) : value)
const lines = computed(() => {
  const { bias, lower, upper } = props.agreement
  return [
    { name: 'upper limit', ...spread(upper) },
    { name: 'bias', ...spread(bias) },
    { name: 'lower limit', ...spread(lower) },
  ]
})
function spread({ value, low, high }: Agreement['bias']) {
  return { value: shown(value), low: shown(low), high: shown(high) }
}
const range = computed(() => {
  const ys = [...points.value.map(({ y }) => y), ...lines.value.flatMap(({ low, high }) => [low, high]), 0]
  const xs = points.value.map(({ x }) => x)
  const pad = (Math.max(...ys) - Math.min(...ys)) * 0.06 || 1
  const padX = (Math.max(...xs) - Math.min(...xs)) * 0.06 || 1
  return {
    x: [Math.min(...xs) - padX, Math.max(...xs) + padX] as const,
    y: [Math.min(...ys) - pad, Math.max(...ys) + pad] as const,
  }
})
const xAt = (x: number) => 48 + ((x - range.value.x[0]) / (range.value.x[1] - range.value.x[0])) * (WIDTH - 120)
const yAt = (y: number) => 8 + (1 - (y - range.value.y[0]) / (range.value.y[1] - range.value.y[0])) * (HEIGHT - 40)
function steps([low, high]: readonly [number, number], most: number) {
  const rough = (high - low) / most
  const size = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((times) => times * size).find((one) => one >= rough) ?? rough
  const first = Math.ceil(low / step) * step
  return Array.from(
    { length: Math.floor((high - first) / step) + 1 },
    (_, i) => Math.round((first + i * step) / step) * step,
  )
}
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" class="w-full" role="img" :aria-label="label" font-size="12">
      <g v-for="line in lines" :key="line.name">
        <rect
          x="48"
          :y="yAt(line.high)"
          :width="WIDTH - 120"
          :height="Math.max(0.5, yAt(line.low) - yAt(line.high))"
          :class="line.name === 'bias' ? 'fill-sum' : 'fill-contour'"
          opacity="0.14"
        />
        <path
          :d="`M48 ${yAt(line.value)}H${WIDTH - 72}`"
          :class="line.name === 'bias' ? 'stroke-sum' : 'stroke-contour'"
          stroke-width="1.6"
          :stroke-dasharray="line.name === 'bias' ? undefined : '5 4'"
        />
        <text :x="WIDTH - 68" :y="yAt(line.value) + 4" class="figure fill-ink">
          {{ formatChange(line.value) }}{{ isLog ? ' %' : '' }}
        </text>
      </g>
      <path :d="`M48 ${yAt(0)}H${WIDTH - 72}`" class="stroke-rule" />
      <path :d="`M48 8V${HEIGHT - 32}H${WIDTH - 72}`" class="stroke-ink" fill="none" />
      <g v-for="y in steps(range.y, 6)" :key="`y${y}`">
        <path :d="`M48 ${yAt(y)}h-5`" class="stroke-ink" />
        <text x="40" :y="yAt(y) + 4" text-anchor="end" class="figure fill-faded">
          {{ formatNumber(y, Math.abs(y) < 3 && y % 1 !== 0 ? 1 : 0) }}
        </text>
      </g>
      <g v-for="x in steps(range.x, 7)" :key="`x${x}`">
        <path :d="`M${xAt(x)} ${HEIGHT - 32}v5`" class="stroke-ink" />
        <text :x="xAt(x)" :y="HEIGHT - 12" text-anchor="middle" class="figure fill-faded">
          {{ formatNumber(x, 0) }}
        </text>
      </g>
      <circle
        v-for="(point, i) in points"
        :key="i"
        :cx="xAt(point.x)"
        :cy="yAt(point.y)"
        r="3.5"
        class="fill-sheet stroke-ink"
        stroke-width="1.4"
      />
    </svg>
    <figcaption class="text-sm text-faded">
      Across: the mean of both, {{ unit }}. Up: the difference, {{ isLog ? 'percent of the reference' : unit }}. Solid:
      bias; dashed: where 95 % of differences lie; shaded: their intervals.
    </figcaption>
  </figure>
</template>
