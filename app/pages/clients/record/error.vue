<script setup lang="ts">
import { useMe } from '~/stores/me'

const store = useMe()
const { followed } = useFollowed()
const { record, now, then, span, assessor, neutral } = followed
</script>

<template>
  <ErrorPane
    v-if="record && now"
    :then="then"
    :now="now"
    :span="span"
    :errors="record.errors"
    :assessor="assessor"
    :units="store.units"
    :neutral="neutral"
  />
</template>
