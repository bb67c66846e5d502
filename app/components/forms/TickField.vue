<script setup lang="ts">
/** A tick with its sentence. */
defineProps<{ name: string }>()
const model = defineModel<boolean>({ required: true })
</script>

<template>
  <label class="flex items-start gap-3">
    <input v-model="model" type="checkbox" :name="name" class="mt-0.5 size-5 shrink-0 accent-ink" />
    <span><slot /></span>
  </label>
</template>
