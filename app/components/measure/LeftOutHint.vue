<script setup lang="ts">
import { sayWhy, type Why } from '#core/readings'

/** A site left out last time, and why: one press leaves it out again. */
defineProps<{ why: Why }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <div class="flex shrink-0 items-center gap-3 text-[15px]" data-left-out>
    <span class="min-w-0 flex-1 text-faded">Left out last time: {{ sayWhy(why) }}.</span>
    <button type="button" class="press press-quiet min-h-9" @pointerdown.prevent @click="emit('again')">
      Leave out again
    </button>
  </div>
</template>
