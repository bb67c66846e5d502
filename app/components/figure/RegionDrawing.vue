<script setup lang="ts">
import type { Pair, Region } from '#core/sites/close-ups'
import { smoothCurve } from '#core/sites/curve'

/** The skin lines of a region and what one sees on them, mm; within its frame. */
const props = defineProps<{ region: Region; mirrored?: boolean; /** Width of a stroke, mm. */ stroke: number }>()
const curve = (pairs: readonly Pair[]) =>
  smoothCurve(
    pairs.map(([x, y]) => ({ x: props.mirrored ? props.region.width - x : x, y })),
    false,
  )
</script>

<template>
  <g stroke-linejoin="round" stroke-linecap="round">
    <path
      v-for="(shape, i) in region.shapes"
      :key="i"
      :d="curve(shape)"
      class="fill-skin stroke-contour"
      :stroke-width="1.8 * stroke"
    />
    <g fill="none" class="stroke-contour" :stroke-width="1.1 * stroke" opacity="0.5">
      <path v-for="(line, i) in region.lines" :key="i" :d="curve(line)" />
    </g>
  </g>
</template>
