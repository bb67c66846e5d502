<script setup lang="ts">
import { useOutbox } from '~/stores/outbox'

const places = [
  { to: '/', name: 'Floor' },
  { to: '/clients', name: 'Clients' },
  { to: '/reference', name: 'Reference' },
  { to: '/studio', name: 'Studio' },
]
const route = useRoute()
const outbox = useOutbox()

// Readings a closed tab or a dead network left on this device go out as soon as somebody is here.
onMounted(() => outbox.sendAll())
</script>

<template>
  <div class="flex min-h-dvh flex-col pb-14 sm:pb-0 print:pb-0">
    <TopBar :places="places" />
    <main class="flex flex-1 flex-col">
      <slot />
    </main>
    <nav
      aria-label="Places"
      class="no-print fixed inset-x-0 bottom-0 z-10 grid h-14 grid-flow-col border-t border-rule bg-sheet sm:hidden"
    >
      <NuxtLink
        v-for="place in places"
        :key="place.to"
        :to="place.to"
        :aria-current="(place.to === '/' ? route.path === '/' : route.path.startsWith(place.to)) ? 'page' : undefined"
        class="flex items-center justify-center border-t-3 border-transparent aria-[current]:border-ink aria-[current]:font-bold"
      >
        {{ place.name }}
      </NuxtLink>
    </nav>
  </div>
</template>
