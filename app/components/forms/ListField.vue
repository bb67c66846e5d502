<script setup lang="ts" generic="Value extends string | number | null">
import { Listbox, ListboxButton, ListboxLabel, ListboxOption, ListboxOptions } from '@headlessui/vue'
import ChevronDown from '@lucide/vue/dist/esm/icons/chevron-down.mjs'

/** One of a few, each with what it is on a line of its own. */
const props = defineProps<{
  label: string
  name: string
  options: readonly { id: Value; name: string; note?: string }[]
  disabled?: boolean
  /** The label is for who cannot see the field only. */
  hiddenLabel?: boolean
}>()
const model = defineModel<Value>({ required: true })
const chosen = computed(() => props.options.find(({ id }) => id === model.value) ?? null)
</script>

<template>
  <Listbox v-model="model" as="div" class="relative grid content-start gap-1" :disabled="disabled">
    <ListboxLabel :class="hiddenLabel ? 'sr-only' : 'font-semibold'">{{ label }}</ListboxLabel>
    <ListboxButton
      class="field flex items-center gap-2 text-left"
      :data-choose="name"
      :data-value="String(model ?? '')"
    >
      <span class="min-w-0 flex-1">{{ chosen?.name }}</span>
      <ChevronDown class="size-4 shrink-0" aria-hidden="true" />
    </ListboxButton>
    <ListboxOptions
      class="absolute top-full right-0 left-0 z-10 mt-1 max-h-80 min-w-fit overflow-y-auto rounded border border-ink bg-sheet py-1"
    >
      <ListboxOption
        v-for="one in options"
        :key="String(one.id)"
        v-slot="{ active, selected }"
        :value="one.id"
        as="template"
      >
        <li
          class="min-h-11 px-3 py-2"
          :class="{ 'bg-wash': active, 'font-semibold': selected }"
          :data-option="String(one.id ?? '')"
        >
          {{ one.name }}
          <span v-if="one.note" class="block text-sm font-normal text-faded">{{ one.note }}</span>
        </li>
      </ListboxOption>
    </ListboxOptions>
  </Listbox>
</template>
