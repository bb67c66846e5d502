<script setup lang="ts">
import { useMe } from '~/stores/me'

const store = useMe()
const { followed } = useFollowed()
const { record, between, now, span, noises, assessor, neutral } = followed
</script>

<template>
  <ErrorPane
    v-if="record && now"
    :between="between"
    :now="now"
    :span="span"
    :errors="record.errors"
    :noises="noises"
    :assessor="assessor"
    :units="store.units"
    :neutral="neutral"
  />
</template>
