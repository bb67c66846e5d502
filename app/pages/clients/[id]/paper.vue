<script setup lang="ts">
import { composeWith } from '#core/composition/checkin'
import { CONDITIONS } from '#core/composition'
import { isFold, SITES } from '#core/sites'
import { findProtocol, PROTOCOLS } from '#core/protocols'
import { policyOf } from '#core/readings'
import { formatGirth, formatMass, formatNumber } from '#core/units'
import type { PrepareFacts } from '#shared/schemas/checkin'
import { useMe } from '~/stores/me'
import { clients } from '~/calls'

const route = useRoute()
const store = useMe()
const facts = shallowRef<PrepareFacts | null>(null)
const protocolId = ref('laboratory-7')
const protocol = computed(() => findProtocol(protocolId.value) ?? PROTOCOLS['laboratory-7'])
const before = computed(() => {
  const found = facts.value
  const set = found?.last ? findProtocol(found.last.protocolId) : null
  if (!found?.last || !set) return null
  const { startedAt, readings, strikes, skips } = found.last
  return composeWith([], { person: found.client, protocol: set, startedAt, readings, strikes, skips })
})
const rows = computed(() =>
  protocol.value.sites.map((id) => {
    const value = before.value?.values[id]
    const last = value === undefined ? '' : isFold(id) ? formatNumber(value, 1) : formatGirth(value, store.units)
    return { site: SITES[id], last }
  }),
)
const columns = computed(() => Math.max(2, policyOf(protocol.value.policy).base) + 1)

onMounted(async () => {
  try {
    facts.value = await clients.prepare(String(route.params.id))
    protocolId.value = String(route.query.protocol ?? facts.value.last?.protocolId ?? 'laboratory-7')
  } catch (error) {
    showError({ statusCode: problemOf(error).status || 503, message: problemOf(error).message })
  }
})
useHead({ title: () => `Log sheet for ${facts.value?.client.name ?? ''}` })

function print() {
  window.print()
}
</script>

<template>
  <div v-if="facts" class="mx-auto w-full max-w-4xl px-4 py-4 sm:px-6">
    <div class="no-print mb-4 flex flex-wrap items-end gap-3">
      <label class="grid gap-1">
        <span class="font-semibold">Set of sites</span>
        <select v-model="protocolId" name="protocol" class="field">
          <option v-for="one in PROTOCOLS" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </label>
      <button class="press press-first min-h-11" @click="print">Print</button>
      <NuxtLink :to="`/clients/${facts.client.id}/measure?paper=1`" class="press press-quiet min-h-11"
        >Type a filled one in</NuxtLink
      >
    </div>
    <article class="sheet" aria-label="Blank log sheet">
      <header class="flex flex-wrap justify-between gap-2 border-b-2 border-ink pb-1">
        <h1 class="text-2xl font-bold">{{ facts.client.name }}</h1>
        <p>{{ protocol.name }}, {{ facts.client.usualSide }} side</p>
      </header>
      <p class="mt-2 flex flex-wrap gap-x-8 gap-y-2">
        <span>Date and time ______________</span><span>Measured by ______________</span
        ><span>Caliper ______________</span>
        <span>
          Weight ________ {{ store.units.mass }}
          <span v-if="before?.weightKg" class="text-faded">(last {{ formatMass(before.weightKg, store.units) }})</span>
        </span>
      </p>
      <table class="mt-3 w-full border-collapse">
        <thead>
          <tr class="border-b-2 border-ink text-left">
            <th scope="col" class="py-1">Site</th>
            <th scope="col" class="w-20 text-right">{{ facts.last ? sayDay(facts.last.day) : 'Last' }}</th>
            <th v-for="column in columns" :key="column" scope="col" class="w-24 pl-3">{{ column }}.</th>
            <th scope="col" class="w-24 pl-3">Value</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.site.id" class="h-10 border-b border-rule">
            <th scope="row" class="text-left font-semibold">{{ row.site.name }}</th>
            <td class="figure text-right text-faded">{{ row.last }}</td>
            <td v-for="column in columns + 1" :key="column" class="border-l border-rule" />
          </tr>
        </tbody>
      </table>
      <p class="mt-3 text-sm">
        Strike a wrong reading through and write the new one beside it. Folds in mm, girths in {{ store.units.length }}.
      </p>
      <ul class="mt-2 grid grid-cols-2 gap-x-8 gap-y-1 text-sm">
        <li v-for="condition in CONDITIONS" :key="condition.id">
          <strong>{{ condition.label }}:</strong> {{ condition.options.map(({ name }) => `☐ ${name}`).join('  ') }}
        </li>
      </ul>
      <p class="mt-3">Note</p>
      <div class="mt-6 border-b border-rule" />
      <div class="mt-8 border-b border-rule" />
    </article>
  </div>
  <p v-else class="p-6 text-faded">Fetching the record.</p>
</template>
