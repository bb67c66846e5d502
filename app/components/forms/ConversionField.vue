<script setup lang="ts">
import { CONVERSIONS } from '#core/equations'

/** How density becomes percent, each way with its source. */
const props = defineProps<{
  disabled?: boolean
  /** For somebody of this sex; without: every one. */
  sex?: 'female' | 'male'
}>()
const model = defineModel<string>({ required: true })
const options = computed(() =>
  Object.values(CONVERSIONS)
    .filter(({ sex }) => !props.sex || sex === null || sex === props.sex)
    .map(({ id, label, source }) => ({ id, name: label, note: source })),
)
</script>

<template>
  <ListField v-model="model" label="Density to percent" name="conversion" :options="options" :disabled="disabled" />
</template>
