<script setup lang="ts" generic="Value extends string | number">
/** One of a few, pressed: small buttons in a row. */
defineProps<{ label: string; options: readonly { id: Value; name: string }[] }>()
const model = defineModel<Value | null>({ required: true })
</script>

<template>
  <div class="flex flex-wrap items-center gap-2" role="group" :aria-label="label">
    <slot />
    <button
      v-for="option in options"
      :key="option.id"
      type="button"
      class="press min-h-9 px-3"
      :class="model === option.id ? 'press-first' : 'press-quiet'"
      :aria-pressed="model === option.id"
      @click="model = option.id"
    >
      {{ option.name }}
    </button>
  </div>
</template>
