<script setup lang="ts">
definePageMeta({ redirect: '/reference/sites' })
</script>

<template>
  <div />
</template>
