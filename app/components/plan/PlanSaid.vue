<script setup lang="ts">
import type { Against, PlanLine } from '#core/plan'
import type { Units } from '#core/units'
import { offShown, STANDINGS, TARGET_NAMES, targetShown } from './target-shown'

/** The plan in one line: what it is for, and where the newest check-in stands. */
const props = defineProps<{ line: PlanLine; latest: Against | null; units: Units }>()

const said = computed(() => {
  const { line, latest } = props
  const shown = targetShown(line.kind, props.units)
  return {
    words: `${TARGET_NAMES[line.kind].toLowerCase()} to ${shown.value(line.to)} ${shown.unit} by about ${sayDay(line.endsOn)}`,
    standing: latest && STANDINGS[latest.standing],
    off: latest && `${offShown(latest, shown)} ${shown.changeUnit}`,
  }
})
</script>

<template>
  <p class="text-[15px]" data-plan-line>
    Plan: {{ said.words
    }}<template v-if="said.standing"
      >; <span class="figure">{{ said.off }}</span>, <strong>{{ said.standing }}</strong></template
    >
  </p>
</template>
