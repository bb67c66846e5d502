<script setup lang="ts">
import type { Composition } from '#core/composition/checkin'
import { formatNumber } from '#core/units'

const props = defineProps<{ result: Composition }>()

const MOST = 3
const speaking = computed(() =>
  props.result.estimates.flatMap((one) =>
    'percent' in one ? [{ id: one.equation.id, label: one.equation.label, percent: one.percent }] : [],
  ),
)
</script>

<template>
  <p v-if="speaking.length > 0" class="text-sm text-faded" data-speaking>
    Can already speak:
    <template v-for="(one, i) in speaking.slice(0, MOST)" :key="one.id"
      >{{ i > 0 ? '; ' : '' }}{{ one.label }} <span class="figure">{{ formatNumber(one.percent, 1) }} %</span></template
    ><template v-if="speaking.length > MOST">; {{ speaking.length - MOST }} more</template>
  </p>
</template>
