<script setup lang="ts">
/** Nothing: what shows is the lock before it (LockScreen). */
definePageMeta({ layout: 'bare' })
useHead({ title: 'Locked, Oak Pinch' })
</script>

<template>
  <p class="sr-only">This device is locked.</p>
</template>
