<script setup lang="ts">
const PARTS = [
  { to: '/bench', name: 'How good' },
  { to: '/bench/studies', name: 'Studies' },
  { to: '/bench/calipers', name: 'Calipers' },
  { to: '/bench/drills', name: 'Drills' },
]
</script>

<template>
  <PartsFrame title="Bench" label="Parts of the bench" :parts="PARTS" />
</template>
