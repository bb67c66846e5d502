<script setup lang="ts">
import type { Change } from '#core/error'

/** A verdict as a mark and a word: filled for real, open for likely, a wave for within error. */
const props = defineProps<{ change: Pick<Change, 'change' | 'verdict'> }>()

const path = computed(() => {
  if (props.change.verdict === 'within error') return 'M1 7c2.2-4 4.2-4 6.5 0s4.3 4 6.5 0'
  return props.change.change < 0 ? 'M2 3.5h11l-5.5 9z' : 'M2 12.5h11l-5.5-9z'
})
</script>

<template>
  <span class="inline-flex items-center gap-1.5 whitespace-nowrap" :data-verdict="change.verdict">
    <svg viewBox="0 0 15 15" class="size-3.5 shrink-0" aria-hidden="true">
      <path
        :d="path"
        :fill="change.verdict === 'real' ? 'currentColor' : 'none'"
        stroke="currentColor"
        stroke-width="1.6"
        stroke-linejoin="round"
        stroke-linecap="round"
      />
    </svg>
    <span :class="change.verdict === 'within error' ? 'text-faded' : 'font-bold'">{{ change.verdict }}</span>
  </span>
</template>
