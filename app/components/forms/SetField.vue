<script setup lang="ts">
import { PROTOCOLS } from '#core/protocols'
import { useMe } from '~/stores/me'

/** A set of sites, found by its name or by what it is for: the studio's own first. */
const model = defineModel<string>({ required: true })
const store = useMe()
const sets = computed(() => [
  ...(store.me?.sets ?? [])
    // One that was put away stays where it is in use.
    .filter(({ offered, id }) => offered || id === model.value)
    .map(({ id, name, sites }) => ({ id, name, note: `This studio’s own, ${sites.length} sites.` })),
  ...Object.values(PROTOCOLS).map(({ id, name, purpose }) => ({ id: id as string, name, note: purpose })),
])
</script>

<template>
  <PickField
    label="Set of sites"
    name="protocol"
    :options="sets"
    :model-value="model"
    @update:model-value="$event && (model = $event)"
  />
</template>
