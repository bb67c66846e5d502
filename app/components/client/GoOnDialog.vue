<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { Suspension } from '#core/safety'
import { clients } from '~/calls'

/** A suspended plan goes on in spite of a caution: why, in a few words, on record. */
const props = defineProps<{ clientId: string; suspension: Suspension }>()
const emit = defineEmits<{ close: []; decided: [suspensions: Suspension[]] }>()
const id = uuid()

async function decide(reason: string) {
  emit('decided', await clients.decidePlan(props.clientId, props.suspension.subjectId, { id, reason }))
}
</script>

<template>
  <ReasonDialog
    title="Let the plan go on?"
    name="goOnReason"
    action="Let it go on"
    leave="Leave it suspended"
    :send="decide"
    @close="emit('close')"
  >
    {{ suspension.sentence }} Say who agreed, and what is done about it; it goes on record.
  </ReasonDialog>
</template>
