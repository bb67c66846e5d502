<script setup lang="ts">
import { changeRow, rowSaid, type Change, type Span } from '#core/following'
import type { Units } from '#core/units'

/** The change in one line, where another view of the record has the page. */
const props = defineProps<{ span: Span; units: Units; neutral: boolean; since: string; to: string }>()

const lines = computed(() => {
  const { fat, sum, weight, leading } = props.span
  const all: [string, Change | null][] = props.neutral
    ? [['Sum', sum]]
    : [
        ['Fat', fat],
        ['Sum', sum ?? leading],
        ['Weight', weight],
      ]
  return all.flatMap(([name, change]) => (change ? [{ name, said: rowSaid(changeRow(change, props.units)) }] : []))
})
</script>

<template>
  <NuxtLink
    v-if="lines.length > 0"
    :to="to"
    class="no-print flex flex-wrap gap-x-5 border-b border-rule bg-sheet px-4 py-1.5 text-[15px] sm:px-6"
    data-folded
  >
    <span v-for="(line, i) in lines" :key="line.name" :class="{ 'max-sm:hidden': i > 0, 'max-lg:hidden': i > 1 }"
      ><strong class="font-semibold">{{ line.name }}</strong> <span class="figure text-sm">{{ line.said }}</span></span
    >
    <span class="text-faded max-sm:hidden">since {{ since }}</span>
  </NuxtLink>
</template>
