<script setup lang="ts">
import type { Against, PlanLine } from '#core/plan'
import type { Units } from '#core/units'
import { chartColours } from '../span/theme'
import TimeChart from '../span/TimeChart.vue'
import { planOption } from './plan-option'
import { TARGET_NAMES, targetShown } from './target-shown'

/** A plan, or the draft of one, against what happened. */
const props = defineProps<{ line: PlanLine; measured: readonly Against[]; units: Units }>()
const theme = useTheme()
const option = computed(() => {
  void theme.value
  const colours = chartColours()
  const { kind } = props.line
  const shown = targetShown(kind, props.units)
  const colour = { percent: colours.fat, fat: colours.fat, weight: colours.weight, sum: colours.sum }[kind]
  const name = `${TARGET_NAMES[kind]}, ${shown.unit}`
  return planOption(props.line, { measured: props.measured, scale: shown.scale, name, colours, colour })
})
</script>

<template>
  <TimeChart
    :option="option"
    label="The plan with its band and the check-ins since its start; the table holds the same figures"
  />
</template>
