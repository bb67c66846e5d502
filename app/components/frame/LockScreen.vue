<script setup lang="ts">
import Delete from '@lucide/vue/dist/esm/icons/delete.mjs'

/** Before everything while this device is locked: who goes on, and their PIN, by thumb or keyboard. */
const { people, chosen, digits, problem, busy, canOpen, load, choose, type, erase, open, passwordInstead } =
  useLockScreen()
const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const
const first = useTemplateRef<HTMLElement>('first')

onMounted(async () => {
  first.value?.focus()
  await load()
})

// Nothing typed here reaches the sheet that waits behind.
useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    event.stopImmediatePropagation()
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (/^\d$/.test(event.key)) type(event.key)
    else if (event.key === 'Backspace') erase()
    // Also with the focus on the name one has just chosen: with digits typed, Enter opens.
    else if (event.key === 'Enter' && digits.value.length > 0) void open()
    else return
    event.preventDefault()
  },
  { capture: true },
)
</script>

<template>
  <div ref="first" class="fixed inset-0 z-50 overflow-y-auto bg-paper" tabindex="-1" data-locked>
    <main
      class="mx-auto grid min-h-full w-full max-w-3xl content-end gap-x-12 gap-y-5 p-5 sm:grid-cols-2 sm:content-center sm:p-8"
    >
      <div class="grid content-start gap-4">
        <div class="flex items-center gap-3">
          <ProductMark class="size-9" />
          <h1 class="text-2xl font-bold">Locked</h1>
        </div>
        <p class="text-faded max-sm:hidden">Whatever was under way stays as it is, for whoever was at it.</p>
        <ul class="grid gap-2">
          <li v-for="one in people" :key="one.id">
            <button
              type="button"
              class="flex min-h-14 w-full items-center justify-between gap-3 rounded border bg-sheet px-4 text-left"
              :class="one.id === chosen?.id ? 'border-ink border-l-4' : 'border-rule'"
              :aria-pressed="one.id === chosen?.id"
              @click="choose(one.id)"
            >
              <span class="font-semibold">{{ one.name }}</span>
              <span v-if="!one.hasPin" class="text-sm text-faded">no PIN yet</span>
            </button>
          </li>
        </ul>
        <button type="button" class="press press-quiet min-h-11 justify-self-start" @click="passwordInstead">
          Sign in with a password
        </button>
      </div>
      <div class="grid content-start gap-3">
        <p class="grid min-h-12 place-items-center" aria-live="polite">
          <span v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</span>
          <span v-else-if="chosen && !chosen.hasPin" class="text-center text-faded"
            >{{ chosen.name }} signs in with a password here; a PIN is set under Studio, Account.</span
          >
          <span v-else class="flex gap-3" :aria-label="`${digits.length} digits typed`" role="img">
            <span
              v-for="i in Math.max(4, digits.length)"
              :key="i"
              class="size-4 rounded-full border-2 border-ink"
              :class="{ 'bg-ink': i <= digits.length }"
            />
          </span>
        </p>
        <div class="grid grid-cols-3 gap-2" @pointerdown.prevent>
          <button v-for="key in KEYS" :key="key" type="button" class="lock-key figure" @click="type(key)">
            {{ key }}
          </button>
          <button type="button" class="lock-key" aria-label="Erase last digit" @click="erase">
            <Delete class="size-7" aria-hidden="true" />
          </button>
          <button type="button" class="lock-key figure" @click="type('0')">0</button>
          <button type="button" class="lock-key lock-open" :disabled="!canOpen" @click="open">
            {{ busy ? '…' : 'Open' }}
          </button>
        </div>
      </div>
    </main>
  </div>
</template>

<style scoped>
.lock-key {
  display: grid;
  place-items: center;
  min-height: clamp(44px, 12vh, 76px);
  border: 1px solid var(--rule);
  border-radius: 4px;
  background: var(--sheet);
  font-size: 26px;
  font-weight: 600;
  touch-action: manipulation;
  user-select: none;
}
.lock-key:active:not(:disabled) {
  background: var(--wash);
}
.lock-open {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--sheet);
  font-size: 20px;
}
.lock-open:disabled {
  opacity: 0.4;
}
</style>
