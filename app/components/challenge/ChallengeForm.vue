<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { addDays } from '#core/calendar'
import type { ChallengeInput, ChallengeRecord } from '#shared/schemas/challenge'
import { challenges as calls } from '~/week-calls'

/** Setting a challenge up. Nothing of it is changed afterwards: the rules stand before the first reading. */
const emit = defineEmits<{ made: [list: ChallengeRecord[], id: string]; leave: [] }>()
const today = todayHere()
const own = reactive({
  name: '',
  startsOn: today,
  endsOn: addDays(today, 56),
  figure: 'sum' as ChallengeInput['figure'],
  categories: 'none' as ChallengeInput['categories'],
  teams: '',
  prizeRule: 'share' as ChallengeInput['prizeRule'],
  accepted: false,
})
const problems = useProblems(['name', 'startsOn', 'endsOn', 'teams', 'accepted'])
const told = (field: string) => problems.byField.value.get(field)

async function make() {
  const id = uuid()
  const teams = own.teams
    .split(/[\n,]/)
    .map((one) => one.trim())
    .filter(Boolean)
  await problems.send(async () => {
    emit('made', await calls.make({ ...own, id, teams } as ChallengeInput), id)
  })
}
</script>

<template>
  <form class="grid max-w-2xl gap-4" novalidate data-challenge-form @submit.prevent="make">
    <TextField v-model="own.name" label="Name" name="name" maxlength="80" autocomplete="off" :problem="told('name')" />
    <div class="grid gap-3 sm:grid-cols-2">
      <TextField v-model="own.startsOn" label="First day" name="startsOn" type="date" :problem="told('startsOn')" />
      <TextField v-model="own.endsOn" label="Last day" name="endsOn" type="date" :problem="told('endsOn')" />
    </div>
    <ChoiceField
      v-model="own.figure"
      label="What counts"
      name="figure"
      hint="Change in percent of everybody’s own start. Weight alone is never counted."
      :options="[
        { value: 'sum', label: 'Sum of folds' },
        { value: 'fat', label: 'Fat mass' },
      ]"
    />
    <ChoiceField
      v-model="own.categories"
      label="Categories"
      name="categories"
      :options="[
        { value: 'none', label: 'None' },
        { value: 'sex', label: 'Women and men' },
        { value: 'start', label: 'By the start, two halves' },
      ]"
    />
    <TextField
      v-model="own.teams"
      label="Teams, if there are any"
      name="teams"
      hint="Names with commas between them."
      autocomplete="off"
      :problem="told('teams')"
    />
    <ChoiceField
      v-model="own.prizeRule"
      label="If the first place is shared, the prize"
      name="prizeRule"
      :options="[
        { value: 'share', label: 'is shared' },
        { value: 'draw', label: 'goes by lot' },
      ]"
    />
    <div class="grid gap-2 border-l-4 border-rule pl-4 text-[15px]">
      <p>
        Everybody takes part by their own wish and can leave at any time, silently. Nobody under 18, pregnant,
        underweight, near essential fat or in neutral mode is entered. First and last measuring: the same assessor, the
        same caliper, the same conditions, the last one blind. Loss beyond 1 % of body weight a week earns nothing.
        Places are shared where error does not part people. Local rules on prizes and health data decide.
      </p>
      <TickField v-model="own.accepted" name="accepted">I have read this, and run the challenge so.</TickField>
      <p v-if="told('accepted')" role="alert" class="font-semibold text-alert">{{ told('accepted') }}</p>
    </div>
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
    <div class="flex gap-2">
      <button class="press press-first min-h-11">Set it up</button>
      <button type="button" class="press press-quiet min-h-11" @click="emit('leave')">Leave</button>
    </div>
  </form>
</template>
