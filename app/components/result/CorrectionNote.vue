<script setup lang="ts">
import type { Correction } from '#core/devices'
import { formatChange } from '#core/units'

/** That folds were corrected for their caliper, and by how much: said wherever a result stands on it. */
defineProps<{ correction: Correction }>()
</script>

<template>
  <p class="border-l-4 border-rule pl-3 text-[15px]" data-corrected>
    Folds corrected for this caliper, which reads {{ formatChange(correction.offsetMm) }} mm{{
      Math.abs(correction.gain - 1) < 0.002 ? '' : ` and ${formatChange((correction.gain - 1) * 100)} %`
    }}
    too much by its block check.
  </p>
</template>
