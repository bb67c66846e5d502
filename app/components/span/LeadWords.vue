<script setup lang="ts">
import { leadSentences, type SaidUnasked, type Span } from '#core/following'
import type { Units } from '#core/units'

/** What a coach reads first and can say aloud: what changed, whether to believe it, what to do next. */
const props = defineProps<{
  span: Span
  /** Days of the two check-ins, and of the next one. */
  from: string
  to: string
  next: string | null
  unasked: SaidUnasked | null
  units: Units
  neutral: boolean
}>()

const sentences = computed(() => {
  const { span, from, to, next, unasked, units, neutral } = props
  return leadSentences(span, { units, from, to, next, unasked, neutral, say: sayDay })
})
</script>

<template>
  <p v-if="sentences.length > 0" class="text-2xl leading-8 max-sm:text-xl" data-lead>
    <strong>{{ sentences[0] }}</strong>
    <template v-for="one in sentences.slice(1)" :key="one">{{ ' ' }}{{ one }}</template>
  </p>
</template>
