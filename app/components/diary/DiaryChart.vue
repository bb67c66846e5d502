<script setup lang="ts">
import type { DiaryPoint } from '#core/trend'
import type { Units } from '#core/units'
import { chartColours } from '../span/theme'
import TimeChart from '../span/TimeChart.vue'
import { diaryOption } from './diary-option'

const props = defineProps<{
  points: readonly DiaryPoint[]
  visits: readonly { at: string; weightKg: number }[]
  units: Units
}>()
const theme = useTheme()
const option = computed(() => {
  void theme.value
  return diaryOption(props.points, props.visits, { units: props.units, colours: chartColours() })
})
</script>

<template>
  <TimeChart
    :option="option"
    label="Daily weigh-ins with their trend and its interval; the list beside holds the same figures"
  />
</template>
