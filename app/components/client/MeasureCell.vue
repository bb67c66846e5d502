<script setup lang="ts">
import type { ClientLine } from '#shared/schemas/client'

defineProps<{ client: ClientLine }>()
</script>

<template>
  <NuxtLink
    :to="client.openCheckinId ? `/measure/${client.openCheckinId}` : `/clients/${client.id}/measure`"
    class="press press-quiet"
    :aria-label="`${client.openCheckinId ? 'Go on measuring' : 'Measure'} ${client.name}`"
  >
    {{ client.openCheckinId ? 'Go on' : 'Measure' }}
  </NuxtLink>
</template>
