<script setup lang="ts">
import type { Day } from '#core/calendar'

/** The week on a phone: a day to press each, with how many visits it has. */
defineProps<{ days: readonly Day[]; day: Day; countOf: (day: Day) => number }>()
const emit = defineEmits<{ show: [day: Day] }>()
</script>

<template>
  <div class="mb-2 grid grid-cols-7 gap-1">
    <button
      v-for="one in days"
      :key="one"
      type="button"
      class="rounded border py-1 text-center"
      :class="one === day ? 'border-ink font-bold' : 'border-rule'"
      :aria-pressed="one === day"
      @click="emit('show', one)"
    >
      <span class="block text-sm">{{ sayDayAs(one, 'EEEEEE') }}</span>
      <span class="figure block">{{ Number(one.slice(8)) }}</span>
      <span class="block text-xs text-faded">{{ countOf(one) || '·' }}</span>
    </button>
  </div>
</template>
