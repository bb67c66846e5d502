<script setup lang="ts">
import type { ComposedCheckin } from '#core/composition'
import { formatMass, formatNumber, type Units } from '#core/units'
import type { HistoryFacts } from './history-facts'

defineProps<{ history: ComposedCheckin<HistoryFacts>[]; units: Units; sumName: string }>()

function percentOf(checkin: ComposedCheckin): string {
  const estimate = checkin.result.estimate
  return estimate && 'percent' in estimate ? formatNumber(estimate.percent, 1) : ''
}
</script>

<template>
  <table class="ruled">
    <thead>
      <tr>
        <th scope="col">Check-in</th>
        <th scope="col" class="right">Weight, {{ units.mass }}</th>
        <th scope="col" class="right">{{ sumName }}, mm</th>
        <th scope="col" class="right">Fat, %</th>
        <th scope="col" class="right">Fat, {{ units.mass }}</th>
        <th scope="col" class="right">Lean, {{ units.mass }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="checkin in [...history].reverse()" :key="checkin.facts.id">
        <td>
          <NuxtLink :to="`/measure/${checkin.facts.id}`" class="font-semibold underline-offset-4 hover:underline">
            {{ sayDay(checkin.facts.startedAt) }}
          </NuxtLink>
          <span v-if="!checkin.facts.finishedAt" class="ml-2 text-sm font-semibold text-signal">unfinished</span>
          <span v-if="checkin.facts.note" class="ml-2 text-sm text-faded">{{ checkin.facts.note }}</span>
        </td>
        <td class="figure right">
          {{ checkin.result.weightKg === null ? '' : formatMass(checkin.result.weightKg, units) }}
        </td>
        <td class="figure right">{{ checkin.result.sumMm === null ? '' : formatNumber(checkin.result.sumMm, 1) }}</td>
        <td class="figure right">{{ percentOf(checkin) }}</td>
        <td class="figure right">{{ checkin.result.masses ? formatMass(checkin.result.masses.fatKg, units) : '' }}</td>
        <td class="figure right">{{ checkin.result.masses ? formatMass(checkin.result.masses.leanKg, units) : '' }}</td>
      </tr>
    </tbody>
  </table>
</template>
