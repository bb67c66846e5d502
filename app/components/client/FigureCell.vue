<script setup lang="ts">
import { oddsSentence, type Change } from '#core/following'

defineProps<{
  figure: {
    value: string
    change: string | null
    since: string | null
    verdict: Pick<Change, 'change' | 'verdict' | 'odds'> | null
  } | null
}>()
</script>

<template>
  <span v-if="figure" class="inline-flex items-center gap-3">
    <span class="figure w-14 text-right font-semibold">{{ figure.value }}</span>
    <VerdictMark
      v-if="figure.verdict"
      class="text-[15px]"
      :change="figure.verdict"
      :title="`${figure.change} since ${figure.since}, ${oddsSentence(figure.verdict.odds)}`"
      short
    />
  </span>
</template>
