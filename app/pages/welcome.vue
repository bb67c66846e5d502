<script setup lang="ts">
import { useForm } from '@tanstack/vue-form'
import { setupInput, type SetupInput } from '#shared/schemas/account'
import { useMe } from '~/stores/me'
import { access } from '~/calls'

definePageMeta({ layout: 'bare' })
useHead({ title: 'Set up, Oak Pinch' })

const store = useMe()
const router = useRouter()
const FIELDS = [
  { name: 'studioName', label: 'Name of the studio', type: 'text', autocomplete: 'organization' },
  { name: 'name', label: 'Your name', type: 'text', autocomplete: 'name' },
  { name: 'email', label: 'Your e-mail address', type: 'email', autocomplete: 'username' },
  {
    name: 'password',
    label: 'Password',
    type: 'password',
    autocomplete: 'new-password',
    hint: 'At least 12 characters; four words that do not belong together do well.',
  },
] as const
const problems = useProblems(FIELDS.map(({ name }) => name))

onMounted(async () => {
  const { needed } = await access.setupNeeded()
  if (!needed) await router.replace('/sign-in')
})

const empty: SetupInput = {
  studioName: '',
  name: '',
  email: '',
  password: '',
  massUnit: 'kg',
  lengthUnit: 'cm',
  timeZone: deviceZone(),
}
const form = useForm({
  defaultValues: empty,
  validators: { onSubmit: setupInput },
  async onSubmit({ value }) {
    const made = await problems.send(async () => {
      await access.setup(value)
      await store.load()
    })
    if (made) await router.push('/clients/new')
  },
})
</script>

<template>
  <form class="grid gap-4" novalidate @submit.prevent="form.handleSubmit()">
    <div>
      <h1 class="text-2xl font-bold">Welcome</h1>
      <p class="text-faded">Name your studio and make the first account. It is the lead coach’s: more can follow.</p>
    </div>
    <form.Field v-for="shown in FIELDS" v-slot="slot" :key="shown.name" :name="shown.name">
      <FormLine v-bind="{ ...slot, ...shown }" :problems="problems" />
    </form.Field>
    <div class="flex flex-wrap gap-6">
      <form.Field v-slot="{ field, state }" name="massUnit">
        <ChoiceField
          label="Weight in"
          name="massUnit"
          :options="MASS_OPTIONS"
          :model-value="state.value"
          @update:model-value="$event && field.handleChange($event)"
        />
      </form.Field>
      <form.Field v-slot="{ field, state }" name="lengthUnit">
        <ChoiceField
          label="Height and girths in"
          name="lengthUnit"
          :options="LENGTH_OPTIONS"
          :model-value="state.value"
          @update:model-value="$event && field.handleChange($event)"
        />
      </form.Field>
    </div>
    <p class="text-sm text-faded">Days are counted where this device is: {{ empty.timeZone }}. Studio changes that.</p>
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
    <button class="press press-first min-h-12">Set up the studio</button>
  </form>
</template>
