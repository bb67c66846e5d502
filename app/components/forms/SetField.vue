<script setup lang="ts">
import { PROTOCOLS, type ProtocolId } from '#core/protocols'

/** A set of sites, found by its name or by what it is for. */
const model = defineModel<ProtocolId>({ required: true })
const sets = Object.values(PROTOCOLS).map(({ id, name, purpose }) => ({ id, name, note: purpose }))
</script>

<template>
  <PickField
    label="Set of sites"
    name="protocol"
    :options="sets"
    :model-value="model"
    @update:model-value="$event && (model = $event as ProtocolId)"
  />
</template>
