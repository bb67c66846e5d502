<script setup lang="ts">
import type { useProblems } from '~/composables/useProblems'

/** A line of text in a form: what TanStack's field knows, with what the server found wrong. */
const props = defineProps<{
  field: { name: string; handleChange: (text: string) => void }
  state: { value: string; meta: { errors: readonly unknown[] } }
  label: string
  problems: ReturnType<typeof useProblems>
  /** Name of the input and of the server's field, where it is not the form's. */
  name?: string
  hint?: string
}>()
const told = computed(
  () => firstError(props.state.meta.errors) ?? props.problems.byField.value.get(props.name ?? props.field.name),
)
</script>

<template>
  <TextField
    :label="label"
    :name="name ?? field.name"
    :hint="hint"
    :problem="told"
    :model-value="state.value"
    @update:model-value="field.handleChange($event)"
  />
</template>
