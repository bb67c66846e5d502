<script setup lang="ts">
const PARTS = [
  { to: '/reference/sites', name: 'Sites' },
  { to: '/reference/equations', name: 'Equations' },
  { to: '/reference/log-sheet', name: 'Log sheet' },
  { to: '/reference/charts', name: 'Pocket charts' },
  { to: '/reference/norms', name: 'Norms' },
  { to: '/reference/cautions', name: 'Cautions' },
]
</script>

<template>
  <PartsFrame title="Reference" label="Parts of the reference" :parts="PARTS" />
</template>
