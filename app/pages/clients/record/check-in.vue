<script setup lang="ts">
import type { ChoiceInput } from '#shared/schemas/following'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

const store = useMe()
const { followed } = useFollowed()
const { now, record, history, neutral, assessor } = followed
const { problem, busy, tell } = useTelling()

function choose(choice: ChoiceInput) {
  return tell(async () => followed.take({ choices: await clients.choose(followed.clientId, choice) }))
}
</script>

<template>
  <CheckinResult
    v-if="now && record && history"
    :end="now"
    :choices="record.choices"
    :recorded="history.choices[0] ?? null"
    :assessor="assessor"
    :units="store.units"
    :neutral="neutral"
    :busy="busy"
    :problem="problem"
    @choose="choose"
  />
</template>
