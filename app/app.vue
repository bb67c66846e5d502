<script setup lang="ts">
import { isLocked, isOutside } from '~/locking'

/** A client's phone installs its own page, a wall's board none. */
const route = useRoute()
useTheme()
/** Whoever signs in, or is no coach at all, is before no lock. */
const locked = computed(() => isLocked() && !isOutside(route.path))
</script>

<template>
  <NuxtPwaManifest v-if="!/^\/(hand-in|board)/.test(route.path)" />
  <!-- Kept as it is behind the lock: whoever opens it goes on where they were. -->
  <div v-show="!locked" class="contents" :inert="locked">
    <NuxtLayout>
      <NuxtPage />
    </NuxtLayout>
    <ConfirmIdentity />
  </div>
  <LockScreen v-if="locked" />
</template>
