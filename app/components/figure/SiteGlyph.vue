<script setup lang="ts">
import type { MarkState } from './marks'

/** The shape of one state, around (0, 0), `size` units in radius. */
withDefaults(defineProps<{ state: MarkState; size?: number }>(), { size: 4 })
</script>

<template>
  <g>
    <template v-if="state === 'now'">
      <circle :r="size * 1.9" class="fill-sheet stroke-signal" :stroke-width="size * 0.6" />
      <circle :r="size * 0.75" class="fill-signal" />
    </template>
    <circle v-else-if="state === 'agreed'" :r="size" class="fill-lean" />
    <path
      v-else-if="state === 'marked'"
      :d="`M${-size} ${-size}L${size} ${size}M${-size} ${size}L${size} ${-size}`"
      class="stroke-ink"
      :stroke-width="size * 0.5"
      stroke-linecap="round"
    />
    <path
      v-else-if="state === 'left-out'"
      :d="`M${-size} 0H${size}`"
      class="stroke-contour"
      :stroke-width="size * 0.5"
      stroke-linecap="round"
    />
    <rect
      v-else-if="state === 'disputed'"
      :x="-size"
      :y="-size"
      :width="size * 2"
      :height="size * 2"
      transform="rotate(45)"
      class="fill-fat"
    />
    <template v-else-if="state === 'once'">
      <circle :r="size" class="fill-sheet stroke-ink" :stroke-width="size * 0.4" />
      <path :d="`M0 ${-size}A${size} ${size} 0 0 0 0 ${size}Z`" class="fill-ink" />
    </template>
    <path
      v-else-if="state === 'next'"
      :d="`M0 ${-size * 1.3}L${size * 1.2} ${size * 0.8}H${-size * 1.2}Z`"
      class="fill-sheet stroke-signal"
      :stroke-width="size * 0.45"
      stroke-linejoin="round"
    />
    <circle v-else :r="size" class="fill-sheet stroke-contour" :stroke-width="size * 0.4" />
  </g>
</template>
