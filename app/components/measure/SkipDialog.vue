<script setup lang="ts">
import { SKIP_REASON_IDS, SKIP_REASONS, whyOf, type Why } from '#core/readings'

defineProps<{ site: string }>()
const emit = defineEmits<{ close: []; later: []; leaveOut: [why: Why] }>()
const own = ref('')

const REASONS = SKIP_REASON_IDS.filter((id) => id !== 'other')

function choose(event: KeyboardEvent) {
  const reason = REASONS[Number(event.key) - 1]
  if (!reason || event.target instanceof HTMLInputElement) return
  event.preventDefault()
  emit('leaveOut', { reason })
}

function leaveOut() {
  if (own.value.trim()) emit('leaveOut', whyOf(own.value.trim()))
  own.value = ''
}
</script>

<template>
  <SheetDialog :title="`${site}: skip`" @keydown="choose" @close="emit('close')">
    <div class="grid gap-2">
      <button class="press press-first min-h-12" @click="emit('later')">Only for now, another site first</button>
      <p class="mt-2 text-sm text-faded">Or leave it out today, because</p>
      <button
        v-for="(reason, i) in REASONS"
        :key="reason"
        class="press press-quiet min-h-12 !justify-start"
        @click="emit('leaveOut', { reason })"
      >
        <span class="figure text-faded">{{ i + 1 }}</span> {{ SKIP_REASONS[reason] }}
      </button>
      <form class="flex gap-2" @submit.prevent="leaveOut">
        <input v-model="own" class="field" maxlength="300" aria-label="Another reason" placeholder="another reason" />
        <button class="press">Leave out</button>
      </form>
    </div>
  </SheetDialog>
</template>
