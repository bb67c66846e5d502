<script setup lang="ts">
import type { Tick } from './time-tape'

/** What stays on the tape while the jaws move: its edge, ticks and a mark a check-in; each kind one path. */
const props = defineProps<{ marks: readonly number[]; ticks: readonly Tick[]; width: number }>()

const down = (long: boolean) =>
  props.ticks
    .filter((tick) => tick.long === long)
    .map(({ x }) => `M${x} 50V${long ? 63 : 56}`)
    .join('')
const paths = computed(() => {
  const r = props.marks.length > 90 ? 3 : 6
  const ring = (x: number) => `M${x - r} 36a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`
  return { weeks: down(false), months: down(true), marks: props.marks.map(ring).join('') }
})
const labels = computed(() => props.ticks.filter(({ label }) => label))
</script>

<template>
  <g>
    <line x1="0" :x2="width" y1="50" y2="50" class="stroke-ink" stroke-width="1.5" />
    <path :d="paths.weeks" class="stroke-contour" />
    <path :d="paths.months" class="stroke-faded" />
    <text v-for="{ x, label } in labels" :key="x" :x="x + 4" y="83" class="fill-faded text-[13px]">{{ label }}</text>
    <path :d="paths.marks" stroke-width="2" class="fill-sheet stroke-contour" data-marks />
  </g>
</template>
