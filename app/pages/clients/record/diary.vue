<script setup lang="ts">
import type { WeighInRecord, WeighInsInput } from '#shared/schemas/following'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

const store = useMe()
const { followed } = useFollowed()
const { history, ends, neutral } = followed
const { problem, busy, tell } = useTelling()
const visits = computed(() =>
  ends.value.flatMap(({ record, result }) =>
    result.weightKg === null ? [] : [{ id: record.id, at: record.day, weightKg: result.weightKg }],
  ),
)

function take(action: () => Promise<WeighInRecord[]>): Promise<boolean> {
  return tell(async () => followed.take({ weighIns: await action() }))
}
const add = (weighIns: WeighInsInput['weighIns']) => take(() => clients.addWeighIns(followed.clientId, { weighIns }))
const strike = (id: string) => take(() => clients.strikeWeighIn(followed.clientId, id))
</script>

<template>
  <WeightDiary
    v-if="history"
    v-model:problem="problem"
    :weigh-ins="history.weighIns"
    :visits="visits"
    :units="store.units"
    :neutral="neutral"
    :busy="busy"
    :add="add"
    @strike="strike"
  />
</template>
