<script setup lang="ts">
import type { CheckinRecord } from '#shared/schemas/checkin'
import type { ClientHistory } from '#shared/schemas/following'
import { checkins } from '~/calls'

/** Takes a check-in out of the history, with why. */
const props = defineProps<{ record: CheckinRecord }>()
const emit = defineEmits<{ close: []; voided: [history: ClientHistory] }>()

async function voidIt(reason: string) {
  emit('voided', await checkins.void(props.record.id, reason))
}
</script>

<template>
  <ReasonDialog
    :title="`Void the check-in of ${sayFullDay(record.day)}?`"
    name="voidReason"
    action="Void it"
    leave="Keep it"
    :send="voidIt"
    @close="emit('close')"
  >
    It counts for nothing any more: no change, no error, no last time. What was read stays on record with your reason.
  </ReasonDialog>
</template>
