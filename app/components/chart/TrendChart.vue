<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { AxisPointerComponent, GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { ComposedCheckin } from '#core/composition'
import type { Units } from '#core/units'
import { chartColours } from './theme'
import { trendOption } from './trend-option'

use([LineChart, GridComponent, TooltipComponent, AxisPointerComponent, SVGRenderer])

const props = defineProps<{ history: ComposedCheckin[]; units: Units; sumName: string }>()
const theme = useTheme()

const option = computed(() => {
  void theme.value
  return trendOption(props.history, props.units, chartColours(), props.sumName)
})
</script>

<template>
  <VChart
    :option="option"
    :update-options="{ notMerge: true }"
    autoresize
    role="img"
    aria-label="Lean mass, fat mass and sum of folds over time; the table of check-ins holds the same figures"
  />
</template>
