<script setup lang="ts">
import { SITES, type SiteId } from '#core/sites'

/** Sites beyond what the equation needs, measured on wish: they stand in the sheet once asked for. */
defineProps<{ sites: readonly SiteId[] }>()
const emit = defineEmits<{ wish: [] }>()
</script>

<template>
  <button
    v-if="sites.length > 0"
    type="button"
    class="min-h-9 text-[15px] underline underline-offset-4"
    @click="emit('wish')"
  >
    Measure {{ sites.map((site) => SITES[site].name.toLowerCase()).join(' and ') }} too
  </button>
</template>
