<script setup lang="ts">
import type { NormBand } from '#core/norms'
import { trimZero } from '#core/units'

/** Bands of a table on one steel rule: a tick where a band begins, its name between. */
const props = defineProps<{ bands: readonly NormBand[]; unit: string; label: string; at?: number }>()

const WIDTH = 1000
const range = computed(() => {
  const inner = props.bands.slice(1).map(({ low }) => low)
  const [first = 0, last = 1] = [inner[0], inner.at(-1)]
  const margin = Math.max(last - first, last * 0.4) * 0.3
  return { low: Math.max(0, first - margin), high: last + margin }
})
function across(value: number): number {
  const { low, high } = range.value
  return Math.min(WIDTH, Math.max(0, ((value - low) / (high - low)) * WIDTH))
}
function say(value: number): string {
  return trimZero(value.toFixed(2)).replace(/(\.\d)0$/, '$1')
}
</script>

<template>
  <div role="img" :aria-label="label" class="relative h-18">
    <div class="absolute inset-x-0 top-10 border-t-2 border-ink" />
    <span
      v-if="at !== undefined"
      class="absolute top-[31px] size-0 -translate-x-1/2 border-x-[7px] border-t-[9px] border-x-transparent border-t-fat"
      :style="{ left: `${across(at) / 10}%` }"
    />
    <template v-for="(band, i) in bands" :key="band.name">
      <span
        class="absolute flex text-[13px] leading-4 whitespace-nowrap"
        :class="[
          i % 2 ? 'top-4 text-ink' : 'top-0 text-faded',
          // At the ends a name longer than its band runs inwards, not off the rule.
          i === 0 ? 'justify-start' : i === bands.length - 1 ? 'justify-end' : 'justify-center',
        ]"
        :style="{
          left: `${across(band.low) / 10}%`,
          width: `${(across(Math.min(band.high, range.high)) - across(band.low)) / 10}%`,
        }"
        :title="band.name"
        >{{ band.name }}</span
      >
      <template v-if="i > 0">
        <span class="absolute top-8 h-5 border-l-2 border-ink" :style="{ left: `${across(band.low) / 10}%` }" />
        <span
          class="figure absolute top-13 -translate-x-1/2 text-[15px]"
          :style="{ left: `${across(band.low) / 10}%` }"
          >{{ say(band.low) }}</span
        >
      </template>
    </template>
  </div>
</template>
