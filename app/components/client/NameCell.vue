<script setup lang="ts">
import { ageInYears } from '#core/composition'
import type { ClientLine } from '#shared/schemas/client'

defineProps<{ client: ClientLine }>()
const today = new Date().toISOString()
</script>

<template>
  <NuxtLink :to="`/clients/${client.id}`" class="font-semibold underline-offset-4 hover:underline">{{
    client.name
  }}</NuxtLink>
  <span class="ml-2 text-[15px] text-faded">{{ ageInYears(client.birthDate, today) }}</span>
</template>
