<script setup lang="ts">
import { answerConfirming, isAsked } from '~/confirming'
import { own } from '~/calls'
import { canPasskey } from '~/passkey-support'

/** Asks for the password once more, before something guarded is done. */
const password = ref('')
const problems = useProblems(['password'])
const asked = computed(isAsked)
watch(asked, () => {
  password.value = ''
  problems.problem.value = null
})

async function go() {
  if (await problems.send(() => own.confirm({ password: password.value }))) answerConfirming(true)
}

/** Offered where this account has one and the browser gives it. */
const hasPasskey = ref(false)
watch(asked, async (now) => {
  if (now && canPasskey())
    hasPasskey.value = await own.passkeys().then(
      (all) => all.length > 0,
      () => false,
    )
})
async function byPasskey() {
  const { confirmByPasskey } = await import('~/passkeys')
  if (await problems.send(confirmByPasskey)) answerConfirming(true)
}
</script>

<template>
  <SheetDialog v-if="asked" title="Is it you?" first @close="answerConfirming(false)">
    <form novalidate data-confirm @submit.prevent="go">
      <p>
        This changes who may do what here, or takes data out of the studio. Please give your password once more; it then
        holds for a quarter of an hour.
      </p>
      <div class="mt-3">
        <TextField
          v-model="password"
          label="Password"
          name="password"
          type="password"
          autocomplete="current-password"
          :problem="problems.byField.value.get('password')"
        />
      </div>
      <p v-if="problems.ofForm.value" role="alert" class="mt-2 font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="mt-4 flex gap-2">
        <button class="press press-first min-h-11" :disabled="password === ''">Go on</button>
        <button v-if="hasPasskey" type="button" class="press press-quiet min-h-11" @click="byPasskey">
          By passkey
        </button>
        <button type="button" class="press press-quiet min-h-11" @click="answerConfirming(false)">Leave it</button>
      </div>
    </form>
  </SheetDialog>
</template>
