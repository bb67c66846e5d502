<script setup lang="ts">
import type { SessionState } from '#core/readings'
import { formatNumber } from '#core/units'

defineProps<{
  session: SessionState
  /** Sum of all folds last time, mm; null when unknown or hidden. */
  lastSumMm: number | null
}>()
</script>

<template>
  <div>
    <p class="flex flex-wrap items-baseline justify-between gap-x-4 text-faded">
      <span>{{ session.settledCount }} of {{ session.sites.length }} sites settled</span>
      <span>
        sum so far
        <span class="figure text-2xl font-bold text-sum max-sm:text-lg">{{ formatNumber(session.settledSum, 1) }}</span>
        mm<template v-if="lastSumMm !== null">, last time {{ formatNumber(lastSumMm, 1) }}</template>
      </span>
    </p>
    <RulerProgress
      v-if="lastSumMm !== null"
      class="mt-2 max-sm:hidden"
      :value="session.settledSum"
      :full="Math.max(lastSumMm, session.settledSum)"
      label="Sum of settled folds beside last time’s sum, millimetres"
    />
  </div>
</template>
