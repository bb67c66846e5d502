<script setup lang="ts">
import { protocolFor, type Protocol } from '#core/protocols'
import { policyOf, type ChosenPolicies } from '#core/readings'
import { isFold, SITES, type SiteId } from '#core/sites'

/** The sites of a check-in to come, in the order they will be asked for. */
const props = defineProps<{
  protocol: Protocol
  sex: 'female' | 'male'
  /** Sites beyond what the equations of this sex need. */
  wished: readonly SiteId[]
  policies: ChosenPolicies
}>()
const sites = computed(() => protocolFor(props.protocol, props.sex, props.wished).sites.map((id) => SITES[id]))
const rounds = computed(() => {
  const { base } = policyOf(props.policies.folds ?? props.protocol.policy)
  const folds = sites.value.filter(({ id }) => isFold(id as SiteId)).length
  const girths = sites.value.length - folds
  if (folds === 0) return ''
  return `${folds} folds, ${base === 1 ? 'one round' : `${base} rounds`}${girths > 0 ? `, then ${girths} girths` : ''}`
})
</script>

<template>
  <section aria-labelledby="order">
    <h2 id="order" class="border-b-2 border-ink pb-1 text-lg font-bold">
      In this order
      <span class="text-[15px] font-normal text-faded">{{ rounds }}</span>
    </h2>
    <ol class="grid grid-cols-1 gap-x-8 sm:grid-cols-2 lg:grid-cols-4" data-order>
      <li v-for="(site, i) in sites" :key="site.id" class="flex gap-3 border-b border-rule py-2">
        <span class="figure w-5 text-faded">{{ i + 1 }}</span>
        <span class="min-w-0 flex-1">
          <span class="block font-semibold">{{ site.name }}</span>
          <span class="block text-sm text-faded">{{ site.where }}</span>
        </span>
      </li>
    </ol>
  </section>
</template>
