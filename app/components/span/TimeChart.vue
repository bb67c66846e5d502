<script setup lang="ts">
import { CustomChart, LineChart, ScatterChart } from 'echarts/charts'
import { AxisPointerComponent, GridComponent, TooltipComponent } from 'echarts/components'
import { use, type EChartsCoreOption } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'

use([CustomChart, LineChart, ScatterChart, GridComponent, TooltipComponent, AxisPointerComponent, CanvasRenderer])

/** A chart over time that fills its box. `label` says what it shows and which table holds the same figures. */
defineProps<{ option: EChartsCoreOption; label: string }>()
</script>

<template>
  <div class="relative">
    <VChart
      class="absolute inset-0"
      :option="option"
      :update-options="{ notMerge: true }"
      autoresize
      role="img"
      :aria-label="label"
    />
  </div>
</template>
