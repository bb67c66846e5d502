<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { clients } from '~/calls'
import type { FollowedEnd } from '#shared/following'
import type { PinnedStart } from '#shared/schemas/following'

/** Which check-in a client is followed from, and why that is chosen beforehand. */
const props = defineProps<{
  clientId: string
  ends: readonly FollowedEnd[]
  pinned: number
  /** Place of the left jaw. */
  from: number
}>()
const emit = defineEmits<{ close: []; pinned: [pins: PinnedStart[]] }>()
const { problem, tell } = useTelling()

const newest = computed(() => props.ends.length - 1)
const dayAt = (place: number) => sayDay(props.ends[place]?.record.day ?? '')
const choices = computed(() => [
  {
    place: newest.value,
    name: `The newest check-in, ${dayAt(newest.value)}`,
    why: 'It counts from the next check-in on.',
  },
  ...(props.from !== newest.value && props.from !== props.pinned
    ? [
        {
          place: props.from,
          name: `Where the left jaw stands, ${dayAt(props.from)}`,
          why: 'Its results are known, so it goes on being shown as searched.',
        },
      ]
    : []),
])
const place = ref(newest.value)

function pin() {
  const checkinId = props.ends[place.value]?.record.id
  if (!checkinId) return
  return tell(async () => emit('pinned', await clients.pin(props.clientId, { id: uuid(), checkinId })))
}
</script>

<template>
  <SheetDialog title="Where following starts" data-pin-dialog @close="emit('close')">
    <form class="grid gap-3" @submit.prevent="pin">
      <p>
        The pin stands at {{ dayAt(pinned) }}. “Real” keeps its promise for a start that was chosen before anybody saw
        what came after it: among many starts looked at, one always shows something. Move it when a new phase begins.
      </p>
      <label v-for="one in choices" :key="one.place" class="flex items-start gap-3">
        <input v-model="place" type="radio" name="pinnedStart" :value="one.place" class="mt-1.5 size-4" />
        <span>
          <strong class="font-semibold">{{ one.name }}</strong>
          <span class="block text-[15px] text-faded">{{ one.why }}</span>
        </span>
      </label>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
      <div class="mt-1 flex gap-2">
        <button class="press press-first min-h-11">Pin it there</button>
        <button type="button" class="press press-quiet min-h-11" @click="emit('close')">Leave</button>
      </div>
    </form>
  </SheetDialog>
</template>
