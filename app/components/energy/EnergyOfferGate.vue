<script setup lang="ts">
import { useMe } from '~/stores/me'

/** What stands under the studio's offer of energy and macros shows only where it is made. */
const store = useMe()
</script>

<template>
  <slot v-if="store.me?.energySince" />
  <p v-else>
    This studio does not offer energy and macros. Its lead decides, under
    <NuxtLink to="/studio" class="underline">Studio</NuxtLink>.
  </p>
</template>
