<script setup lang="ts">
const props = defineProps<{
  note: string
  problem: string | null
  /** The reading a note can be written at, as words; null when there is none. */
  reading: string | null
}>()
const emit = defineEmits<{ close: []; save: [note: string]; remark: [words: string] }>()
const at = ref<'reading' | 'checkin'>(props.reading ? 'reading' : 'checkin')
const text = ref('')
watch(at, (where) => (text.value = where === 'checkin' ? props.note : ''), { immediate: true })

function keep() {
  if (at.value === 'checkin') emit('save', text.value)
  else if (text.value.trim()) emit('remark', text.value.trim())
}
</script>

<template>
  <SheetDialog title="Note" @close="emit('close')">
    <form class="grid gap-3" @submit.prevent="keep">
      <ChoiceField
        v-if="reading"
        v-model="at"
        label="Written at"
        name="noteAt"
        :options="[
          { value: 'reading' as const, label: reading },
          { value: 'checkin' as const, label: 'this check-in' },
        ]"
      />
      <textarea
        v-model="text"
        class="field min-h-28"
        :maxlength="at === 'checkin' ? 4000 : 500"
        aria-label="Note"
        :placeholder="at === 'checkin' ? 'What was different today.' : 'How the fold lifted, what was in the way.'"
        @keydown.ctrl.enter="keep"
      />
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
      <div class="flex gap-2">
        <button class="press press-first">Keep note</button>
        <button type="button" class="press press-quiet" @click="emit('close')">Leave as it was</button>
      </div>
    </form>
  </SheetDialog>
</template>
