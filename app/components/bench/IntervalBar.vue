<script setup lang="ts">
/** A value with its interval against a scale with marks: a ruler, a line and a point. */
const props = defineProps<{
  value: number
  low: number
  high: number
  from: number
  to: number
  /** Where the marks of the trade are, and what stands without a bias. */
  marks: readonly number[]
  /** Words for who cannot see it. */
  label: string
  tone?: 'sum' | 'girth' | 'ink'
}>()
const WIDTH = 240
const at = (value: number) => {
  const share = (value - props.from) / (props.to - props.from)
  return Math.round(Math.min(1, Math.max(0, share)) * WIDTH * 10) / 10
}
const ticks = computed(() => {
  const step = (props.to - props.from) / 10
  return Array.from({ length: 11 }, (_, i) => at(props.from + i * step))
})
const beyond = computed(() => props.high > props.to)
</script>

<template>
  <svg
    :viewBox="`-4 0 ${WIDTH + 8} 22`"
    class="h-6 w-full min-w-32"
    role="img"
    :aria-label="label"
    preserveAspectRatio="none"
  >
    <path :d="`M0 19H${WIDTH}`" class="stroke-rule" vector-effect="non-scaling-stroke" />
    <path v-for="x in ticks" :key="x" :d="`M${x} 19v-3`" class="stroke-rule" vector-effect="non-scaling-stroke" />
    <path
      v-for="mark in marks"
      :key="mark"
      :d="`M${at(mark)} 19V1`"
      class="stroke-contour"
      stroke-dasharray="2 3"
      vector-effect="non-scaling-stroke"
    />
    <path
      :d="`M${at(low)} 9H${at(high)}M${at(low)} 5v8${beyond ? '' : `M${at(high)} 5v8`}`"
      :class="{ 'stroke-sum': tone === 'sum', 'stroke-girth': tone === 'girth', 'stroke-ink': !tone || tone === 'ink' }"
      stroke-width="2"
      fill="none"
      vector-effect="non-scaling-stroke"
    />
    <path
      :d="`M${at(value)} 4v10`"
      :class="{ 'stroke-sum': tone === 'sum', 'stroke-girth': tone === 'girth', 'stroke-ink': !tone || tone === 'ink' }"
      stroke-width="5"
      vector-effect="non-scaling-stroke"
    />
  </svg>
</template>
