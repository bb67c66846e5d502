<script setup lang="ts">
defineProps<{ label: string; name: string; hint?: string; problem?: string }>()
</script>

<template>
  <div class="grid content-start gap-1">
    <label :for="name" class="font-semibold">{{ label }}</label>
    <p v-if="hint" :id="`${name}-hint`" class="text-sm text-faded">{{ hint }}</p>
    <slot
      :attrs="{
        id: name,
        name,
        'aria-invalid': problem ? ('true' as const) : undefined,
        'aria-describedby':
          [hint && `${name}-hint`, problem && `${name}-problem`].filter(Boolean).join(' ') || undefined,
      }"
    />
    <p v-if="problem" :id="`${name}-problem`" role="alert" class="text-sm font-semibold text-alert">{{ problem }}</p>
  </div>
</template>
