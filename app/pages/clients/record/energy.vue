<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { Activity } from '#core/energy'
import { choiceOf } from '#shared/choices'
import { energyOf } from '#shared/energy'
import type { IntakeRecord, IntakesInput } from '#shared/schemas/following'
import type { PlanInput } from '#shared/schemas/plan'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

const store = useMe()
const { followed } = useFollowed()
const { history, record, neutral } = followed
const { problem, busy, tell } = useTelling()

const intakes = computed(() => history.value?.intakes ?? [])
const facts = computed(
  () => record.value && energyOf(record.value, intakes.value, { today: todayHere(), units: store.units }),
)
const activity = computed(() => record.value?.choices.activity ?? null)

function take(action: () => Promise<IntakeRecord[]>): Promise<boolean> {
  return tell(async () => followed.take({ intakes: await action() }))
}
const add = (given: IntakesInput['intakes']) => take(() => clients.addIntakes(followed.clientId, { intakes: given }))
const strike = (id: string) => take(() => clients.strikeIntake(followed.clientId, id))

function choose(chosen: Activity) {
  const choice = { id: uuid(), ...choiceOf(record.value?.choices, { activity: chosen }) }
  return tell(async () => followed.take({ choices: await clients.choose(followed.clientId, choice) }))
}

async function keep(plan: PlanInput): Promise<boolean> {
  const kept = await tell(async () => followed.take({ plans: await clients.addPlan(followed.clientId, plan) }))
  if (kept) await navigateTo(`/clients/${followed.clientId}/plan`)
  return kept
}
</script>

<template>
  <template v-if="history">
    <p v-if="!store.me?.energySince" class="px-4 py-6 sm:px-6">
      This studio does not offer energy and macros. Its lead decides, under
      <NuxtLink to="/studio" class="underline">Studio</NuxtLink>.
    </p>
    <EnergyPane
      v-else
      v-model:problem="problem"
      :facts="facts"
      :client="history.client"
      :activity="activity"
      :intakes="intakes"
      :units="store.units"
      :neutral="neutral"
      :busy="busy"
      :add="add"
      :keep="keep"
      @strike="strike"
      @activity="choose"
    />
  </template>
</template>
