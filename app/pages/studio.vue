<script setup lang="ts">
import { useMe } from '~/stores/me'

const store = useMe()
const PARTS = computed(() => [
  { to: '/studio', name: 'Settings' },
  { to: '/studio/account', name: 'Your account' },
  ...(store.isRecorder ? [] : [{ to: '/studio/people', name: 'People' }]),
  ...(store.isRecorder ? [] : [{ to: '/studio/sets', name: 'Sets' }]),
  ...(store.isLead
    ? [
        { to: '/studio/data', name: 'Data' },
        { to: '/studio/mail', name: 'Mail' },
        { to: '/studio/record', name: 'Record' },
      ]
    : []),
])
</script>

<template>
  <PartsFrame :title="store.me?.studio.name ?? ''" label="Parts of the studio" :parts="PARTS" />
</template>
