<script setup lang="ts">
import { useForm } from '@tanstack/vue-form'
import { passwordReset } from '#shared/schemas/account'
import { access } from '~/calls'

definePageMeta({ layout: 'bare' })
useHead({ title: 'New password, Oak Pinch' })

const route = useRoute()
const done = ref(false)
const problems = useProblems(['password'])
const form = useForm({
  defaultValues: { token: route.hash.slice(1), password: '' },
  validators: { onSubmit: passwordReset },
  async onSubmit({ value }) {
    done.value = await problems.send(() => access.resetPassword(value))
  },
})
</script>

<template>
  <div v-if="done" class="grid gap-4" role="status">
    <h1 class="text-2xl font-bold">New password kept</h1>
    <p>Everything that was signed in with the old one is signed out.</p>
    <NuxtLink to="/sign-in" class="press press-first min-h-12">Sign in</NuxtLink>
  </div>
  <form v-else class="grid gap-4" novalidate @submit.prevent="form.handleSubmit()">
    <h1 class="text-2xl font-bold">Choose a new password</h1>
    <form.Field v-slot="slot" name="password">
      <FormLine
        v-bind="slot"
        label="New password"
        :problems="problems"
        type="password"
        autocomplete="new-password"
        hint="At least 12 characters; four words that do not belong together do well."
      />
    </form.Field>
    <form.Field v-slot="{ state }" name="token">
      <p v-if="firstError(state.meta.errors)" role="alert" class="font-semibold text-alert">
        {{ firstError(state.meta.errors) }}
      </p>
    </form.Field>
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
    <button class="press press-first min-h-12">Keep this password</button>
  </form>
</template>
