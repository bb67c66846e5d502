<script setup lang="ts">
import { LineChart, ScatterChart } from 'echarts/charts'
import { AxisPointerComponent, GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { DiaryPoint } from '#core/trend'
import type { Units } from '#core/units'
import { chartColours } from '../span/theme'
import { diaryOption } from './diary-option'

use([LineChart, ScatterChart, GridComponent, TooltipComponent, AxisPointerComponent, CanvasRenderer])

const props = defineProps<{
  points: readonly DiaryPoint[]
  visits: readonly { at: string; weightKg: number }[]
  units: Units
}>()
const theme = useTheme()
const option = computed(() => {
  void theme.value
  const weight = getComputedStyle(document.documentElement).getPropertyValue('--weight').trim()
  return diaryOption(props.points, props.visits, { units: props.units, colours: chartColours(), weight })
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
      aria-label="Daily weigh-ins with their trend and its interval; the list beside holds the same figures"
    />
  </div>
</template>
