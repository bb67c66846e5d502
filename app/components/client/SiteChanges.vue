<script setup lang="ts">
import type { SiteChange } from '#core/composition'
import { SITES } from '#core/sites'
import { formatChange, formatNumber } from '#core/units'

const props = defineProps<{ changes: SiteChange[]; then: string; now: string }>()

const longest = computed(() => Math.max(10, ...props.changes.flatMap(({ then, now }) => [then ?? 0, now ?? 0])))
function across(mm: number): number {
  return (mm / longest.value) * 200
}
</script>

<template>
  <table class="ruled">
    <thead>
      <tr>
        <th scope="col">Site</th>
        <th scope="col" class="right">{{ then }}</th>
        <th scope="col" class="w-full max-sm:hidden"><span class="sr-only">Then to now</span></th>
        <th scope="col" class="right">{{ now }}</th>
        <th scope="col" class="right">Change</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in changes" :key="row.site">
        <th scope="row" class="!border-b !border-rule !text-base !font-semibold !text-ink">
          {{ SITES[row.site].name }}
        </th>
        <td class="figure right text-faded">{{ row.then === null ? '' : formatNumber(row.then, 1) }}</td>
        <td class="max-sm:hidden">
          <svg viewBox="-6 0 212 16" class="h-4 w-full min-w-24" preserveAspectRatio="none" aria-hidden="true">
            <g v-if="row.then !== null && row.now !== null" class="stroke-sum" vector-effect="non-scaling-stroke">
              <line :x1="across(row.then)" :x2="across(row.now)" y1="8" y2="8" stroke-width="3" />
              <line :x1="across(row.then)" :x2="across(row.then)" y1="3" y2="13" stroke-width="2" opacity="0.6" />
              <line :x1="across(row.now)" :x2="across(row.now)" y1="0" y2="16" stroke-width="4" />
            </g>
          </svg>
        </td>
        <td class="figure right font-semibold">{{ row.now === null ? '' : formatNumber(row.now, 1) }}</td>
        <td class="figure right font-bold" :data-change="row.site">
          {{ row.change === null ? '' : formatChange(row.change, 1) }}
        </td>
      </tr>
    </tbody>
  </table>
</template>
