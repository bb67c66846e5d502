<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { SKIP_REASON_IDS, SKIP_REASONS, whyOf, type Why } from '#core/readings'

defineProps<{ site: string }>()
const emit = defineEmits<{ close: []; later: []; leaveOut: [why: Why] }>()
const own = ref('')

const REASONS = SKIP_REASON_IDS.filter((id) => id !== 'other')

function choose(event: KeyboardEvent) {
  const reason = REASONS[Number(event.key) - 1]
  if (!reason || event.target instanceof HTMLInputElement) return
  event.preventDefault()
  emit('leaveOut', { reason })
}

function leaveOut() {
  if (own.value.trim()) emit('leaveOut', whyOf(own.value.trim()))
  own.value = ''
}
</script>

<template>
  <Dialog open class="relative z-30" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel class="w-full max-w-md rounded border border-ink bg-sheet p-6" @keydown="choose">
        <DialogTitle class="mb-3 text-xl font-bold">{{ site }}: skip</DialogTitle>
        <div class="grid gap-2">
          <button class="press press-first min-h-12" @click="emit('later')">Only for now, another site first</button>
          <p class="mt-2 text-sm text-faded">Or leave it out today, because</p>
          <button
            v-for="(reason, i) in REASONS"
            :key="reason"
            class="press press-quiet min-h-12 !justify-start"
            @click="emit('leaveOut', { reason })"
          >
            <span class="figure text-faded">{{ i + 1 }}</span> {{ SKIP_REASONS[reason] }}
          </button>
          <form class="flex gap-2" @submit.prevent="leaveOut">
            <input
              v-model="own"
              class="field"
              maxlength="300"
              aria-label="Another reason"
              placeholder="another reason"
            />
            <button class="press">Leave out</button>
          </form>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
