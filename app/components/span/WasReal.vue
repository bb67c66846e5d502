<script setup lang="ts">
import { wasReal, type Span } from '#core/following'

/** Each verdict keeps its day: what was real once and is not now. In neutral mode the sum alone. */
defineProps<{ span: Span; neutral: boolean }>()

const NAMES = { sum: 'The sum', fat: 'Fat', lean: 'Lean mass', weight: 'Weight' }
</script>

<template>
  <div class="text-[15px]">
    <p v-for="one in wasReal(span, neutral)" :key="one.figure" data-was>
      {{ NAMES[one.figure] }} was a real change on {{ sayDay(one.on) }} and is not now.
    </p>
  </div>
</template>
