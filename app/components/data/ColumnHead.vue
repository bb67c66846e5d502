<script setup lang="ts">
import { ListboxButton, Listbox, ListboxOption, ListboxOptions } from '@headlessui/vue'
import ChevronDown from '@lucide/vue/dist/esm/icons/chevron-down.mjs'
import { SITES, isFold, type SiteId } from '#core/sites'
import { columnLetters } from '../../../exchange/table/cells'
import type { ColumnMeaning, ColumnUnit, Means } from '../../../exchange/table/headings'
import { FACTS, type FactId } from '../../../exchange/table/spellings'

/** What one column of a file holds: as it was recognised, or as somebody says. */
const props = defineProps<{ heading: string; place: number; column: ColumnMeaning; problem?: string | undefined }>()
const emit = defineEmits<{ change: [column: ColumnMeaning] }>()

const siteName = (id: SiteId) => `${SITES[id].name}, ${isFold(id) ? 'fold' : 'girth'}`
const CHOICES = [
  { id: 'left-out' as Means, name: 'Left out' },
  ...(Object.keys(FACTS) as FactId[]).map((id) => ({ id: id as Means, name: FACTS[id] as string })),
  ...(Object.keys(SITES) as SiteId[]).map((id) => ({ id: id as Means, name: siteName(id) })),
]
const name = computed(() => CHOICES.find(({ id }) => id === props.column.means)?.name ?? 'What is this?')
const units = computed<ColumnUnit[]>(() => {
  const { means } = props.column
  if (means === 'weight') return ['kg', 'lb', 'st']
  if (means === 'height') return ['cm', 'm', 'in']
  if (!means || !(means in SITES)) return []
  return isFold(means as SiteId) ? ['mm'] : ['cm', 'in']
})
const isMeasure = computed(() => units.value.length > 0)

function choose(means: Means) {
  emit('change', { means, unit: means in SITES && isFold(means as SiteId) ? 'mm' : null, trial: 1 })
}
</script>

<template>
  <th
    class="relative min-w-36 border-b-2 p-2 text-left align-top font-normal"
    :class="problem ? 'border-alert' : column.means === 'left-out' ? 'border-rule' : 'border-ink'"
    :data-column="place"
    :data-means="column.means ?? ''"
  >
    <span class="figure block text-xs text-faded">{{ columnLetters(place) }}</span>
    <span class="block truncate font-semibold" :class="{ 'text-faded line-through': column.means === 'left-out' }">{{
      heading || '(no heading)'
    }}</span>
    <Listbox :model-value="column.means" as="div" class="relative mt-1" @update:model-value="choose">
      <ListboxButton
        class="field flex min-h-10 items-center gap-1 text-left text-[15px]"
        :class="{ 'border-alert font-semibold text-alert': column.means === null }"
        :aria-label="`${heading || columnLetters(place)} holds: ${name}`"
      >
        <span class="min-w-0 flex-1 truncate">{{ name }}</span>
        <ChevronDown class="size-4 shrink-0" aria-hidden="true" />
      </ListboxButton>
      <ListboxOptions
        class="absolute top-full left-0 z-20 mt-1 max-h-72 w-64 overflow-y-auto rounded border border-ink bg-sheet py-1"
      >
        <ListboxOption v-for="one in CHOICES" :key="one.id" v-slot="{ active, selected }" :value="one.id" as="template">
          <li
            class="min-h-9 px-3 py-1.5"
            :class="{ 'bg-wash': active, 'font-semibold': selected }"
            :data-option="one.id"
          >
            {{ one.name }}
          </li>
        </ListboxOption>
      </ListboxOptions>
    </Listbox>
    <div
      v-if="isMeasure"
      class="mt-1 flex flex-wrap items-center gap-1"
      role="group"
      :aria-label="`Unit of ${heading}`"
    >
      <button
        v-for="unit in units"
        :key="unit"
        type="button"
        class="press min-h-8 px-2 text-sm"
        :class="column.unit === unit ? 'press-first' : 'press-quiet'"
        :aria-pressed="column.unit === unit"
        @click="emit('change', { ...column, unit })"
      >
        {{ unit }}
      </button>
      <span v-if="column.trial > 1" class="text-sm text-faded">reading {{ column.trial }}</span>
    </div>
    <p v-if="problem" class="mt-1 text-sm font-semibold text-alert">{{ problem }}</p>
  </th>
</template>
