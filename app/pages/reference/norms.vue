<script setup lang="ts">
import type { Sex } from '#core/equations/equation'
import { ATHLETES_HAVE_NO_TABLE, NORM_TABLES } from '#core/norms'

useHead({ title: 'Norms, Oak Pinch' })

const sex = ref<Sex>('female')
const age = ref('34')
const years = computed(() => {
  const value = Number(age.value)
  return Number.isInteger(value) && value > 0 && value < 120 ? value : null
})
const shown = computed(() => NORM_TABLES.map((table) => ({ table, bands: table.bands(sex.value, years.value ?? 34) })))
</script>

<template>
  <div class="px-4 py-4 sm:px-6">
    <div class="flex flex-wrap items-start gap-6">
      <ChoiceField
        v-model="sex"
        label="For"
        name="normSex"
        :options="[
          { value: 'female', label: 'Women' },
          { value: 'male', label: 'Men' },
        ]"
      />
      <FormField
        v-slot="{ attrs }"
        label="Age, years"
        name="normAge"
        :problem="years === null ? 'Please give the age in whole years.' : undefined"
      >
        <input v-bind="attrs" v-model="age" class="field figure max-w-28" inputmode="numeric" autocomplete="off" />
      </FormField>
      <p class="max-w-prose flex-1 border-l-4 border-rule pl-3 text-[15px]">
        A coach chooses the table; none of them judges. {{ ATHLETES_HAVE_NO_TABLE }} Oak Pinch never diagnoses:
        questions of health belong to licensed practice.
      </p>
    </div>
    <div class="mt-5 grid gap-x-12 gap-y-4 lg:grid-cols-2">
      <section
        v-for="{ table, bands } in shown"
        :key="table.id"
        :data-norm="table.id"
        class="border-t border-rule pt-2"
      >
        <h2 class="font-bold">
          {{ table.name }} <span v-if="table.unit" class="font-normal text-faded">{{ table.unit }}</span>
        </h2>
        <p class="mb-2 text-sm text-faded">
          {{ [`${table.source}.`, table.note].filter(Boolean).join(' ') }}
        </p>
        <BandScale
          v-if="bands.length > 0"
          :bands="bands"
          :unit="table.unit"
          :label="bands.map(({ name, low }) => `${name} from ${low}`).join(', ')"
        />
        <p v-else class="text-faded">This table says nothing about this age.</p>
      </section>
    </div>
  </div>
</template>
