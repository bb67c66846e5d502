<script setup lang="ts">
/** A steel rule: `value` of `full` millimetres, a tick every `every`, a longer one every fifth. */
const props = defineProps<{ value: number; full: number; label: string }>()

const LENGTH = 500
const every = computed(() => (props.full > 150 ? 5 : props.full > 60 ? 2 : 1))
const ticks = computed(() =>
  Array.from({ length: Math.floor(props.full / every.value) + 1 }, (_, i) => ({
    x: ((i * every.value) / props.full) * LENGTH,
    height: i % 10 === 0 ? 16 : i % 5 === 0 ? 12 : 7,
    reached: i * every.value <= props.value,
    text: i % 10 === 0 ? String(i * every.value) : null,
  })),
)
</script>

<template>
  <svg
    :viewBox="`-4 0 ${LENGTH + 22} 34`"
    role="img"
    :aria-label="label"
    preserveAspectRatio="xMinYMid meet"
    class="w-full"
  >
    <g v-for="tick in ticks" :key="tick.x">
      <line
        :x1="tick.x"
        :x2="tick.x"
        y1="0"
        :y2="tick.height"
        :class="tick.reached ? 'stroke-sum' : 'stroke-contour'"
        :stroke-width="tick.reached ? 2 : 1"
      />
      <text v-if="tick.text" :x="tick.x" y="30" text-anchor="middle" class="figure fill-faded" font-size="12">
        {{ tick.text }}
      </text>
    </g>
  </svg>
</template>
