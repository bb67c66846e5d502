<script setup lang="ts">
import type { Span } from '#core/following'
import type { Change } from '#core/following'
import { SITES } from '#core/sites'
import { cmToLength, formatChange, formatGirth, type Units } from '#core/units'

/** Girths over a span, and the limbs' girths with the fold taken off. */
const props = defineProps<{ span: Pick<Span, 'girths' | 'corrected'>; units: Units }>()

const LIMBS = { arm: 'Arm', thigh: 'Thigh', calf: 'Calf' } as const
const rows = computed(() => [
  ...props.span.girths.map(({ site, change }) => ({ id: site as string, name: SITES[site].name, change })),
  ...props.span.corrected.map(({ limb, change }) => ({
    id: `corrected-${limb}`,
    name: `${LIMBS[limb]}, fold taken off`,
    change,
  })),
])
const inUnit = (cm: number) => cmToLength(cm, props.units.length)
function range({ low, high }: Change): string {
  return `${formatChange(inUnit(low), 1)} to ${formatChange(inUnit(high), 1)}`
}
</script>

<template>
  <ScrollTable label="Girths">
    <table class="ruled">
      <thead>
        <tr>
          <th scope="col">Girth, {{ units.length }}</th>
          <th scope="col" class="right">Then</th>
          <th scope="col" class="right">Now</th>
          <th scope="col" class="right">Change</th>
          <th scope="col"><span class="sr-only">Verdict</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id" :data-girth="row.id">
          <td class="font-semibold">{{ row.name }}</td>
          <td class="figure right text-faded">{{ formatGirth(row.change.then, units) }}</td>
          <td class="figure right">{{ formatGirth(row.change.now, units) }}</td>
          <td class="figure right whitespace-nowrap">
            <span class="font-bold">{{ formatChange(inUnit(row.change.change), 1) }}</span>
            <span class="ml-2 text-sm text-faded">{{ range(row.change) }}</span>
          </td>
          <td class="pl-4 text-[15px]"><VerdictMark :change="row.change" /></td>
        </tr>
      </tbody>
    </table>
  </ScrollTable>
</template>
