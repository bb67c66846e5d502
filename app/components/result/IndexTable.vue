<script setup lang="ts">
import type { Composition } from '#core/composition'
import type { NormOf } from '#core/norms'
import { cmToLength, formatNumber, type Units } from '#core/units'

/** Indexes of size and shape, each where a named table puts it. */
const props = defineProps<{ result: Composition; units: Units; neutral: boolean }>()

interface Row {
  id: string
  name: string
  value: string
  unit: string
  of: NormOf | null
}

const rows = computed<Row[]>(() => {
  const { indexes, values } = props.result
  const waist = indexes.waistSite ? values[indexes.waistSite] : undefined
  const row = (
    id: string,
    name: string,
    value: number | null | undefined,
    unit: string,
    of: NormOf | null,
    places = 1,
  ) => (value === null || value === undefined ? [] : [{ id, name, value: formatNumber(value, places), unit, of }])
  const weighed = [
    ...row('bmi', 'BMI', indexes.bmi, 'kg/m²', 'bmi'),
    ...row('ffmi', 'FFMI', indexes.ffmi, 'kg/m²', null),
    ...row('ffmi-180', 'FFMI at 1.80 m', indexes.adjustedFfmi, 'kg/m²', null),
    ...row('muscle', 'Skeletal muscle, estimated', indexes.muscleKg, 'kg', null),
  ]
  return [
    ...(props.neutral ? [] : weighed),
    ...row('waist', 'Waist', waist && cmToLength(waist, props.units.length), props.units.length, 'waist'),
    ...row('whr', 'Waist to hip', indexes.waistToHip, '', 'waist-to-hip', 2),
    ...row('whtr', 'Waist to height', indexes.waistToHeight, '', 'waist-to-height', 2),
  ]
})

function standing(of: NormOf | null) {
  return props.result.standings.find(({ table }) => table.of === of) ?? null
}
</script>

<template>
  <table v-if="rows.length > 0" class="ruled">
    <thead>
      <tr>
        <th scope="col">Index</th>
        <th scope="col" class="right">Value</th>
        <th scope="col" class="!pl-6">Where that stands</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.id" :data-index="row.id">
        <td class="!py-1 font-semibold">{{ row.name }}</td>
        <td class="right !py-1 whitespace-nowrap">
          <span class="figure text-lg font-bold">{{ row.value }}</span>
          <span class="ml-1 text-sm text-faded">{{ row.unit }}</span>
        </td>
        <td class="!py-1 !pl-6">
          <template v-if="standing(row.of)?.band">
            {{ standing(row.of)?.band?.name }}
            <span class="text-sm text-faded">· {{ standing(row.of)?.table.name }}</span>
          </template>
          <span v-else class="text-sm text-faded">{{
            row.id.startsWith('ffmi') ? 'beside the BMI of muscular people' : 'no table'
          }}</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>
