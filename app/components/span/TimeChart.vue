<script setup lang="ts">
import { CustomChart, LineChart, ScatterChart } from 'echarts/charts'
import { AxisPointerComponent, GridComponent, TooltipComponent } from 'echarts/components'
import { use, type EChartsCoreOption, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'

use([CustomChart, LineChart, ScatterChart, GridComponent, TooltipComponent, AxisPointerComponent, CanvasRenderer])

/** A chart over time that fills its box. `label` says what it shows and which table holds the same figures. */
defineProps<{ option: EChartsCoreOption; label: string }>()
const emit = defineEmits<{ ready: [chart: EChartsType] }>()
const drawn = useTemplateRef<{ chart?: EChartsType }>('drawn')
/** Told once it has been drawn: places on it can be asked for from then on. */
function finished() {
  if (drawn.value?.chart) emit('ready', drawn.value.chart)
}
</script>

<template>
  <div class="relative">
    <VChart
      ref="drawn"
      class="absolute inset-0"
      :option="option"
      :update-options="{ notMerge: true }"
      autoresize
      role="img"
      :aria-label="label"
      @finished="finished"
    />
  </div>
</template>
