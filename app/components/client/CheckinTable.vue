<script setup lang="ts">
import { endFigures } from '#core/following'
import { formatMass, formatNumber, type Units } from '#core/units'
import type { FollowedRecord } from '#shared/followed-record'
import type { CheckinRecord, VoidedCheckin } from '#shared/schemas/checkin'
import type { BroughtIn, ClientHistory } from '#shared/schemas/following'

/** Every check-in, the newest first, with what it gave: the table behind the chart. */
const props = defineProps<{
  record: FollowedRecord
  voided: readonly VoidedCheckin[]
  brought: readonly BroughtIn[]
  units: Units
  neutral: boolean
}>()
const emit = defineEmits<{ voided: [history: ClientHistory] }>()
const voiding = ref<CheckinRecord | null>(null)

const saidOf = ({ by, at, fileName }: BroughtIn) => `brought in by ${by} on ${sayDay(at)} from ${fileName}`
/** The import a check-in came with, if any: the newest one that added to it. */
const origins = computed(() => new Map([...props.brought].reverse().map((one) => [one.checkinId, saidOf(one)])))

const rows = computed(() =>
  [...props.record.records].reverse().map((record) => {
    const end = props.record.ends.find((one) => one.record.id === record.id)
    if (!end) return { record, end: null, said: null }
    return { record, end, said: endFigures(end) }
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
      <tr v-for="{ record: one, end, said } in rows" :key="one.id">
        <td>
          <NuxtLink :to="`/measure/${one.id}`" class="font-semibold underline-offset-4 hover:underline">
            {{ sayFullDay(one.day) }}
          </NuxtLink>
          <span v-if="!one.finishedAt" class="ml-2 text-sm font-semibold text-signal">unfinished</span>
          <span v-if="one.note" class="ml-2 text-sm text-faded">{{ one.note }}</span>
          <span v-if="origins.has(one.id)" class="block text-sm text-faded" data-brought>{{
            origins.get(one.id)
          }}</span>
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
            @click="voiding = one"
          >
            void<span class="sr-only"> the check-in of {{ sayFullDay(one.day) }}</span>
          </button>
        </td>
      </tr>
      <tr v-for="gone in voided" :key="gone.id" class="text-faded" data-voided>
        <td class="line-through">{{ sayFullDay(gone.day) }}</td>
        <td :colspan="neutral ? 3 : 7" class="text-[15px]">voided by {{ gone.by }}: {{ gone.reason }}</td>
      </tr>
    </tbody>
  </table>
  <LazyVoidDialog
    v-if="voiding"
    :record="voiding"
    @close="voiding = null"
    @voided="(found) => ((voiding = null), emit('voided', found))"
  />
</template>
