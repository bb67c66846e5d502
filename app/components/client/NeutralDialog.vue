<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { clients } from '~/calls'

/** Before numbers show for a client who is to see none: why, in a few words, on record. */
const props = defineProps<{ clientId: string; name: string }>()
const emit = defineEmits<{ close: []; left: [] }>()
const id = uuid()

async function leave(reason: string) {
  await clients.leaveNeutral(props.clientId, { id, reason })
  emit('left')
}
</script>

<template>
  <ReasonDialog
    :title="`Show numbers for ${name}?`"
    name="neutralReason"
    action="Show numbers"
    leave="Stay neutral"
    :send="leave"
    @close="emit('close')"
  >
    Their record asks for none: no percent, no masses and no weight where they may look. Make sure that they do not, and
    say why you need them; it goes on record.
  </ReasonDialog>
</template>
