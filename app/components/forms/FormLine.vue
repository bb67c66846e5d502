<script setup lang="ts">
import type { useProblems } from '~/composables/useProblems'

/** A line of text in a form: what TanStack's field knows, with what the server found wrong. */
const props = defineProps<{
  field: { name: string; handleChange: (text: string) => void }
  state: { value: string; meta: { errors: readonly unknown[] } }
  label: string
  problems: ReturnType<typeof useProblems>
  /** The server's field, where it is not called as the form's. */
  asked?: string
  hint?: string
}>()
const told = computed(
  () => firstError(props.state.meta.errors) ?? props.problems.byField.value.get(props.asked ?? props.field.name),
)
</script>

<template>
  <TextField
    :label="label"
    :name="field.name"
    :hint="hint"
    :problem="told"
    :model-value="state.value"
    @update:model-value="field.handleChange($event)"
  />
</template>
