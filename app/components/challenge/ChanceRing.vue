<script setup lang="ts">
/** A chance as a ring that fills, 0 to 1. */
const props = defineProps<{ chance: number }>()
const ROUND = 2 * Math.PI * 8
const said = computed(() => (props.chance < 0.005 ? 'under 1 in 100' : `${Math.round(100 * props.chance)} in 100`))
</script>

<template>
  <svg viewBox="0 0 20 20" role="img" :aria-label="`Chance of being first: ${said}`" class="size-[1.4em]">
    <circle cx="10" cy="10" r="8" fill="none" class="stroke-rule" stroke-width="3.4" />
    <circle
      cx="10"
      cy="10"
      r="8"
      fill="none"
      class="stroke-brass"
      stroke-width="3.4"
      :stroke-dasharray="`${chance * ROUND} ${ROUND}`"
      transform="rotate(-90 10 10)"
    />
  </svg>
</template>
