<script setup lang="ts">
import type { PlanInput } from '#shared/schemas/plan'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

const store = useMe()
const { followed, planned } = useFollowed()
const { history, ends, neutral } = followed
const { problem, tell } = useTelling()

async function save(plan: PlanInput) {
  followed.take({ plans: await clients.addPlan(followed.clientId, plan) })
}

function end(id: string) {
  return tell(async () => followed.take({ plans: await clients.endPlan(followed.clientId, id) }))
}
</script>

<template>
  <PlanPane
    v-if="history"
    :history="history"
    :ends="ends"
    :plan="planned.plan.value"
    :line="planned.line.value"
    :held="planned.held.value"
    :latest="planned.latest.value"
    :arrival="planned.arrival.value"
    :reached="planned.reached.value"
    :units="store.units"
    :neutral="neutral"
    :hidden="planned.hidden.value"
    :problem="problem"
    :save="save"
    @end="end"
  />
</template>
