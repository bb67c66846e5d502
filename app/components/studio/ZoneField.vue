<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxLabel, ComboboxOption, ComboboxOptions } from '@headlessui/vue'

/** The studio's time zone, found by typing part of a place. */
const props = defineProps<{ zone: string }>()
const emit = defineEmits<{ choose: [zone: string] }>()

const MOST = 40
const zones = ['UTC', ...Intl.supportedValuesOf('timeZone')]
const typed = ref('')
const found = computed(() => {
  const wanted = typed.value.trim().toLowerCase().replaceAll(' ', '_')
  return zones.filter((zone) => zone.toLowerCase().includes(wanted)).slice(0, MOST)
})
const here = deviceZone()
</script>

<template>
  <Combobox
    as="div"
    class="relative grid gap-1"
    :model-value="props.zone"
    @update:model-value="(zone: string) => zone !== props.zone && emit('choose', zone)"
  >
    <ComboboxLabel class="font-semibold">Time zone of the studio</ComboboxLabel>
    <ComboboxInput
      class="field"
      name="timeZone"
      autocomplete="off"
      :display-value="(zone) => String(zone ?? '').replaceAll('_', ' ')"
      @change="typed = $event.target.value"
      @blur="typed = ''"
    />
    <ComboboxOptions
      class="absolute top-full right-0 left-0 z-10 mt-1 max-h-72 overflow-y-auto rounded border border-ink bg-sheet py-1"
    >
      <li v-if="found.length === 0" class="px-3 py-2 text-faded">No place by this name.</li>
      <ComboboxOption v-for="one in found" :key="one" v-slot="{ active, selected }" :value="one" as="template">
        <li class="min-h-10 px-3 py-2" :class="{ 'bg-wash': active, 'font-bold': selected }">
          {{ one.replaceAll('_', ' ') }}
        </li>
      </ComboboxOption>
    </ComboboxOptions>
    <button
      v-if="here !== props.zone"
      type="button"
      class="min-h-9 justify-self-start text-[15px] underline underline-offset-4"
      @click="emit('choose', here)"
    >
      This device is in {{ here.replaceAll('_', ' ') }}: take that
    </button>
  </Combobox>
</template>
