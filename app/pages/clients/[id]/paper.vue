<script setup lang="ts">
import { composeWith } from '#core/composition/checkin'
import { isFold, type SiteId } from '#core/sites'
import { findProtocol, PROTOCOLS } from '#core/protocols'
import { formatGirth, formatMass, formatNumber } from '#core/units'
import type { PrepareFacts } from '#shared/schemas/checkin'
import { useMe } from '~/stores/me'
import { clients } from '~/calls'

const route = useRoute()
const store = useMe()
const facts = shallowRef<PrepareFacts | null>(null)
const protocolId = ref<string>('laboratory-7')
const protocol = computed(() => findProtocol(protocolId.value) ?? PROTOCOLS['laboratory-7'])
const before = computed(() => {
  const found = facts.value
  const set = found?.last ? findProtocol(found.last.protocolId) : null
  if (!found?.last || !set) return null
  const { startedAt, readings, strikes, skips } = found.last
  return composeWith([], { person: found.client, protocol: set, startedAt, readings, strikes, skips })
})
const last = computed(() => {
  const [found, composed] = [facts.value?.last, before.value]
  if (!found || !composed) return undefined
  const said = protocol.value.sites.flatMap((id) => {
    const value = composed.values[id]
    return value === undefined ? [] : [[id, isFold(id) ? formatNumber(value, 1) : formatGirth(value, store.units)]]
  })
  const weight = composed.weightKg === null ? null : formatMass(composed.weightKg, store.units)
  return { day: sayDay(found.day), values: Object.fromEntries(said) as Partial<Record<SiteId, string>>, weight }
})

useOpening(async () => {
  facts.value = await clients.prepare(String(route.params.id))
  const wanted = findProtocol(String(route.query.protocol ?? facts.value.last?.protocolId ?? ''))
  if (wanted) protocolId.value = wanted.id
})
useHead({ title: () => `Log sheet for ${facts.value?.client.name ?? ''}` })

function print() {
  window.print()
}
</script>

<template>
  <div v-if="facts" class="w-full px-4 py-4 sm:px-6">
    <div class="no-print mb-4 flex flex-wrap items-end gap-3">
      <SetField v-model="protocolId" class="w-96 max-w-full" />
      <button class="press press-first min-h-11" @click="print">Print</button>
      <NuxtLink :to="`/clients/${facts.client.id}/measure?paper=1`" class="press press-quiet min-h-11"
        >Type a filled one in</NuxtLink
      >
    </div>
    <PaperSheet
      :protocol="protocol"
      :units="store.units"
      :client="{ name: facts.client.name, side: facts.client.usualSide }"
      :last="last"
    />
  </div>
  <p v-else class="p-6 text-faded">Fetching the record.</p>
</template>
