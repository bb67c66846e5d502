<script setup lang="ts">
import { useForm } from '@tanstack/vue-form'
import { signInInput } from '#shared/schemas/account'
import { useMe } from '~/stores/me'
import { access } from '~/calls'

definePageMeta({ layout: 'bare' })
useHead({ title: 'Sign in, Oak Pinch' })

const store = useMe()
const route = useRoute()
const router = useRouter()
const problems = useProblems(['email', 'password', 'code'])
/** The password was right and the account asks for a second proof. */
const asksCode = ref(false)
watch(problems.problem, (problem) => {
  asksCode.value ||= problem?.fields.some(({ field }) => field === 'code') ?? false
})

onMounted(async () => {
  // Whoever comes here is not signed in any more, by their own doing or because the session has run out.
  await store.emptyDevice()
  await store.finishLeaving()
  const { needed } = await access.setupNeeded().catch(() => ({ needed: false }))
  if (needed) await router.replace('/welcome')
})

/** Only a path of this application: "//elsewhere" and full addresses are not followed. */
function nextPath(): string {
  const next = String(route.query.next ?? '/')
  return /^\/(?![/\\])/.test(next) ? next : '/'
}

const form = useForm({
  defaultValues: { email: '', password: '', code: '' } as { email: string; password: string; code?: string },
  validators: { onSubmit: signInInput },
  async onSubmit({ value }) {
    const { code, ...who } = value
    if (await problems.send(() => store.signIn(code ? { ...who, code } : who))) await router.push(nextPath())
  },
})
</script>

<template>
  <form class="grid gap-4" novalidate @submit.prevent="form.handleSubmit()">
    <h1 class="text-2xl font-bold">Sign in</h1>
    <form.Field v-slot="slot" name="email">
      <FormLine v-bind="slot" label="E-mail address" :problems="problems" type="email" autocomplete="username" />
    </form.Field>
    <form.Field v-slot="slot" name="password">
      <FormLine v-bind="slot" label="Password" :problems="problems" type="password" autocomplete="current-password" />
    </form.Field>
    <form.Field v-if="asksCode" v-slot="slot" name="code">
      <FormLine
        v-bind="slot"
        label="Code"
        :problems="problems"
        type="text"
        autocomplete="one-time-code"
        hint="The six digits your phone shows, or one of your codes on paper."
      />
    </form.Field>
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
    <button class="press press-first min-h-12">Sign in</button>
  </form>
</template>
