<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { BARRED_WORDS } from '#core/challenge'
import type { ChallengeFacts, EntryInput } from '#shared/schemas/challenge'
import { challenges as calls } from '~/week-calls'

/** Entering somebody who agreed, with how they are shown. */
const props = defineProps<{ facts: ChallengeFacts }>()
const emit = defineEmits<{ entered: [facts: ChallengeFacts] }>()
const own = reactive({
  clientId: null as string | null,
  shownAs: 'alias' as EntryInput['shownAs'],
  alias: '',
  team: '',
  agreed: false,
})
const problems = useProblems(['clientId', 'alias', 'team'])
const refused = ref<string | null>(null)
const people = computed(() =>
  props.facts.candidates.map(({ id, name, barred }) => ({
    id,
    name,
    ...(barred ? { note: BARRED_WORDS[barred] } : {}),
  })),
)
const teams = computed(() => [
  { id: '', name: 'none' },
  ...props.facts.challenge.teams.map((name) => ({ id: name, name })),
])

async function enter() {
  refused.value =
    own.clientId === null
      ? 'Choose who takes part.'
      : own.agreed
        ? null
        : 'They have to agree, to taking part and to being shown so.'
  const { clientId } = own
  if (refused.value || clientId === null) return
  const entry = {
    id: uuid(),
    clientId,
    shownAs: own.shownAs,
    alias: own.shownAs === 'alias' ? own.alias : '',
    team: own.team || null,
    consentOn: todayHere(),
  }
  if (!(await problems.send(async () => emit('entered', await calls.enter(props.facts.challenge.id, entry))))) return
  Object.assign(own, { clientId: null, alias: '', team: '', agreed: false })
}
</script>

<template>
  <form class="grid content-start gap-3" novalidate data-entry-form @submit.prevent="enter">
    <h2 class="border-b-2 border-ink pb-1 text-lg font-bold">Enter somebody</h2>
    <PickField v-model="own.clientId" label="Who takes part" name="clientId" :options="people" />
    <ChoiceField
      v-model="own.shownAs"
      label="Shown on the board"
      name="shownAs"
      :options="[
        { value: 'alias', label: 'By an alias' },
        { value: 'name', label: 'By name' },
        { value: 'hidden', label: 'Hidden' },
      ]"
    />
    <TextField
      v-if="own.shownAs === 'alias'"
      v-model="own.alias"
      label="Alias"
      name="alias"
      maxlength="40"
      autocomplete="off"
      :problem="problems.byField.value.get('alias')"
    />
    <ListField v-if="teams.length > 1" v-model="own.team" label="Team" name="team" :options="teams" />
    <TickField v-model="own.agreed" name="agreed"
      >They agree to take part and to be shown so; leaving is one press.</TickField
    >
    <p v-if="refused ?? problems.problem.value?.message" role="alert" class="font-semibold text-alert">
      {{ refused ?? problems.problem.value?.message }}
    </p>
    <button class="press press-first justify-self-start">Enter</button>
  </form>
</template>
