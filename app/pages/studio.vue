<script setup lang="ts">
import { useMe } from '~/stores/me'

const store = useMe()
const route = useRoute()
const PARTS = computed(() => [
  { to: '/studio', name: 'Settings' },
  { to: '/studio/account', name: 'Your account' },
  ...(store.isRecorder ? [] : [{ to: '/studio/people', name: 'People' }]),
  ...(store.isLead ? [{ to: '/studio/record', name: 'Record' }] : []),
])
</script>

<template>
  <div class="flex flex-1 flex-col">
    <div class="no-print flex flex-wrap items-end gap-x-8 border-b border-rule px-4 pt-3 sm:px-6">
      <h1 class="pb-2 text-3xl font-bold">{{ store.me?.studio.name }}</h1>
      <nav aria-label="Parts of the studio" class="flex gap-x-6 overflow-x-auto">
        <NuxtLink
          v-for="part in PARTS"
          :key="part.to"
          :to="part.to"
          :aria-current="route.path === part.to ? 'page' : undefined"
          class="flex min-h-11 items-center border-b-3 border-transparent whitespace-nowrap aria-[current]:border-ink aria-[current]:stroke-bold"
        >
          {{ part.name }}
        </NuxtLink>
      </nav>
    </div>
    <NuxtPage />
  </div>
</template>
