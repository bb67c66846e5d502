<script setup lang="ts">
import type { Change } from '#core/following'

/** One figure of the span: what is there now, the best estimate of its change with the interval, verdict and odds. */
defineProps<{
  name: string
  value: string | null
  unit: string
  colour: string
  /** Formatted change and the bounds of its 95 % interval, in the unit. */
  change: string | null
  low: string | null
  high: string | null
  verdict: Change | null
  /** Said in place of a change. */
  instead: string | null
  /** The change comes: room is kept for it, so that nothing below moves under a finger. */
  judging: boolean
  /** The error it will be judged with is assumed, which is said below it. */
  assumed: boolean
  id: string
}>()

/** Takes the room of a verdict while it is to come. */
const TO_COME = { change: 0, verdict: 'too-early', odds: 0 } as const
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
      <span v-if="verdict" class="mt-0.5 block text-[15px]">
        <span class="figure block text-base">
          <span class="font-bold" data-change>{{ change }}</span>
          <span class="text-sm whitespace-nowrap text-faded max-[760px]:block" data-interval>
            ({{ low }} to {{ high }})</span
          >
        </span>
        <VerdictMark class="sm:flex-wrap!" :change="verdict" />
        <span v-if="verdict.noise.clients === 0" class="block text-xs text-faded" data-assumed
          >error assumed, not yet measured here</span
        >
      </span>
      <span v-else-if="judging && id !== 'waist-to-height'" class="mt-0.5 block text-[15px] text-faded">
        <span class="figure block text-base">{{ instead }}<span class="text-sm max-[760px]:block">&nbsp;</span></span>
        <VerdictMark class="invisible sm:flex-wrap!" :change="TO_COME" aria-hidden="true" />
        <span v-if="assumed" class="block text-xs">&nbsp;</span>
      </span>
      <span v-else class="mt-0.5 block text-[15px] text-faded">{{
        id === 'waist-to-height' ? 'of the height' : instead
      }}</span>
    </dd>
  </div>
</template>
