<script setup lang="ts" generic="Value extends string">
import { RadioGroup, RadioGroupLabel, RadioGroupOption } from '@headlessui/vue'

defineProps<{
  label: string
  name: string
  options: readonly { value: Value; label: string }[]
  hint?: string
  problem?: string
}>()
const model = defineModel<Value | null>({ required: true })
</script>

<template>
  <RadioGroup
    :model-value="model ?? undefined"
    :name="name"
    class="grid content-start gap-1"
    :data-field="name"
    @update:model-value="model = $event"
  >
    <RadioGroupLabel class="font-semibold">{{ label }}</RadioGroupLabel>
    <p v-if="hint" class="text-sm text-faded">{{ hint }}</p>
    <div class="flex flex-wrap gap-2">
      <RadioGroupOption
        v-for="option in options"
        :key="option.value"
        v-slot="{ checked }"
        :value="option.value"
        as="template"
      >
        <button
          type="button"
          class="flex min-h-11 items-center gap-2 rounded border bg-sheet px-4"
          :class="checked ? 'border-ink font-semibold ring-1 ring-ink' : 'border-contour'"
        >
          <span
            class="grid size-4 place-items-center rounded-full border"
            :class="checked ? 'border-ink' : 'border-contour'"
          >
            <span v-if="checked" class="size-2 rounded-full bg-ink" />
          </span>
          {{ option.label }}
        </button>
      </RadioGroupOption>
    </div>
    <p v-if="problem" role="alert" class="text-sm font-semibold text-alert">{{ problem }}</p>
  </RadioGroup>
</template>
