<script setup lang="ts">
import type { SessionRecord } from '#shared/schemas/account'

defineProps<{ sessions: readonly SessionRecord[]; named?: boolean }>()
const emit = defineEmits<{ end: [id: string] }>()
</script>

<template>
  <ul>
    <li
      v-for="one in sessions"
      :key="one.id"
      class="flex min-h-13 flex-wrap items-center gap-x-6 gap-y-1 border-b border-rule py-2"
    >
      <span class="min-w-48 font-semibold">{{ named ? `${one.name}, ${one.device}` : one.device }}</span>
      <span class="min-w-60 flex-1 text-[15px] text-faded">
        since {{ sayDay(one.startedAt) }}, last used {{ sayAgo(one.seenAt) }}
      </span>
      <span v-if="one.own" class="text-[15px]">this one</span>
      <button v-else type="button" class="press press-quiet" @click="emit('end', one.id)">Sign out</button>
    </li>
  </ul>
</template>
