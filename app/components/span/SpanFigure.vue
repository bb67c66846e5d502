<script setup lang="ts">
import type { Change } from '#core/error'

/** One figure of the span: what is there now, its change with plus-minus, and the verdict. */
defineProps<{
  name: string
  value: string | null
  unit: string
  colour: string
  /** Formatted change and error, in the unit. */
  change: string | null
  error: string | null
  verdict: Change | null
  /** Said in place of a change. */
  instead: string | null
  id: string
}>()
</script>

<template>
  <div class="border-rule px-4 py-2 sm:pl-6" :data-figure="id">
    <dt class="text-[15px] text-faded">{{ name }}<slot name="beside" /></dt>
    <dd>
      <span v-if="value !== null" :class="colour">
        <span class="figure text-4xl leading-tight font-bold lg:text-[44px]" data-now>{{ value }}</span>
        <span class="ml-1.5 text-faded">{{ unit }}</span>
      </span>
      <span v-else class="block py-2 text-xl text-faded">not known</span>
      <span v-if="verdict" class="mt-0.5 flex flex-wrap items-baseline justify-between gap-x-2 text-[15px]">
        <span class="figure text-base">
          <span class="font-bold" data-change>{{ change }}</span>
          <span class="text-faded"> ± {{ error }}</span>
        </span>
        <VerdictMark :change="verdict" />
      </span>
      <span v-else class="mt-0.5 block text-[15px] text-faded">{{
        id === 'waist-to-height' ? 'of the height' : instead
      }}</span>
    </dd>
  </div>
</template>
