<script setup lang="ts">
import { CustomChart, LineChart } from 'echarts/charts'
import { AxisPointerComponent, GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { Against, PlanLine } from '#core/plan'
import type { Units } from '#core/units'
import { TARGET_NAMES, targetShown } from '~/composables/usePlan'
import { chartColours } from '../span/theme'
import { planOption } from './plan-option'

use([CustomChart, LineChart, GridComponent, TooltipComponent, AxisPointerComponent, CanvasRenderer])

/** A plan, or the draft of one, against what happened. */
const props = defineProps<{ line: PlanLine; measured: readonly Against[]; units: Units }>()
const theme = useTheme()
const option = computed(() => {
  void theme.value
  const colours = chartColours()
  const { kind } = props.line
  const shown = targetShown(kind, props.units)
  const weight = getComputedStyle(document.documentElement).getPropertyValue('--weight').trim()
  const colour = { percent: colours.fat, fat: colours.fat, weight, sum: colours.sum }[kind]
  return planOption(props.line, {
    measured: props.measured,
    scale: shown.scale,
    name: `${TARGET_NAMES[kind]}, ${shown.unit}`,
    colours,
    colour,
  })
})
</script>

<template>
  <div class="relative">
    <VChart
      class="absolute inset-0"
      :option="option"
      :update-options="{ notMerge: true }"
      autoresize
      role="img"
      aria-label="The plan with its band and the check-ins since its start; the table holds the same figures"
    />
  </div>
</template>
