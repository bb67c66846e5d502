<script setup lang="ts">
import type { NuxtError } from '#app'
import { isLocked } from '~/locking'

const props = defineProps<{ error: NuxtError }>()
const missing = computed(() => props.error.statusCode === 404)
/** A page that opens just as its device is locked: the lock is what is wrong, and it is shown. */
const locked = computed(isLocked)
watch(locked, (now) => !now && reloadNuxtApp({ force: true }))
</script>

<template>
  <LockScreen v-if="locked" />
  <main v-else class="mx-auto grid min-h-dvh max-w-lg content-center gap-4 p-6">
    <h1 class="text-3xl font-bold">{{ missing ? 'There is nothing at this address' : 'This did not work' }}</h1>
    <p class="text-faded">
      {{ missing ? 'The page may have moved, or the address is mistyped.' : error.message }} Readings already kept are
      safe.
    </p>
    <p><button class="press press-first" @click="clearError({ redirect: '/' })">Back to the floor</button></p>
  </main>
</template>
