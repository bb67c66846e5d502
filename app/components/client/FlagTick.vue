<script setup lang="ts">
import { CAUTION_RULES, FLAGS, type Flag } from '#core/cautions'

/** One thing to mind about a client, with what it changes once it is ticked. */
const props = defineProps<{ flag: Flag; on: boolean }>()
const emit = defineEmits<{ toggle: [] }>()

/** What it changes, in the words every page says it in. */
const changes = computed(() => {
  const sentence = CAUTION_RULES.find(({ code }) => code === props.flag)?.sentence
  return typeof sentence === 'string' ? sentence : null
})
</script>

<template>
  <label class="flex items-start gap-3">
    <input
      type="checkbox"
      :name="`flag-${flag}`"
      class="mt-0.5 size-5 shrink-0 accent-ink"
      :checked="on"
      @change="emit('toggle')"
    />
    <span>
      {{ FLAGS[flag] }}
      <span v-if="on && changes" class="block text-sm text-faded">{{ changes }}</span>
    </span>
  </label>
</template>
