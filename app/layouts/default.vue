<script setup lang="ts">
import { useMe } from '~/stores/me'
import { useOutbox } from '~/stores/outbox'

const store = useMe()
const places = computed(() => [
  { to: '/', name: 'Floor' },
  ...(store.isRecorder ? [] : [{ to: '/clients', name: 'Clients' }]),
  ...(store.isRecorder ? [] : [{ to: '/bench', name: 'Bench' }]),
  { to: '/reference', name: 'Reference' },
  { to: '/studio', name: 'Studio' },
])
const route = useRoute()
const outbox = useOutbox()

/** What the server would not take, wherever one is: with the way to the client it is of. */
const waits = computed(() => {
  const [first] = [...outbox.refusedStarts, ...outbox.aside]
  const count = outbox.refusedStarts.length + outbox.aside.length
  if (!first?.clientId) return null
  return {
    to: `/clients/${first.clientId}`,
    words: count === 1 ? 'One fact is not stored.' : `${count} facts are not stored.`,
  }
})

// Readings a closed tab or a dead network left on this device go out as soon as somebody is here.
onMounted(() => outbox.sendAll())
</script>

<template>
  <div class="flex min-h-dvh flex-col pb-14 sm:pb-0 print:pb-0">
    <TopBar :places="places" :finds="!store.isRecorder" />
    <StrangeSignIn />
    <p
      v-if="outbox.unread > 0"
      class="no-print border-b border-rule border-l-4 border-l-fat bg-sheet px-4 py-2 sm:px-6"
    >
      <span class="font-semibold">{{ outbox.unread }} of what waits on this device cannot be opened.</span> It was
      sealed for another studio, or before this one was moved; it stays here.
    </p>
    <NuxtLink
      v-if="waits && !route.path.startsWith(waits.to)"
      :to="waits.to"
      class="no-print border-b border-rule border-l-4 border-l-fat bg-sheet px-4 py-2 text-[15px] sm:px-6"
    >
      <span class="font-semibold">{{ waits.words }}</span> The server would not take it; it is kept on this device.
      <span class="underline underline-offset-4">Decide what to do</span>
    </NuxtLink>
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
        class="flex items-center justify-center border-t-3 border-transparent aria-[current]:border-ink aria-[current]:stroke-bold"
      >
        {{ place.name }}
      </NuxtLink>
    </nav>
  </div>
</template>
