<script setup lang="ts">
import type { Span } from '#core/following'
import { SITES } from '#core/sites'

/** What differs between the two ends and what can still be compared. */
const props = defineProps<{ span: Span }>()

const shared = computed(() => {
  const { comparability, summed } = props.span
  if (comparability.percent) return null
  if (summed.length === 0) return 'No fold is shared: only the weight can be compared.'
  const names = summed.map((site) => SITES[site].name.toLowerCase()).join(', ')
  return `What can be compared: ${names}, their sum, and the weight.`
})
</script>

<template>
  <div
    v-if="span.comparability.differences.length > 0"
    class="border-b border-rule px-4 py-1.5 text-[15px] sm:px-6"
    data-comparability
  >
    <p
      v-for="difference in span.comparability.differences"
      :key="difference.sentence"
      :data-difference="difference.code"
    >
      {{ difference.sentence }}
    </p>
    <p v-if="shared" class="font-semibold" data-shared>{{ shared }}</p>
  </div>
</template>
