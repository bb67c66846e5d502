<script setup lang="ts">
/** Something that is done only with a reason, which goes on record: said in the slot, done by `send`. */
const props = defineProps<{
  title: string
  /** Name of the field. */
  name: string
  action: string
  /** The way out. */
  leave: string
  send: (reason: string) => Promise<void>
}>()
const emit = defineEmits<{ close: [] }>()
const reason = ref('')
const { problem, tell } = useTelling()

function act() {
  return tell(() => props.send(reason.value))
}
</script>

<template>
  <SheetDialog :title="title" @close="emit('close')">
    <form @submit.prevent="act">
      <p class="mt-2"><slot /></p>
      <TextField
        v-model="reason"
        class="mt-3"
        label="Why"
        :name="name"
        maxlength="300"
        autocomplete="off"
        :problem="problem ?? undefined"
      />
      <div class="mt-4 flex gap-2">
        <button class="press press-first min-h-11">{{ action }}</button>
        <button type="button" class="press press-quiet min-h-11" @click="emit('close')">{{ leave }}</button>
      </div>
    </form></SheetDialog
  >
</template>
