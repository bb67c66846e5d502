<script setup lang="ts">
import { useForm } from '@tanstack/vue-form'
import { inviteInput, type InviteInput, type StaffMember } from '#shared/schemas/account'
import { staff } from '~/calls'

/** Another person of the studio. They choose their own password by a link. */
const emit = defineEmits<{ added: [person: StaffMember, link: string]; leave: [] }>()
const problems = useProblems(['name', 'email', 'role'])

const FIELDS = [
  { name: 'name', label: 'Name', type: 'text', autocomplete: 'off' },
  { name: 'email', label: 'E-mail address', type: 'email', autocomplete: 'off' },
] as const
const empty: InviteInput = { name: '', email: '', role: 'coach' }
const form = useForm({
  defaultValues: empty,
  validators: { onSubmit: inviteInput },
  async onSubmit({ value }) {
    await problems.send(async () => {
      const { person, link } = await staff.invite(value)
      emit('added', person, link)
    })
  },
})
</script>

<template>
  <form class="grid gap-4" novalidate @submit.prevent="form.handleSubmit()">
    <form.Field v-for="shown in FIELDS" v-slot="slot" :key="shown.name" :name="shown.name">
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
      <button class="press press-first">Invite</button>
      <button type="button" class="press press-quiet" @click="emit('leave')">Leave</button>
    </div>
  </form>
</template>
