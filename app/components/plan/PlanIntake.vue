<script setup lang="ts">
import { addDays, daysBetween } from '#core/calendar'
import { limitsOfIntake, type PlanLine } from '#core/plan'
import type { Units } from '#core/units'
import { energyOf } from '#shared/energy'
import type { FollowedRecord } from '#shared/followed-record'
import type { IntakeRecord } from '#shared/schemas/following'
import { fatAtPercent, intakeToReach } from '#shared/what-if'

/** What a plan means on the plate: the intake that gets there by its end, or why there is none. */
const props = defineProps<{
  line: PlanLine
  record: FollowedRecord
  intakes: readonly IntakeRecord[]
  units: Units
}>()

const today = todayHere()
const facts = computed(() => energyOf(props.record, props.intakes, { today, units: props.units }))
const target = computed(() => {
  const { kind, to } = props.line
  if (!facts.value || kind === 'sum') return null
  return kind === 'percent' ? fatAtPercent(facts.value, to) : { of: kind, kg: to }
})
const days = computed(() => daysBetween(today, addDays(props.line.startDay, Math.ceil(7 * props.line.weeks))))
const found = computed(() => {
  const [own, wanted] = [facts.value, target.value]
  if (!own?.believed || !wanted || days.value < 7) return null
  const kcal = intakeToReach(own, wanted, days.value, null)
  if (kcal === null) return null
  const energy = {
    intakeKcal: kcal,
    restingKcal: own.resting.lead.value,
    dailyKcal: own.believed.value,
    dailySd: Math.sqrt(own.believed.variance),
    breaks: [],
  }
  const goal = { kind: wanted.of, value: wanted.kg, perWeek: props.line.perWeek }
  const limits = limitsOfIntake(energy, goal, {
    start: own.end,
    person: props.record.client,
    today,
    units: props.units,
  })
  return { kcal, daily: own.believed.value, stops: limits.filter(({ stop }) => stop) }
})
const whole = (kcal: number) => (Math.round(kcal / 10) * 10).toLocaleString('en-US')
</script>

<template>
  <div v-if="found" class="text-[15px]" data-plan-means>
    <p v-if="found.stops.length === 0">
      On the plate about <span class="figure font-bold">{{ whole(found.kcal) }}</span> kcal a day, of
      {{ whole(found.daily) }} used:
      <NuxtLink :to="`/clients/${record.client.id}/energy`" class="underline">grams, days and what if</NuxtLink>.
    </p>
    <template v-else>
      <p v-for="limit in found.stops" :key="limit.code" class="font-semibold" :data-means-limit="limit.code">
        {{ limit.sentence }}
      </p>
    </template>
  </div>
</template>
