<script setup lang="ts">
import { useMe } from '~/stores/me'

const store = useMe()
const { followed, planned } = useFollowed()
const { record, fromIndex, toIndex, now, span, lines, neutral } = followed
</script>

<template>
  <SpanView
    v-if="record"
    :record="record"
    :from="fromIndex"
    :to="toIndex"
    :now="now"
    :span="span"
    :lines="lines"
    :units="store.units"
    :neutral="neutral"
    :plan="planned.hidden.value ? null : planned.line.value"
    :against="planned.latest.value"
    @kept="followed.takeRecord"
  />
</template>
