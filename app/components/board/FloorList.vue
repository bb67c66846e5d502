<script setup lang="ts">
/** A list of what waits on the floor, under a heading that counts. */
defineProps<{ title: string; count?: number | undefined; none?: string | undefined }>()
</script>

<template>
  <section :aria-label="title" class="min-w-0">
    <h2 class="flex items-baseline gap-2 border-b-2 border-ink pb-1 text-lg font-bold">
      {{ title }}<span v-if="count" class="figure text-[15px] font-normal text-faded">{{ count }}</span>
    </h2>
    <p v-if="!count && none" class="py-2 text-[15px] text-faded">{{ none }}</p>
    <ul>
      <slot />
    </ul>
  </section>
</template>
