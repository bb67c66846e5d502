<script setup lang="ts">
import { ASSUMED_NOISES } from '#core/following'
import { noisesAt } from '#shared/followed-record'
import type { PlanInput } from '#shared/schemas/plan'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

const store = useMe()
const { followed, planned } = useFollowed()
const { history, record, ends, neutral } = followed
const { problem, tell } = useTelling()

/** What is held of the noise at the newest check-in: what a plan would be told by. */
const noises = computed(() => {
  const newest = ends.value.at(-1)
  return record.value && newest ? noisesAt(record.value, newest) : ASSUMED_NOISES
})

async function save(plan: PlanInput) {
  followed.take({ plans: await clients.addPlan(followed.clientId, plan) })
}

function end(id: string) {
  return tell(async () => followed.take({ plans: await clients.endPlan(followed.clientId, id) }))
}
</script>

<template>
  <PlanPane
    v-if="history && record"
    :history="history"
    :record="record"
    :energy-offered="Boolean(store.me?.energySince)"
    :ends="ends"
    :plan="planned.plan.value"
    :line="planned.line.value"
    :start="planned.start.value"
    :noises="noises"
    :held="planned.held.value"
    :latest="planned.latest.value"
    :arrival="planned.arrival.value"
    :reached="planned.reached.value"
    :units="store.units"
    :neutral="neutral"
    :hidden="planned.hidden.value"
    :barred="planned.barred.value"
    :problem="problem"
    :save="save"
    @end="end"
  />
</template>
