<script setup lang="ts">
import type { NuxtError } from '#app'

const props = defineProps<{ error: NuxtError }>()
const missing = computed(() => props.error.statusCode === 404)
</script>

<template>
  <main class="mx-auto grid min-h-dvh max-w-lg content-center gap-4 p-6">
    <h1 class="text-3xl font-bold">{{ missing ? 'There is nothing at this address' : 'This did not work' }}</h1>
    <p class="text-faded">
      {{ missing ? 'The page may have moved, or the address is mistyped.' : error.message }} Readings already kept are
      safe.
    </p>
    <p><button class="press press-first" @click="clearError({ redirect: '/' })">Back to the floor</button></p>
  </main>
</template>
