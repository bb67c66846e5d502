<script setup lang="ts">
import type { Composition } from '#core/composition/checkin'

/** Equations that have all they need: by name, with no figure while measuring goes on. */
const props = defineProps<{ result: Composition }>()

const MOST = 3
const ready = computed(() => props.result.estimates.flatMap((one) => ('percent' in one ? [one.equation.label] : [])))
</script>

<template>
  <p v-if="ready.length > 0" class="text-sm text-faded" data-speaking>
    Ready: {{ ready.slice(0, MOST).join('; ')
    }}<template v-if="ready.length > MOST">; {{ ready.length - MOST }} more</template>
  </p>
</template>
