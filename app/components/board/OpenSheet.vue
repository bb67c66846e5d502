<script setup lang="ts">
import type { FloorLine } from '#shared/schemas/checkin'

/** A check-in under way, as a line of the Floor. */
defineProps<{
  line: FloorLine
  /** People who can be called to write in it; empty for a recorder, who only opens it. */
  people: readonly { id: string; name: string }[]
  forRecorder: boolean
}>()
const emit = defineEmits<{ call: [recorderId: string | null] }>()
</script>

<template>
  <li
    class="flex flex-wrap items-center gap-x-4 gap-y-2 rounded border-l-6 border-signal bg-sheet px-4 py-1.5"
    data-open-sheet
  >
    <p class="min-w-0 flex-1 basis-64">
      <strong class="text-lg">{{ line.clientName }}</strong>
      <span class="text-[15px] text-faded">
        unfinished, started {{ sayAgo(line.day) }} at {{ sayTime(line.at) }},
        <span class="figure">{{ line.readings }}</span>
        {{ line.readings === 1 ? 'reading' : 'readings' }} kept</span
      >
    </p>
    <ListField
      v-if="people.length > 0"
      :model-value="line.recorderId"
      class="w-56 max-sm:order-last max-sm:w-full"
      label="Recorder"
      name="calledRecorder"
      hidden-label
      :options="[
        { id: null, name: 'No recorder' },
        ...people.map(({ id, name }) => ({ id, name: `Recorder: ${name}` })),
      ]"
      @update:model-value="emit('call', $event)"
    />
    <NuxtLink :to="`/measure/${line.checkinId}`" class="press press-first min-h-11 max-sm:w-full">{{
      forRecorder ? 'Write down' : 'Go on measuring'
    }}</NuxtLink>
  </li>
</template>
