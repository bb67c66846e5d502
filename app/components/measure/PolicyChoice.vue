<script setup lang="ts">
import { policyChoices, POLICIES, type ChosenPolicies, type PolicyId } from '#core/readings'
import { isFold } from '#core/sites'
import { type Protocol } from '#core/protocols'

const props = defineProps<{ protocol: Protocol }>()
const chosen = defineModel<ChosenPolicies>({ required: true })

/** What can be chosen, for kinds of sites the protocol holds; a single way is no choice. */
const choices = computed(() => {
  const { folds, girths } = policyChoices(props.protocol)
  const kinds = [
    {
      kind: 'folds' as const,
      label: 'Folds are read',
      ids: folds,
      own: props.protocol.policy,
      has: props.protocol.sites.some(isFold),
    },
    {
      kind: 'girths' as const,
      label: 'Girths are read',
      ids: girths,
      own: props.protocol.girthPolicy,
      has: props.protocol.sites.some((site) => !isFold(site)),
    },
  ]
  return kinds.filter(({ ids, has }) => has && ids.length > 1)
})

function choose(kind: 'folds' | 'girths', id: PolicyId) {
  const own = kind === 'folds' ? props.protocol.policy : props.protocol.girthPolicy
  chosen.value = { ...chosen.value, [kind]: id === own ? null : id }
}
</script>

<template>
  <ListField
    v-for="{ kind, label, ids, own } in choices"
    :key="kind"
    :label="label"
    :name="`policy-${kind}`"
    :options="ids.map((id) => ({ id, name: POLICIES[id].name }))"
    :model-value="chosen[kind] ?? own"
    @update:model-value="choose(kind, $event)"
  />
</template>
