<script setup lang="ts">
import type { Tick } from './time-tape'

/** What stays on the tape while the jaws move: its edge, ticks and a mark a check-in. */
defineProps<{ marks: readonly number[]; ticks: readonly Tick[]; width: number }>()
</script>

<template>
  <g>
    <line x1="0" :x2="width" y1="50" y2="50" class="stroke-ink" stroke-width="1.5" />
    <g v-for="(tick, i) in ticks" :key="i">
      <line
        :x1="tick.x"
        :x2="tick.x"
        y1="50"
        :y2="tick.long ? 63 : 56"
        :class="tick.long ? 'stroke-faded' : 'stroke-contour'"
      />
      <text v-if="tick.label" :x="tick.x + 4" y="76" class="fill-faded text-[13px]">{{ tick.label }}</text>
    </g>
    <circle
      v-for="(x, i) in marks"
      :key="i"
      :cx="x"
      cy="36"
      :r="marks.length > 90 ? 3 : 6"
      stroke-width="2"
      class="fill-sheet stroke-contour"
      data-mark
    />
  </g>
</template>
