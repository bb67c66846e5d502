<script setup lang="ts">
import type { CheckinRecord } from '#shared/schemas/checkin'

defineProps<{
  name: string
  record: CheckinRecord
  protocolName: string
  round: string
  kept: string
  recorder: string | null
}>()
defineEmits<{ keys: []; leave: [] }>()
</script>

<template>
  <header class="flex items-center gap-3 border-b border-rule bg-sheet px-4 sm:gap-6 sm:px-6">
    <NuxtLink to="/" aria-label="Oak Pinch, to the floor"><ProductMark class="size-6" /></NuxtLink>
    <h1 class="line-clamp-2 min-w-0 leading-tight font-bold sm:text-lg">{{ name }}</h1>
    <span class="min-w-0 truncate text-faded max-lg:hidden">
      {{ protocolName }} · {{ round }} · {{ record.day === todayHere() ? '' : `${sayDay(record.day)}, ` }}started
      {{ sayTime(record.startedAt) }}
    </span>
    <span
      class="ml-auto line-clamp-2 min-w-20 shrink text-right text-sm leading-tight text-faded"
      role="status"
      data-kept
    >
      <template v-if="recorder">recorder {{ recorder }} · </template>{{ kept }}
    </span>
    <button class="press press-quiet px-3 max-sm:hidden" @click="$emit('keys')">
      ?<span class="sr-only"> keys</span>
    </button>
    <button class="press" @click="$emit('leave')">{{ record.finishedAt ? 'Back' : 'Pause' }}</button>
  </header>
</template>
