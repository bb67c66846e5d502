<script setup lang="ts">
const props = defineProps<{ share: number; done: boolean; seconds: number }>()
defineEmits<{ start: [] }>()

const RADIUS = 22
const AROUND = 2 * Math.PI * RADIUS
const dash = computed(() => `${AROUND * props.share} ${AROUND}`)
</script>

<template>
  <button
    type="button"
    class="grid size-14 shrink-0 place-items-center rounded-full"
    @pointerdown.prevent
    @click="$emit('start')"
  >
    <svg viewBox="0 0 56 56" class="col-start-1 row-start-1 size-14 -rotate-90" fill="none" stroke-width="5">
      <circle cx="28" cy="28" :r="RADIUS" class="stroke-rule" />
      <circle cx="28" cy="28" :r="RADIUS" class="stroke-signal" :stroke-dasharray="dash" />
    </svg>
    <span class="col-start-1 row-start-1 text-sm font-semibold" :class="done ? 'text-signal' : 'text-faded'">
      {{ done ? 'read' : `${seconds} s` }}<span class="sr-only">, start the count</span>
    </span>
  </button>
</template>
