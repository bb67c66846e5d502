<script setup lang="ts">
import { usualProtein, type Activity } from '#core/energy'
import { ageInYears } from '#core/calendar'
import { ADULT_YEARS } from '#core/cautions'
import { endFigures } from '#core/following'
import type { Units } from '#core/units'
import type { EnergyFacts } from '#shared/energy'
import type { Client } from '#shared/schemas/client'
import type { IntakeRecord, IntakesInput } from '#shared/schemas/following'
import type { PlanInput } from '#shared/schemas/plan'

/** What a client uses a day and what an intake would come to: expenditure, log, forecast, macros. */
const props = defineProps<{
  facts: EnergyFacts | null
  client: Client
  activity: Activity | null
  intakes: readonly IntakeRecord[]
  units: Units
  neutral: boolean
  busy: boolean
  add: (given: IntakesInput['intakes']) => Promise<boolean>
  keep: (plan: PlanInput) => Promise<boolean>
}>()
const emit = defineEmits<{ strike: [id: string]; activity: [activity: Activity] }>()
const problem = defineModel<string | null>('problem', { required: true })

/** The intake the what-if stands on; null where a limit stops it. */
const intake = ref<number | null>(null)
const own = computed(() => props.facts && endFigures(props.facts.end))
const kidney = computed(() => props.client.flags.includes('kidney-disease'))
/** Usual protein of this person at this intake. */
const usual = computed(() =>
  usualProtein({
    ageYears: ageInYears(props.client.birthDate, todayHere()),
    athlete: props.client.athlete === true,
    bmi: props.facts?.end.result.indexes.bmi ?? null,
    deficit: intake.value !== null && intake.value < (props.facts?.believed?.value ?? 0) - 50,
    kidney: kidney.value,
    leanKnown: own.value?.lean !== null && own.value?.lean !== undefined,
  }),
)
const hours = computed(() => (props.activity?.kind === 'hours' ? props.activity.trainingHours / 7 : null))
const minor = computed(() => ageInYears(props.client.birthDate, todayHere()) < ADULT_YEARS)
/** Which source to believe, and from when the log would be the surer. */
const believed = computed(() => {
  const { predicted, observed, betterFrom } = props.facts ?? {}
  if (!predicted || !observed) {
    return betterFrom
      ? `Ten days logged between two check-ins give an observed figure; it is the surer one from check-ins ${betterFrom} days apart on.`
      : null
  }
  return observed.variance < predicted.variance
    ? 'The observed one is the surer: believe it more.'
    : `The predicted one is still the surer${betterFrom ? `; the log overtakes it at check-ins ${betterFrom} days apart` : ''}.`
})
</script>

<template>
  <p v-if="minor" class="max-w-prose px-4 py-6 sm:px-6" data-minor>
    Under 18: no plan by energy, and no equation of resting expenditure, all of which were made on adults. Questions of
    food go to a doctor or registered dietitian.
  </p>
  <p v-else-if="neutral" class="px-4 py-6 sm:px-6">Neutral mode shows no energy, deficits or weights.</p>
  <div v-else class="grid flex-1 grid-cols-[minmax(0,1fr)] lg:grid-cols-2" data-energy>
    <section class="grid content-start gap-6 border-rule px-4 py-4 sm:px-6 lg:border-r" aria-labelledby="used">
      <div>
        <h2 id="used" class="mb-2 font-semibold">
          What is used a day <span class="font-normal text-faded">kcal; bars: 95 %</span>
        </h2>
        <template v-if="facts">
          <ExpenditureScale :facts="facts" />
          <p v-if="believed" class="mt-2" data-believed>{{ believed }}</p>
        </template>
        <p v-else class="text-faded">A weight at a check-in is needed first.</p>
      </div>
      <ActivityField :activity="activity" :busy="busy" @choose="emit('activity', $event)" />
      <IntakeLog
        v-model:problem="problem"
        :intakes="intakes"
        :busy="busy"
        :add="add"
        @strike="emit('strike', $event)"
      />
    </section>
    <section class="grid content-start gap-6 bg-sheet px-4 py-4 sm:px-6" aria-labelledby="what-if">
      <div>
        <h2 id="what-if" class="mb-2 font-semibold">What an intake would come to</h2>
        <p
          v-for="sentence in facts?.personal ?? []"
          :key="sentence"
          class="mb-2 border-l-4 border-fat pl-3"
          data-personal
        >
          <strong>No deficit is planned.</strong> {{ sentence }}
        </p>
        <WhatIfPane
          v-if="facts?.believed"
          :facts="facts"
          :client="client"
          :units="units"
          :busy="busy"
          :keep="keep"
          @intake="intake = $event"
        />
        <p v-else-if="facts" class="text-faded">
          Say how active the client is, or log what is eaten, and it shows here.
        </p>
      </div>
      <div v-if="facts && intake !== null">
        <h2 class="mb-2 font-semibold">On the plate</h2>
        <MacroSheet
          :kcal="intake"
          :weight-kg="facts.end.result.weightKg ?? 0"
          :lean-kg="own?.lean?.value ?? null"
          :usual="usual"
          :hours="hours"
          :kidney="kidney"
        />
      </div>
      <p class="text-sm text-faded">
        A coach’s figures, not a prescription: what to eat is for a registered dietitian where local rules say so.
      </p>
    </section>
  </div>
</template>
