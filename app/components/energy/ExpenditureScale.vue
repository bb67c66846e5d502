<script setup lang="ts">
import { Z_95 } from '#core/error'
import type { EnergyFacts } from '#shared/energy'

/** Expenditure by every source on one scale, each with its interval. */
const props = defineProps<{ facts: EnergyFacts }>()

interface Row {
  id: string
  name: string
  note: string
  kcal: number
  /** Half of the 95 % interval; null: none known. */
  half: number | null
  strong: boolean
}
const half = (variance: number) => Z_95 * Math.sqrt(variance)

/** Which equations lead for this person. */
const leadSaid = computed(() => {
  const { all, led } = props.facts.resting
  const names = all.filter(({ equation }) => led.includes(equation.id)).map(({ equation }) => equation.label)
  return names.length > 1 ? `mean of ${names.join(' and ')}` : `by ${names.join('')}`
})

const resting = computed<Row[]>(() => {
  const { resting: own } = props.facts
  return [
    ...own.all.map(({ equation, kcal }) => ({
      id: equation.id,
      name: equation.label,
      note: equation.on === 'lean' ? 'on lean mass' : 'on size',
      kcal,
      half: null,
      strong: false,
    })),
    {
      id: 'resting',
      name: 'Resting',
      note: `${leadSaid.value}; between equations ± ${Math.round(Z_95 * own.parts.equations)}, lean mass ± ${Math.round(Z_95 * own.parts.lean)}, people ± ${Math.round(Z_95 * own.parts.people)}`,
      kcal: own.lead.value,
      half: half(own.lead.variance),
      strong: true,
    },
  ]
})
const daily = computed<Row[]>(() => {
  const { factor, predicted, observed, believed } = props.facts
  return [
    ...(predicted && factor
      ? [
          {
            id: 'predicted',
            name: 'A day, predicted',
            note: `resting times ${factor.value.toFixed(2)}`,
            kcal: predicted.value,
            half: half(predicted.variance),
            strong: false,
          },
        ]
      : []),
    ...(observed
      ? [
          {
            id: 'observed',
            name: 'A day, observed',
            note: `${observed.logged} of ${observed.days} days logged`,
            kcal: observed.value,
            half: half(observed.variance),
            strong: false,
          },
        ]
      : []),
    ...(believed && predicted && observed
      ? [
          {
            id: 'believed',
            name: 'A day, both together',
            note: `${Math.round(100 * believed.observedWeight)} % the observed one`,
            kcal: believed.value,
            half: half(believed.variance),
            strong: true,
          },
        ]
      : []),
  ]
})
const rows = computed(() => [...resting.value, ...daily.value])
const bounds = computed(() => {
  const ends = rows.value.flatMap(({ kcal, half: own }) => [kcal - (own ?? 0), kcal + (own ?? 0)])
  return {
    low: Math.floor((Math.min(...ends) - 40) / 200) * 200,
    high: Math.ceil((Math.max(...ends) + 40) / 200) * 200,
  }
})
const at = (kcal: number) => (100 * (kcal - bounds.value.low)) / (bounds.value.high - bounds.value.low)
const ticks = computed(() => {
  const { low, high } = bounds.value
  const step = high - low > 1600 ? 800 : high - low > 800 ? 400 : 200
  return Array.from({ length: Math.floor((high - low) / step) + 1 }, (_, i) => low + i * step)
})
const whole = (kcal: number) => Math.round(kcal).toLocaleString('en-US')
</script>

<template>
  <div data-expenditure>
    <ul>
      <li
        v-for="(row, i) in rows"
        :key="row.id"
        class="grid grid-cols-[minmax(0,1fr)_4.5rem] items-center gap-x-4 border-b border-rule py-1 sm:grid-cols-[15rem_minmax(0,1fr)_4.5rem]"
        :class="{ 'mt-3 border-t': i === resting.length }"
        :data-source="row.id"
      >
        <span class="min-w-0">
          <span class="block leading-tight" :class="{ 'font-bold': row.strong }">{{ row.name }}</span>
          <span class="block text-sm leading-tight text-faded">{{ row.note }}</span>
        </span>
        <span class="relative h-7 max-sm:order-3 max-sm:col-span-2" aria-hidden="true">
          <span
            v-for="tick in ticks"
            :key="tick"
            class="absolute inset-y-0 w-px bg-rule"
            :style="{ left: `${at(tick)}%` }"
          />
          <span
            v-if="row.half !== null"
            class="absolute top-1/2 h-2 -translate-y-1/2 rounded-full"
            :class="row.strong ? 'bg-weight opacity-40' : 'bg-weight opacity-20'"
            :style="{
              left: `${at(row.kcal - row.half)}%`,
              width: `${at(row.kcal + row.half) - at(row.kcal - row.half)}%`,
            }"
          />
          <span
            class="absolute top-1/2 -translate-x-1/2 -translate-y-1/2 rounded-full bg-weight"
            :class="row.strong ? 'size-3.5' : 'size-2.5'"
            :style="{ left: `${at(row.kcal)}%` }"
          />
        </span>
        <span class="text-right">
          <span class="figure" :class="row.strong ? 'text-lg font-bold' : ''">{{ whole(row.kcal) }}</span>
          <span v-if="row.half !== null" class="figure block text-sm leading-tight text-faded"
            >± {{ whole(row.half) }}</span
          >
        </span>
      </li>
    </ul>
    <div class="relative mr-[5.5rem] h-6 text-sm text-faded max-sm:hidden sm:ml-[16rem]" aria-hidden="true">
      <span
        v-for="tick in ticks"
        :key="tick"
        class="figure absolute -translate-x-1/2"
        :style="{ left: `${at(tick)}%` }"
        >{{ whole(tick) }}</span
      >
    </div>
  </div>
</template>
