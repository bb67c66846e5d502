<script setup lang="ts">
import { useForm } from '@tanstack/vue-form'
import { z } from 'zod'
import { staffInput, type StaffInput, type StaffMember } from '#shared/schemas/account'
import { staff } from '~/calls'

/** Another person of the studio: with a first password, or by a link at which they choose their own. */
const props = defineProps<{ byLink: boolean }>()
const emit = defineEmits<{ added: [person: StaffMember, link: string | null]; leave: [] }>()
const problems = useProblems(['name', 'email', 'password', 'role'])

const ALL = [
  { name: 'name', label: 'Name', type: 'text', autocomplete: 'off' },
  { name: 'email', label: 'E-mail address', type: 'email', autocomplete: 'off' },
  {
    name: 'password',
    label: 'First password',
    type: 'password',
    autocomplete: 'new-password',
    hint: 'At least 12 characters. They can change it under Your account.',
  },
] as const
const fields = ALL.filter(({ name }) => !props.byLink || name !== 'password')
const empty: StaffInput = { name: '', email: '', password: '', role: 'coach' }
const form = useForm({
  defaultValues: empty,
  validators: { onSubmit: props.byLink ? staffInput.extend({ password: z.string() }) : staffInput },
  async onSubmit({ value }) {
    await problems.send(async () => {
      if (!props.byLink) return emit('added', await staff.add(value), null)
      const { password: _, ...invited } = value
      const { person, link } = await staff.invite(invited)
      emit('added', person, link)
    })
  },
})
</script>

<template>
  <form class="grid gap-4" novalidate @submit.prevent="form.handleSubmit()">
    <form.Field v-for="shown in fields" v-slot="slot" :key="shown.name" :name="shown.name">
      <FormLine v-bind="{ ...slot, ...shown }" :problems="problems" />
    </form.Field>
    <form.Field v-slot="{ field, state }" name="role">
      <ChoiceField
        label="Role"
        name="role"
        :options="[
          { value: 'coach', label: 'Coach' },
          { value: 'recorder', label: 'Recorder' },
          { value: 'lead', label: 'Lead coach' },
        ]"
        :model-value="state.value"
        @update:model-value="$event && field.handleChange($event)"
      />
    </form.Field>
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
    <div class="flex gap-2">
      <button class="press press-first">{{ byLink ? 'Invite' : 'Add' }}</button>
      <button type="button" class="press press-quiet" @click="emit('leave')">Leave</button>
    </div>
  </form>
</template>
