<script setup lang="ts">
import { policyChoices, POLICIES, type ChosenPolicies } from '#core/readings'
import { isFold } from '#core/sites'
import { type Protocol } from '#core/protocols'

const props = defineProps<{ protocol: Protocol }>()
const chosen = defineModel<ChosenPolicies>({ required: true })

/** What can be chosen, for kinds of sites the protocol holds; a single way is no choice. */
const choices = computed(() => {
  const { folds, girths } = policyChoices(props.protocol)
  const kinds = [
    { kind: 'folds' as const, label: 'Folds are read', ids: folds, has: props.protocol.sites.some(isFold) },
    {
      kind: 'girths' as const,
      label: 'Girths are read',
      ids: girths,
      has: props.protocol.sites.some((site) => !isFold(site)),
    },
  ]
  return kinds.filter(({ ids, has }) => has && ids.length > 1)
})

function choose(kind: 'folds' | 'girths', event: Event) {
  const id = choices.value.find((one) => one.kind === kind)?.ids[(event.target as HTMLSelectElement).selectedIndex]
  const own = kind === 'folds' ? props.protocol.policy : props.protocol.girthPolicy
  chosen.value = { ...chosen.value, [kind]: !id || id === own ? null : id }
}
</script>

<template>
  <label v-for="{ kind, label, ids } in choices" :key="kind" class="grid gap-1">
    <span class="font-semibold">{{ label }}</span>
    <select class="field" :name="`policy-${kind}`" :value="chosen[kind] ?? ids[0]" @change="choose(kind, $event)">
      <option v-for="id in ids" :key="id" :value="id">{{ POLICIES[id].name }}</option>
    </select>
  </label>
</template>
