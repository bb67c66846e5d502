<script setup lang="ts">
import { useForm } from '@tanstack/vue-form'
import { signInInput, type SignInInput } from '#shared/schemas/account'
import { useMe } from '~/stores/me'
import { access } from '~/calls'
import { canPasskey } from '~/passkey-support'

definePageMeta({ layout: 'bare' })
useHead({ title: 'Sign in, Oak Pinch' })

const store = useMe()
const route = useRoute()
const router = useRouter()
const problems = useProblems(['email', 'password', 'code'])
/** Browsers give passkeys over https, and on this machine. */
const passkeys = ref(false)
/** The password was right and the account asks for a second proof. */
const asksCode = ref(false)
const code = ref('')
watch(problems.problem, (problem) => {
  asksCode.value ||= problem?.fields.some(({ field }) => field === 'code') ?? false
})

onMounted(async () => {
  passkeys.value = canPasskey()
  // Whoever comes here is not signed in any more, by their own doing or because the session has run out.
  await store.emptyDevice()
  await store.finishLeaving()
  const { needed } = await access.setupNeeded().catch(() => ({ needed: false }))
  if (needed) await router.replace('/welcome')
})

const nextPath = () => nextPathOf(route.query.next)

async function byPasskey() {
  const { passkeyForSignIn } = await import('~/passkeys')
  if (await problems.send(async () => store.signIn(await passkeyForSignIn()))) await router.push(nextPath())
}

const form = useForm({
  defaultValues: { email: '', password: '' } as SignInInput,
  validators: { onSubmit: signInInput },
  async onSubmit({ value }) {
    const who = code.value ? { ...value, code: code.value } : value
    if (await problems.send(() => store.signIn(who))) await router.push(nextPath())
  },
})
</script>

<template>
  <form class="grid gap-4" novalidate @submit.prevent="form.handleSubmit()">
    <h1 class="text-2xl font-bold">Sign in</h1>
    <p v-if="route.query.ended" data-ended>You are signed out here. Sign in to go on.</p>
    <form.Field v-slot="slot" name="email">
      <FormLine v-bind="slot" label="E-mail address" :problems="problems" type="email" autocomplete="username" />
    </form.Field>
    <form.Field v-slot="slot" name="password">
      <FormLine v-bind="slot" label="Password" :problems="problems" type="password" autocomplete="current-password" />
    </form.Field>
    <TextField
      v-if="asksCode"
      v-model="code"
      label="Code"
      name="code"
      autocomplete="one-time-code"
      hint="The six digits your phone shows, or one of your codes on paper."
      :problem="problems.byField.value.get('code')"
    />
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
    <button class="press press-first min-h-12">Sign in</button>
    <button v-if="passkeys" type="button" class="press press-quiet min-h-12" @click="byPasskey">
      Sign in with a passkey
    </button>
  </form>
</template>
