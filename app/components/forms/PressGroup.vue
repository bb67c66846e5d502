<script setup lang="ts" generic="Value extends string | number">
/** One of a few, pressed: small buttons in a row. */
defineProps<{ label: string; options: readonly { id: Value; name: string }[]; /** For a thumb. */ large?: boolean }>()
const model = defineModel<Value | null>({ required: true })
</script>

<template>
  <div class="flex flex-wrap items-center gap-2" role="group" :aria-label="label">
    <slot />
    <button
      v-for="option in options"
      :key="option.id"
      type="button"
      class="press px-3"
      :class="[model === option.id ? 'press-first' : 'press-quiet', large ? 'min-h-12 text-[17px]' : 'min-h-9']"
      :aria-pressed="model === option.id"
      @click="model = option.id"
    >
      {{ option.name }}
    </button>
  </div>
</template>
