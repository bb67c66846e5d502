<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { clients } from '~/calls'
import type { FollowedEnd } from '#shared/following'
import type { PinnedStart } from '#shared/schemas/following'

/** Starts to follow a client anew from the next check-in, and says why only from there. */
const props = defineProps<{
  clientId: string
  ends: readonly FollowedEnd[]
  pinned: number
}>()
const emit = defineEmits<{ close: []; pinned: [pins: PinnedStart[]] }>()
const { problem, tell } = useTelling()

const dayAt = (place: number) => sayDay(props.ends[place]?.record.day ?? '')
/** A start counts as chosen beforehand only if it is set before its first reading: so it is the next check-in. */
function pin() {
  return tell(async () => emit('pinned', await clients.pin(props.clientId, { id: uuid(), checkinId: null })))
}
</script>

<template>
  <SheetDialog title="Where following starts" data-pin-dialog @close="emit('close')">
    <form class="grid gap-3" @submit.prevent="pin">
      <p>
        This client is followed from {{ dayAt(pinned) }}. Start anew when a new phase begins: changes are then counted
        from the next check-in, whatever it brings.
      </p>
      <p class="text-[15px] text-faded">
        A start has to be chosen before its first reading. Among starts picked afterwards one always shows something, so
        stronger proof is asked of those: move the left mark on the tape to look at them.
      </p>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
      <div class="mt-1 flex gap-2">
        <button class="press press-first min-h-11">Start from the next check-in</button>
        <button type="button" class="press press-quiet min-h-11" @click="emit('close')">Leave</button>
      </div>
    </form>
  </SheetDialog>
</template>
