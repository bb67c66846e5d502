<script setup lang="ts">
import type { CheckRecord } from '#shared/schemas/caliper'
import { formatNumber } from '#core/units'

/** A caliper over time: what it was off at each check, between the half millimetres it may be. */
const props = defineProps<{ checks: readonly CheckRecord[]; name: string }>()
const [WIDTH, HEIGHT] = [320, 96]
const reach = computed(() => Math.max(1, ...props.checks.map(({ deviationMm }) => Math.abs(deviationMm))) * 1.1)
const times = computed(() => props.checks.map(({ checkedOn }) => Date.parse(checkedOn)))
const xAt = (i: number) => {
  const [first = 0, last = 0] = [times.value[0], times.value.at(-1)]
  return last === first ? WIDTH / 2 : 46 + (((times.value[i] ?? first) - first) / (last - first)) * (WIDTH - 76)
}
const yAt = (mm: number) => HEIGHT / 2 - (mm / reach.value) * (HEIGHT / 2 - 8)
const said = computed(
  () =>
    `${props.name} at its checks: ${props.checks.map(({ checkedOn, deviationMm }) => `${sayDay(checkedOn)} ${formatNumber(deviationMm, 1)} mm`).join(', ')}`,
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" class="w-full" role="img" :aria-label="said" font-size="11">
    <rect x="38" :y="yAt(0.5)" :width="WIDTH - 64" :height="yAt(-0.5) - yAt(0.5)" class="fill-lean" opacity="0.12" />
    <path :d="`M38 ${yAt(0)}H${WIDTH - 26}`" class="stroke-rule" />
    <g v-for="mm in [0.5, 0, -0.5]" :key="mm">
      <path :d="`M38 ${yAt(mm)}h-4`" class="stroke-ink" />
      <text x="31" :y="yAt(mm) + 4" text-anchor="end" class="figure fill-faded">{{ formatNumber(mm, 1) }}</text>
    </g>
    <path
      v-if="checks.length > 1"
      :d="checks.map((one, i) => `${i === 0 ? 'M' : 'L'}${xAt(i)} ${yAt(one.deviationMm)}`).join('')"
      class="stroke-ink"
      fill="none"
      stroke-width="1.4"
    />
    <circle
      v-for="(one, i) in checks"
      :key="i"
      :cx="xAt(i)"
      :cy="yAt(one.deviationMm)"
      r="3.6"
      class="stroke-ink"
      :class="Math.abs(one.deviationMm) > 0.5 ? 'fill-fat' : 'fill-sheet'"
      stroke-width="1.4"
    />
    <text
      v-for="(i, k) in [0, checks.length - 1]"
      v-show="k === 0 || checks.length > 1"
      :key="k"
      :x="xAt(i)"
      :y="HEIGHT - 1"
      text-anchor="middle"
      class="fill-faded"
    >
      {{ checks[i] ? sayDay(checks[i].checkedOn) : '' }}
    </text>
  </svg>
</template>
