<script setup lang="ts">
import type { ForecastPoint } from '#core/energy'
import type { Units } from '#core/units'
import type { WhatIf } from '#shared/what-if'
import { chartColours } from '../span/theme'
import TimeChart from '../span/TimeChart.vue'
import { forecastOption } from './forecast-option'

const props = defineProps<{ found: WhatIf; points: readonly ForecastPoint[]; units: Units }>()
const theme = useTheme()
const from = Date.now()
const option = computed(() => {
  void theme.value
  return forecastOption(props.found, props.points, { units: props.units, colours: chartColours(), from })
})
</script>

<template>
  <TimeChart
    :option="option"
    label="Weight to come with its 95 % band, the rule of thumb and other ways; the table holds the same figures"
  />
</template>
