<script setup lang="ts">
import {
  Combobox,
  ComboboxButton,
  ComboboxInput,
  ComboboxLabel,
  ComboboxOption,
  ComboboxOptions,
} from '@headlessui/vue'
import ChevronDown from '@lucide/vue/dist/esm/icons/chevron-down.mjs'
import type { Picked } from './picked'

/** One of many, found by typing part of its name. `none`: how no choice is called, where that is a choice. */
const props = defineProps<{ label: string; name: string; options: readonly Picked[]; none?: string }>()
const emit = defineEmits<{ find: [typed: string] }>()
const model = defineModel<string | null>({ required: true })

const MOST = 60
const typed = ref('')
/** The name of what is picked stays known when a later search no longer lists it. */
const known = ref(new Map<string, string>())
watch(
  () => props.options,
  (options) => options.forEach(({ id, name }) => known.value.set(id, name)),
  { immediate: true },
)
const found = computed(() => {
  const wanted = typed.value.trim().toLowerCase()
  const fits = ({ name, note = '' }: Picked) => `${name} ${note}`.toLowerCase().includes(wanted)
  return props.options.filter(fits).slice(0, MOST)
})
const shown = (id: unknown) => (typeof id === 'string' ? (known.value.get(id) ?? '') : (props.none ?? ''))

function find(text: string) {
  typed.value = text
  emit('find', text)
}
</script>

<template>
  <Combobox
    v-slot="{ open }"
    v-model="model"
    as="div"
    class="relative grid content-start gap-1"
    :nullable="none !== undefined"
  >
    <ComboboxLabel class="font-semibold">{{ label }}</ComboboxLabel>
    <div class="relative">
      <ComboboxInput
        class="field pr-10"
        :name="name"
        autocomplete="off"
        :display-value="shown"
        @change="find($event.target.value)"
        @focus="$event.target.select()"
        @blur="typed = ''"
      />
      <ComboboxButton
        class="absolute inset-y-0 right-0 grid w-10 place-items-center"
        :aria-label="`${label}: show all`"
        :data-choose="name"
        :data-value="model ?? ''"
      >
        <ChevronDown class="size-4" aria-hidden="true" />
      </ComboboxButton>
    </div>
    <ComboboxOptions
      v-if="open"
      static
      class="absolute top-full right-0 left-0 z-10 mt-1 max-h-72 overflow-y-auto rounded border border-ink bg-sheet py-1"
    >
      <li v-if="found.length === 0" class="px-3 py-2 text-faded">Nothing by this name.</li>
      <ComboboxOption v-if="none && typed.trim() === ''" v-slot="{ active }" :value="null" as="template">
        <li class="min-h-10 px-3 py-2 text-faded" :class="{ 'bg-wash': active }">{{ none }}</li>
      </ComboboxOption>
      <ComboboxOption v-for="one in found" :key="one.id" v-slot="{ active, selected }" :value="one.id" as="template">
        <li class="min-h-10 px-3 py-2" :class="{ 'bg-wash': active, 'font-semibold': selected }" :data-option="one.id">
          {{ one.name }}
          <span v-if="one.note" class="block text-sm font-normal text-faded">{{ one.note }}</span>
        </li>
      </ComboboxOption>
    </ComboboxOptions>
  </Combobox>
</template>
