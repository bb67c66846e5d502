<script setup lang="ts">
/** The studio's time zone, found by typing part of a place. */
const props = defineProps<{ zone: string }>()
const emit = defineEmits<{ choose: [zone: string] }>()

const zones = ['UTC', ...Intl.supportedValuesOf('timeZone')].map((id) => ({ id, name: sayZone(id) }))
const here = deviceZone()

function sayZone(zone: string): string {
  return zone.replaceAll('_', ' ')
}
</script>

<template>
  <div class="grid gap-1">
    <PickField
      label="Time zone of the studio"
      name="timeZone"
      :options="zones"
      :model-value="zone"
      @update:model-value="$event && $event !== props.zone && emit('choose', $event)"
    />
    <button
      v-if="here !== zone"
      type="button"
      class="min-h-9 justify-self-start text-[15px] underline underline-offset-4"
      @click="emit('choose', here)"
    >
      This device is in {{ sayZone(here) }}: take that
    </button>
  </div>
</template>
