<script setup lang="ts">
const emit = defineEmits<{ close: [] }>()

const KEYS = [
  ['0 to 9 and .', 'type the reading (tape: also 34 3/4)'],
  ['Enter', 'keep it and go on'],
  ['Backspace', 'erase the last digit'],
  ['u', 'strike the last reading, or the picked one'],
  ['t', 'start the count to the reading'],
  ['c', 'take the correction a warning proposes'],
  ['k', 'skip this site, for now or with a reason'],
  ['n', 'note at the last reading or this check-in'],
  ['b', 'blind: hide last time and first readings'],
  ['up and down', 'choose another site'],
  ['left and right', 'pick a reading of this site'],
  ['Esc', 'back to the next site in turn'],
  ['?', 'this list'],
] as const
</script>

<template>
  <SheetDialog title="Keys" @close="emit('close')">
    <dl class="grid grid-cols-[9rem_1fr] gap-y-2">
      <template v-for="[key, meaning] in KEYS" :key="key">
        <dt class="figure font-semibold">{{ key }}</dt>
        <dd>{{ meaning }}</dd>
      </template>
    </dl>
    <button class="press press-first mt-5" @click="emit('close')">Close</button>
  </SheetDialog>
</template>
