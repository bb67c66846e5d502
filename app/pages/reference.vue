<script setup lang="ts">
import { useMe } from '~/stores/me'

const store = useMe()
const PARTS = computed(() => [
  { to: '/reference/sites', name: 'Sites' },
  { to: '/reference/equations', name: 'Equations' },
  { to: '/reference/is-it-real', name: 'Is it real?' },
  { to: '/reference/log-sheet', name: 'Log sheet' },
  { to: '/reference/charts', name: 'Pocket charts' },
  { to: '/reference/norms', name: 'Norms' },
  { to: '/reference/cautions', name: 'Cautions' },
  ...(store.me?.energySince
    ? [
        { to: '/reference/label', name: 'Label reader' },
        { to: '/reference/macros', name: 'Macro sheet' },
      ]
    : []),
])
</script>

<template>
  <PartsFrame title="Reference" label="Parts of the reference" :parts="PARTS" />
</template>
