<script setup lang="ts">
import type { Standing } from '#core/challenge'
import { formatChange } from '#core/units'

/** A group's standing: brackets join those who share a place; bars with their error, and the chance of being first. */
const props = defineProps<{ title: string; standings: readonly Standing[]; names: ReadonlyMap<string, string> }>()

const reach = computed(() => Math.max(1, ...props.standings.flatMap(({ low, high }) => [-low, high])))
const span = computed(
  () =>
    Math.max(...props.standings.map(({ low }) => -low), 1) + Math.max(...props.standings.map(({ high }) => high), 1),
)
/** Percent of the bar's width at a change; less stands further right. */
const right = computed(() => Math.max(...props.standings.map(({ high }) => high), 1))
const xOf = (change: number) => (100 * (right.value - change)) / span.value
const hasPlaces = computed(() => props.standings.some(({ place }) => place !== null))
const shares = (place: number | null) =>
  place !== null && props.standings.filter((one) => one.place === place).length > 1
const isEdge = (i: number) => ({
  top: props.standings[i - 1]?.place !== props.standings[i]?.place,
  bottom: props.standings[i + 1]?.place !== props.standings[i]?.place,
})
const said = (chance: number) => (chance < 0.005 ? '< 1' : Math.round(100 * chance))
</script>

<template>
  <section :aria-label="title || 'Standing'" :data-reach="reach">
    <h2 v-if="title" class="mt-2 border-b-2 border-ink pb-1 text-lg font-bold">{{ title }}</h2>
    <table class="w-full border-collapse" data-standing>
      <thead class="text-sm text-faded">
        <tr>
          <th class="w-14 py-1 text-left font-medium">Place</th>
          <th class="py-1 text-left font-medium">Name</th>
          <th class="w-[40%] py-1 text-left font-medium">Of their own start</th>
          <th class="w-20 py-1 text-right font-medium">%</th>
          <th class="w-24 py-1 text-right font-medium">First, in 100</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(one, i) in standings" :key="one.id" :data-place="one.place ?? 'none'">
          <td class="figure p-0 text-xl font-bold">
            <span
              class="flex h-12 items-center pl-2"
              :class="
                shares(one.place)
                  ? ['border-l-3 border-ink', { 'border-t-3': isEdge(i).top, 'border-b-3': isEdge(i).bottom }]
                  : ''
              "
              >{{ one.place === null ? '–' : isEdge(i).top ? one.place : ''
              }}<span v-if="one.place !== null && !isEdge(i).top" class="sr-only">{{ one.place }}, shared</span></span
            >
          </td>
          <td class="truncate py-1 pr-3 font-semibold">{{ names.get(one.id) }}</td>
          <td class="p-0">
            <span class="relative block h-12" :title="`${formatChange(one.low)} to ${formatChange(one.high)} %`">
              <span class="absolute inset-y-0 border-l border-ink" :style="{ left: `${xOf(0)}%` }" />
              <span
                class="absolute top-4 h-4 rounded-xs bg-sum/70"
                :style="{
                  left: `${Math.min(xOf(0), xOf(one.change))}%`,
                  width: `${Math.abs(xOf(one.change) - xOf(0))}%`,
                }"
              />
              <span
                class="absolute top-[23px] border-t-2 border-ink"
                :style="{ left: `${xOf(one.high)}%`, width: `${xOf(one.low) - xOf(one.high)}%` }"
              />
            </span>
          </td>
          <td class="figure py-1 text-right">{{ formatChange(one.change) }}</td>
          <td class="py-1 text-right">
            <span v-if="hasPlaces" class="inline-flex items-center gap-2"
              ><span class="figure">{{ said(one.first) }}</span><ChanceRing :chance="one.first"
            /></span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="!hasPlaces && standings.length > 0" class="py-2" data-no-first>
      No first place: nobody’s loss is beyond the error of measuring yet.
    </p>
  </section>
</template>
