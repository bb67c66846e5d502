<script setup lang="ts">
import type { Composition } from '#core/composition'
import { readingsLeftOut, sayWhy, valueOf, type SiteState } from '#core/readings'
import { isFold, SITES } from '#core/sites'
import { formatNumber, formatTape, type Units } from '#core/units'

/** Each site's value with the readings behind it, struck ones crossed out. */
const props = defineProps<{ result: Composition; units: Units }>()

/** Ids of the readings that do not enter a site's value. */
function leftOut({ live, policy }: SiteState): Set<string> {
  return new Set(readingsLeftOut(live.map(valueOf), policy).map((place) => live[place]?.id ?? ''))
}
const rows = computed(() =>
  props.result.session.sites.map((state) => {
    const say = (value: number) => (isFold(state.site) ? formatNumber(value) : formatTape(value, props.units))
    return {
      ...state,
      name: SITES[state.site].name,
      unit: isFold(state.site) ? 'mm' : props.units.length,
      said: state.value === null ? null : say(state.value),
      readings: [...state.live, ...state.struck]
        .sort((a, b) => (a.takenAt < b.takenAt ? -1 : 1))
        .map((reading) => ({
          id: reading.id,
          struck: reading.struck,
          out: leftOut(state).has(reading.id),
          text: say(valueOf(reading)),
        })),
    }
  }),
)
</script>

<template>
  <table class="ruled">
    <thead>
      <tr>
        <th scope="col">Site</th>
        <th scope="col">Readings</th>
        <th scope="col" class="right">Value</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.site" :data-value="row.site">
        <td class="!py-1 font-semibold">{{ row.name }}</td>
        <td class="figure !py-1 text-faded">
          <span
            v-for="reading in row.readings"
            :key="reading.id"
            class="mr-3"
            :class="{ 'line-through': reading.struck, italic: reading.out }"
            :data-left-out="reading.out || undefined"
            >{{ reading.text }}<span v-if="reading.out" class="font-sans text-xs"> left out of the value</span></span
          >
          <span v-if="row.skipped" class="font-sans text-sm">left out: {{ sayWhy(row.skipped) }}</span>
          <span v-if="row.status === 'unsteady'" class="font-sans text-sm font-semibold text-alert">unsteady</span>
          <span
            v-if="row.status === 'disputed' || row.status === 'partial'"
            class="font-sans text-sm font-semibold text-alert"
            >not settled</span
          >
        </td>
        <td class="right !py-1 whitespace-nowrap">
          <span class="figure text-lg font-bold">{{ row.said ?? '' }}</span>
          <span v-if="row.said !== null" class="ml-1 text-sm text-faded">{{ row.unit }}</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>
