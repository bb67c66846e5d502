<script setup lang="ts">
const route = useRoute()
const PARTS = [
  { to: '/reference/sites', name: 'Sites' },
  { to: '/reference/equations', name: 'Equations' },
  { to: '/reference/charts', name: 'Pocket charts' },
  { to: '/reference/norms', name: 'Norms' },
  { to: '/reference/cautions', name: 'Cautions' },
]
</script>

<template>
  <div class="flex flex-1 flex-col">
    <div class="no-print flex flex-wrap items-end gap-x-8 border-b border-rule px-4 pt-3 sm:px-6">
      <h1 class="pb-2 text-3xl font-bold">Reference</h1>
      <nav aria-label="Parts of the reference" class="flex gap-x-6 overflow-x-auto">
        <NuxtLink
          v-for="part in PARTS"
          :key="part.to"
          :to="part.to"
          :aria-current="route.path.startsWith(part.to) ? 'page' : undefined"
          class="flex min-h-11 items-center border-b-3 border-transparent whitespace-nowrap aria-[current]:border-ink aria-[current]:stroke-bold"
        >
          {{ part.name }}
        </NuxtLink>
      </nav>
    </div>
    <NuxtPage />
  </div>
</template>
