<script setup lang="ts">
import { useDeviceAddress } from '~/composables/useDevices'

const address = useDeviceAddress()
const problem = computed(() =>
  address.value === '' || /^ws:\/\/(localhost|127\.0\.0\.1):\d+/.test(address.value)
    ? undefined
    : 'An address on this machine, such as ws://localhost:9310.',
)
</script>

<template>
  <section aria-labelledby="devices" class="grid content-start gap-3">
    <h2 id="devices" class="border-b-2 border-ink pb-2 text-lg font-bold">Devices</h2>
    <p class="text-[15px] text-faded">
      A connected caliper or scale commits with its own button. Any program on this machine can be one; your studio’s
      technician finds how in the product’s papers.
    </p>
    <FormField v-slot="{ attrs }" label="Address of a device on this machine" name="deviceAddress" :problem="problem">
      <input
        v-bind="attrs"
        v-model="address"
        class="field figure"
        autocomplete="off"
        placeholder="ws://localhost:9310"
      />
    </FormField>
    <div class="flex flex-wrap gap-2">
      <NuxtLink to="/devices/caliper" target="_blank" class="press press-quiet">Open the stand-in caliper</NuxtLink>
      <NuxtLink to="/devices/scale" target="_blank" class="press press-quiet">Open the stand-in scale</NuxtLink>
    </div>
  </section>
</template>
