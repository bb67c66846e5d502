<script setup lang="ts">
import { own } from '~/calls'
import { useMe } from '~/stores/me'

/** Somebody signed in to one's account on a device one had not used: it was oneself, or it ends. */
const store = useMe()
const strange = computed(() => store.me?.strange ?? null)
const { problem, tell, busy } = useTelling()
const ended = ref(false)

const end = (id: string) =>
  tell(async () => {
    await own.endSession(id)
    await store.load()
    ended.value = true
  })
</script>

<template>
  <div
    v-if="strange || ended"
    role="status"
    class="no-print flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule border-l-4 border-l-alert bg-sheet px-4 py-2 text-[15px] sm:px-6"
    data-strange
  >
    <template v-if="strange">
      <p class="min-w-60 flex-1">
        <span class="font-semibold">A sign-in on a device new to you:</span> {{ strange.device }},
        {{ sayDay(strange.startedAt) }} at {{ sayTime(strange.startedAt) }}. Was that you?
      </p>
      <button
        type="button"
        class="press press-quiet"
        :disabled="busy"
        @click="tell(() => store.knowSession(strange!.id))"
      >
        Yes
      </button>
      <button type="button" class="press press-quiet" :disabled="busy" @click="end(strange.id)">No, sign it out</button>
    </template>
    <p v-else class="min-w-60 flex-1">
      It is signed out. Whoever it was knew your password:
      <NuxtLink to="/studio/account" class="underline underline-offset-4">choose another one now</NuxtLink>.
    </p>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </div>
</template>
