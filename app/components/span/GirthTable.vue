<script setup lang="ts">
import { changeRow, type Change, type Span } from '#core/following'
import { SITES } from '#core/sites'
import type { Units } from '#core/units'

/** Girths over a span, and the limbs' girths with the fold taken off. */
const props = defineProps<{ span: Pick<Span, 'girths' | 'corrected'>; units: Units }>()

const LIMBS = { arm: 'Arm', thigh: 'Thigh', calf: 'Calf' } as const
const rows = computed(() => {
  const said = (id: string, name: string, change: Change) => ({ id, name, change, row: changeRow(change, props.units) })
  return [
    ...props.span.girths.map(({ site, change }) => said(site, SITES[site].name, change)),
    ...props.span.corrected.map(({ limb, change }) =>
      said(`corrected-${limb}`, `${LIMBS[limb]}, fold taken off`, change),
    ),
  ]
})
</script>

<template>
  <ScrollTable label="Girths">
    <table class="ruled">
      <thead>
        <tr>
          <th scope="col">Girth, {{ units.length }}</th>
          <th scope="col" class="right">Then</th>
          <th scope="col" class="right">Now</th>
          <th scope="col" class="right">Difference</th>
          <th scope="col"><span class="sr-only">Sign of change</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ id, name, change, row } in rows" :key="id" :data-girth="id">
          <td class="font-semibold">
            {{ name }}<span class="block text-xs font-normal text-faded">{{ row.reason }}</span>
          </td>
          <td class="figure right text-faded">{{ row.then }}</td>
          <td class="figure right">{{ row.now }}</td>
          <td class="figure right font-bold whitespace-nowrap">{{ row.difference }}</td>
          <td class="pl-4 text-[15px]"><VerdictMark :change="change" /></td>
        </tr>
      </tbody>
    </table>
  </ScrollTable>
</template>
