<script setup lang="ts">
/** Says that a list is shown out of the device's store, and of when it is. */
defineProps<{ since: number | null }>()
</script>

<template>
  <p v-if="since !== null" role="status" class="border-l-4 border-signal bg-sheet px-4 py-3" data-kept-since>
    <strong>The server is out of reach.</strong>
    This is what the device kept<template v-if="Number.isFinite(since)">
      on {{ sayTime(since, 'd MMM') }} at {{ sayTime(since) }}</template
    >; measuring goes on as always.
  </p>
</template>
