<script setup lang="ts">
import { checkins } from '~/calls'
import { useMe } from '~/stores/me'

const store = useMe()
const { followed, planned } = useFollowed()
const { record, fromIndex, toIndex, now, span, noises, neutral, judging, unasked } = followed
const { problem, tell } = useTelling()

function keepWords(keptWords: string | null) {
  return tell(async () => {
    if (now.value) followed.takeRecord(await checkins.change(now.value.record.id, { keptWords }))
  })
}
</script>

<template>
  <SpanView
    v-if="record"
    :record="record"
    :from="fromIndex"
    :to="toIndex"
    :now="now"
    :span="span"
    :noises="noises"
    :units="store.units"
    :neutral="neutral"
    :judging="judging"
    :unasked="unasked"
    :plan="planned.hidden.value ? null : planned.line.value"
    :against="judging ? null : planned.latest.value"
    :losing="planned.losing.value"
    :problem="problem"
    :keep-words="keepWords"
    @drawn="followed.judge"
  />
</template>
