<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

/** Before numbers show for a client who is to see none: why, in a few words, on record. */
const props = defineProps<{ clientId: string; name: string }>()
const emit = defineEmits<{ close: []; left: [] }>()
const id = uuid()
const reason = ref('')
const problem = ref<string | undefined>()

async function leave() {
  problem.value = undefined
  try {
    await $fetch(`/api/clients/${props.clientId}/neutral-leaves`, {
      method: 'POST',
      body: { id, reason: reason.value },
    })
    emit('left')
  } catch (error) {
    problem.value = problemOf(error).message
  }
}
</script>

<template>
  <Dialog open class="relative z-30" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel as="form" class="w-full max-w-md rounded border border-ink bg-sheet p-6" @submit.prevent="leave">
        <DialogTitle class="text-xl font-bold">Show numbers for {{ name }}?</DialogTitle>
        <p class="mt-2">
          Their record asks for none: no percent, no masses and no weight where they may look. Make sure that they do
          not, and say why you need them; it goes on record.
        </p>
        <TextField
          v-model="reason"
          class="mt-3"
          label="Why"
          name="neutralReason"
          maxlength="300"
          autocomplete="off"
          :problem="problem"
        />
        <div class="mt-4 flex gap-2">
          <button class="press press-first min-h-11">Show numbers</button>
          <button type="button" class="press press-quiet min-h-11" @click="emit('close')">Stay neutral</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
