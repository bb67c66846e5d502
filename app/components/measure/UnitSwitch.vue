<script setup lang="ts" generic="Unit extends string">
defineProps<{ units: readonly Unit[]; unit: Unit }>()
defineEmits<{ choose: [unit: Unit] }>()
</script>

<template>
  <div class="flex gap-2" @pointerdown.prevent>
    <button
      v-for="one in units"
      :key="one"
      type="button"
      class="press min-h-11 px-3"
      :class="one === unit ? 'press-first' : 'press-quiet'"
      :aria-pressed="one === unit"
      @click="$emit('choose', one)"
    >
      {{ one }}
    </button>
  </div>
</template>
