<script setup lang="ts">
import { pictureAddress } from '~/calls'

/** A photograph of the studio's: its address is asked for when it shows, and holds for a minute. */
const props = defineProps<{ path: string; alt: string }>()
const address = ref<string | null>(null)
let renewed = false

async function ask() {
  address.value = await pictureAddress(props.path).catch(() => null)
}
watch(
  () => props.path,
  () => {
    renewed = false
    void ask()
  },
  { immediate: true },
)
/** A page kept for long may show it again after its address has run out: another is asked for, once. */
function again() {
  if (renewed) return
  renewed = true
  void ask()
}
</script>

<template>
  <img v-if="address" :src="address" :alt="alt" @load="renewed = false" @error="again" />
  <span v-else role="img" :aria-label="alt" />
</template>
