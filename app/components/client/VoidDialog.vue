<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { CheckinRecord } from '#shared/schemas/checkin'
import type { ClientHistory } from '#shared/schemas/following'

/** Takes a check-in out of the history, with why. */
const props = defineProps<{ record: CheckinRecord }>()
const emit = defineEmits<{ close: []; voided: [history: ClientHistory] }>()
const reason = ref('')
const problem = ref<string | undefined>()

async function voidIt() {
  problem.value = undefined
  try {
    const path = `/api/checkins/${props.record.id}/void`
    emit('voided', await $fetch<ClientHistory>(path, { method: 'POST', body: { reason: reason.value } }))
  } catch (error) {
    problem.value = problemOf(error).message
  }
}
</script>

<template>
  <Dialog open class="relative z-30" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel as="form" class="w-full max-w-md rounded border border-ink bg-sheet p-6" @submit.prevent="voidIt">
        <DialogTitle class="text-xl font-bold">Void the check-in of {{ sayFullDay(record.day) }}?</DialogTitle>
        <p class="mt-2">
          It counts for nothing any more: no change, no error, no last time. What was read stays on record with your
          reason.
        </p>
        <TextField
          v-model="reason"
          class="mt-3"
          label="Why"
          name="voidReason"
          maxlength="300"
          autocomplete="off"
          :problem="problem"
        />
        <div class="mt-4 flex gap-2">
          <button class="press press-first min-h-11">Void it</button>
          <button type="button" class="press press-quiet min-h-11" @click="emit('close')">Keep it</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
