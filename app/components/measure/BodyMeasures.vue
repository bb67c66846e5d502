<script setup lang="ts">
import type { Composition } from '#core/composition/checkin'
import { formatHeight, formatMass, type Units } from '#core/units'
import type { MeasuringFacts } from '#shared/schemas/checkin'
import type { Cell } from '~/composables/useMeasuring'

defineProps<{
  result: Composition
  last: Composition | null
  cell: Cell
  units: Units
  withHeight: boolean
  trials: number
  blind: boolean
  /** What keeps it blind, whatever is wished: a challenge, or the study this is a turn of. */
  kept: Pick<MeasuringFacts, 'blind' | 'study'>
  /** The client may look, and is to see no weight. */
  neutral: boolean
}>()
defineEmits<{ choose: [measure: 'weight' | 'height']; blind: [] }>()
</script>

<template>
  <div class="body-measures mb-2 flex flex-wrap items-baseline gap-x-4 max-sm:hidden">
    <h2 class="text-lg font-bold">Log sheet</h2>
    <button
      v-if="!kept.study"
      class="flex items-baseline gap-2"
      :class="{ 'font-semibold text-signal': cell.kind === 'weight' }"
      @click="$emit('choose', 'weight')"
    >
      <span class="text-faded">Weight</span>
      <span class="figure text-lg font-bold text-weight" data-weight>{{
        result.weightKg === null ? 'to come' : neutral ? 'kept' : formatMass(result.weightKg, units)
      }}</span>
      <span v-if="result.weightKg !== null && !neutral" class="text-faded">{{ units.mass }}</span>
      <span v-if="last && last.weightKg !== null && !blind && !neutral" class="text-sm text-faded">
        last <span class="figure">{{ formatMass(last.weightKg, units) }}</span>
      </span>
    </button>
    <button
      v-if="withHeight"
      class="flex items-baseline gap-2"
      :class="{ 'font-semibold text-signal': cell.kind === 'height' }"
      @click="$emit('choose', 'height')"
    >
      <span class="text-faded">Height</span>
      <span class="figure text-lg font-bold" data-height>{{
        trials === 0 || result.heightCm === null ? 'to come' : formatHeight(result.heightCm, units)
      }}</span>
      <span v-if="trials > 0" class="text-sm text-faded">{{ trials }} {{ trials === 1 ? 'trial' : 'trials' }}</span>
    </button>
    <span v-if="kept.study" class="ml-auto text-sm text-faded" data-study
      >blind: {{ kept.study.name }}, {{ kept.study.penName
      }}{{ kept.study.kind === 'repeat' ? `, ${kept.study.trial === 1 ? 'first' : 'again'}` : '' }}</span
    >
    <span v-else-if="kept.blind" class="ml-auto text-sm text-faded" data-challenged
      >blind: takes part in a challenge</span
    >
    <button
      v-else
      class="ml-auto text-sm text-faded underline underline-offset-4"
      :aria-pressed="blind"
      @click="$emit('blind')"
    >
      {{ blind ? 'blind: show again' : 'measure blind' }}
    </button>
  </div>
</template>

<style scoped>
@media (max-height: 499px) {
  .body-measures {
    display: none;
  }
}
</style>
