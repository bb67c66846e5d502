<script setup lang="ts">
import { MARK_WORDS, type MarkState } from './marks'

const props = defineProps<{ marking: boolean }>()
const shown = computed<MarkState[]>(() =>
  props.marking ? ['now', 'to-come', 'marked'] : ['now', 'next', 'to-come', 'once', 'agreed', 'disputed'],
)
</script>

<template>
  <ul class="grid grid-cols-[repeat(auto-fit,minmax(112px,1fr))] gap-x-2 gap-y-0.5 text-sm text-faded">
    <li v-for="state in shown" :key="state" class="flex items-center gap-1 whitespace-nowrap">
      <svg viewBox="-8 -8 16 16" class="size-4 shrink-0" aria-hidden="true">
        <SiteGlyph :state="state" :size="state === 'now' ? 3.8 : 5" />
      </svg>
      {{ MARK_WORDS[state] }}
    </li>
  </ul>
</template>
