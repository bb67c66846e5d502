<script setup lang="ts">
/** A client's phone installs its own page, a wall's board none. */
const route = useRoute()
useTheme()
</script>

<template>
  <NuxtPwaManifest v-if="!/^\/(hand-in|board)/.test(route.path)" />
  <NuxtLayout>
    <NuxtPage />
  </NuxtLayout>
  <ConfirmIdentity />
</template>
