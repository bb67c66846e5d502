<script setup lang="ts">
/** A labelled line of input; what else is given (type, autocomplete, max) goes to the input itself. */
defineOptions({ inheritAttrs: false })
defineProps<{ label: string; name: string; hint?: string; problem?: string }>()
const model = defineModel<string>({ required: true })
</script>

<template>
  <FormField v-slot="{ attrs }" :label="label" :name="name" :hint="hint" :problem="problem">
    <input
      v-bind="{ ...$attrs, ...attrs }"
      class="field"
      :value="model"
      @input="model = ($event.target as HTMLInputElement).value"
    />
  </FormField>
</template>
