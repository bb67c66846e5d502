<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

const props = defineProps<{ open: boolean; note: string; problem: string | null }>()
const emit = defineEmits<{ close: []; save: [note: string] }>()
const text = ref('')

watch(
  () => props.open,
  (open) => {
    if (open) text.value = props.note
  },
)
</script>

<template>
  <Dialog :open="open" class="relative z-30" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel class="w-full max-w-md rounded border border-ink bg-sheet p-6">
        <DialogTitle class="mb-3 text-xl font-bold">Note at this check-in</DialogTitle>
        <form class="grid gap-3" @submit.prevent="emit('save', text)">
          <textarea
            v-model="text"
            class="field min-h-32"
            maxlength="4000"
            aria-label="Note"
            placeholder="What was different today: time, clothing, training before, how the fold lifted."
            @keydown.ctrl.enter="emit('save', text)"
          />
          <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
          <div class="flex gap-2">
            <button class="press press-first">Keep note</button>
            <button type="button" class="press press-quiet" @click="emit('close')">Leave as it was</button>
          </div>
        </form>
      </DialogPanel>
    </div>
  </Dialog>
</template>
