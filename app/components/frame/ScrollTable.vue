<script setup lang="ts">
/** A table that may be wider than its place: it scrolls by itself, by finger and by keyboard. */
defineProps<{ label: string }>()
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="region" :aria-label="label"><slot /></div>
</template>
