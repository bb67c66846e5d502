<script setup lang="ts">
import { estimate, type Equation, type Sex } from '#core/equations'
import { formatNumber, type Units } from '#core/units'
import { readTyped, tryFields } from './typed-measures'

const props = defineProps<{ equation: Equation; units: Units }>()

const typed = ref<Record<string, string>>({})
const asked = ref<Sex>('female')
const conversion = ref('siri')
const sex = computed<Sex>(() => (props.equation.sex === 'both' ? asked.value : props.equation.sex))
const fields = computed(() => tryFields(props.equation, props.units))
const read = computed(() => readTyped(fields.value, typed.value, props.units))
const result = computed(() =>
  estimate(props.equation, read.value.known, { person: { sex: sex.value }, conversion: conversion.value }),
)
const reached = computed(() => ('percent' in result.value ? result.value : null))
</script>

<template>
  <section aria-label="Try it with numbers" class="mt-5">
    <h3 class="border-b border-ink pb-1 font-semibold">Try it with numbers</h3>
    <div class="mt-3 flex flex-wrap gap-6">
      <ChoiceField
        v-if="equation.sex === 'both'"
        v-model="asked"
        label="Sex for the equation"
        name="trySex"
        :options="[
          { value: 'female', label: 'Women’s' },
          { value: 'male', label: 'Men’s' },
        ]"
      />
      <ConversionField v-if="equation.gives === 'density'" v-model="conversion" class="w-80 max-w-full" />
    </div>
    <div class="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4">
      <FormField
        v-for="field in fields"
        :key="field.input"
        v-slot="{ attrs }"
        :label="`${field.label}, ${field.unit}`"
        :name="`try-${field.input}`"
        :problem="read.problems[field.input]"
      >
        <input
          v-bind="attrs"
          class="field figure"
          inputmode="decimal"
          autocomplete="off"
          :value="typed[field.input] ?? field.example"
          @input="typed = { ...typed, [field.input]: ($event.target as HTMLInputElement).value }"
        />
      </FormField>
    </div>
    <div aria-live="polite" class="mt-4">
      <p v-if="reached" class="flex flex-wrap items-baseline gap-x-4">
        <span class="text-fat">
          <span class="figure text-5xl font-bold" data-try-percent>{{ formatNumber(reached.percent, 2) }}</span>
          <span class="ml-1 text-faded">% fat</span>
        </span>
        <span v-if="reached.density" class="text-faded">
          density <span class="figure">{{ formatNumber(reached.density, 5) }}</span> g/mL
        </span>
        <span v-if="reached.band" class="text-faded">
          usually <span class="figure">{{ formatNumber(reached.band.low, 1) }}</span> to
          <span class="figure">{{ formatNumber(reached.band.high, 1) }}</span>
        </span>
      </p>
      <p v-else-if="result.status === 'refused'" class="border-l-4 border-fat pl-3" data-try-refused>
        <strong>No percent.</strong> {{ result.reason }}
      </p>
      <p v-else class="text-faded">The marked fields are needed.</p>
      <ul v-if="reached" class="mt-2 text-[15px]">
        <li v-for="caution in reached.cautions" :key="caution.code">
          <strong>Caution.</strong> {{ caution.sentence }}
        </li>
      </ul>
    </div>
  </section>
</template>
