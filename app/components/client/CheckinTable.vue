<script setup lang="ts">
import { endFigures } from '#core/composition'
import { formatMass, formatNumber, type Units } from '#core/units'
import type { CheckinRecord } from '#shared/schemas/checkin'
import type { ClientRecord } from '~/composables/useClientRecord'

/** Every check-in, the newest first, with what it gave: the table behind the chart. */
const props = defineProps<{ records: CheckinRecord[]; followed: ClientRecord; units: Units }>()
const { ends, errors, neutral, span, history } = props.followed
const voiding = ref<CheckinRecord | null>(null)
const voided = computed(() => history.value?.voided ?? [])

const rows = computed(() =>
  [...props.records].reverse().map((record) => {
    const end = ends.value.find((one) => one.record.id === record.id)
    if (!end) return { record, end: null, said: null }
    const { week: _, ...visit } = end
    return { record, end, said: endFigures(span.value?.byWeek ? end : visit, errors.value) }
  }),
)
</script>

<template>
  <table class="ruled">
    <thead>
      <tr>
        <th scope="col">Check-in</th>
        <th scope="col">Sites</th>
        <template v-if="!neutral">
          <th scope="col" class="right">Weight, {{ units.mass }}</th>
          <th scope="col" class="right">Fat, %</th>
          <th scope="col" class="right">Fat, {{ units.mass }}</th>
          <th scope="col" class="right">Lean, {{ units.mass }}</th>
        </template>
        <th scope="col" class="right">Sum, mm</th>
        <th scope="col" class="right"><span class="sr-only">Void</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="{ record, end, said } in rows" :key="record.id">
        <td>
          <NuxtLink :to="`/measure/${record.id}`" class="font-semibold underline-offset-4 hover:underline">
            {{ sayFullDay(record.day) }}
          </NuxtLink>
          <span v-if="!record.finishedAt" class="ml-2 text-sm font-semibold text-signal">unfinished</span>
          <span v-if="record.note" class="ml-2 text-sm text-faded">{{ record.note }}</span>
        </td>
        <td class="text-[15px] text-faded">{{ end?.facts.protocol.name }}</td>
        <template v-if="!neutral">
          <td class="figure right">{{ said?.weight ? formatMass(said.weight.value, units) : '' }}</td>
          <td class="figure right">{{ said?.percent ? formatNumber(said.percent.value) : '' }}</td>
          <td class="figure right">{{ said?.fat ? formatMass(said.fat.value, units) : '' }}</td>
          <td class="figure right">{{ said?.lean ? formatMass(said.lean.value, units) : '' }}</td>
        </template>
        <td class="figure right">{{ said?.sum ? formatNumber(said.sum.value) : '' }}</td>
        <td class="right !py-1">
          <button
            type="button"
            class="min-h-9 text-[15px] text-faded underline underline-offset-4"
            @click="voiding = record"
          >
            void<span class="sr-only"> the check-in of {{ sayFullDay(record.day) }}</span>
          </button>
        </td>
      </tr>
      <tr v-for="one in voided" :key="one.id" class="text-faded" data-voided>
        <td class="line-through">{{ sayFullDay(one.day) }}</td>
        <td :colspan="neutral ? 3 : 7" class="text-[15px]">voided by {{ one.by }}: {{ one.reason }}</td>
      </tr>
    </tbody>
  </table>
  <LazyVoidDialog
    v-if="voiding"
    :record="voiding"
    @close="voiding = null"
    @voided="(found) => ((voiding = null), followed.take(found))"
  />
</template>
