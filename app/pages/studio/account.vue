<script setup lang="ts">
import { useForm } from '@tanstack/vue-form'
import { passwordChange, type SessionRecord } from '#shared/schemas/account'
import { useMe } from '~/stores/me'
import { own as account } from '~/calls'

useHead({ title: 'Your account, Oak Pinch' })

const store = useMe()
const sessions = ref<SessionRecord[]>([])
const { problem, tell } = useTelling()
const changed = ref(false)
const problems = useProblems(['old', 'password'])
const own = computed(() => sessions.value.filter(({ staffId }) => staffId === store.me?.staff.id))
const others = computed(() => sessions.value.filter(({ staffId }) => staffId !== store.me?.staff.id))

function take(action: () => Promise<SessionRecord[]>) {
  return tell(async () => {
    sessions.value = await action()
  })
}
onMounted(() => take(account.sessions))

const FIELDS = [
  { name: 'old', label: 'Your password now', autocomplete: 'current-password' },
  {
    name: 'password',
    label: 'New password',
    autocomplete: 'new-password',
    hint: 'At least 12 characters; four words that do not belong together do well.',
  },
] as const
const form = useForm({
  defaultValues: { old: '', password: '' },
  validators: { onSubmit: passwordChange },
  async onSubmit({ value }) {
    changed.value = false
    changed.value = await problems.send(() => account.setPassword(value))
    if (!changed.value) return
    form.reset()
    await take(account.sessions)
  },
})
</script>

<template>
  <div class="grid w-full gap-x-12 gap-y-10 px-4 py-6 sm:px-6 lg:grid-cols-[minmax(320px,1fr)_2fr]">
    <p v-if="store.me?.lacksSecond" role="status" class="border-l-4 border-signal bg-sheet px-4 py-3 lg:col-span-2">
      <strong>Your studio asks for more than a password.</strong> Set up a passkey or a code below; until then nothing
      else of the studio opens.
    </p>
    <section aria-labelledby="password-title" class="grid content-start gap-4">
      <h2 id="password-title" class="border-b-2 border-ink pb-2 text-lg font-bold">Password</h2>
      <form class="grid gap-4" novalidate @submit.prevent="form.handleSubmit()">
        <form.Field v-for="shown in FIELDS" v-slot="slot" :key="shown.name" :name="shown.name">
          <FormLine v-bind="{ ...slot, ...shown }" type="password" :problems="problems" />
        </form.Field>
        <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
        <p v-if="changed" role="status">Changed. You are signed out everywhere but here.</p>
        <button class="press press-first justify-self-start">Change password</button>
      </form>
      <PinPanel class="mt-6" />
    </section>
    <section aria-labelledby="sessions" class="grid content-start gap-3">
      <h2 id="sessions" class="border-b-2 border-ink pb-2 text-lg font-bold">Where you are signed in</h2>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
      <SessionList :sessions="own" @end="take(() => account.endSession($event))" />
      <button
        v-if="own.length > 1"
        type="button"
        class="press press-quiet justify-self-start"
        @click="take(account.endOtherSessions)"
      >
        Sign out everywhere but here
      </button>
      <!-- Once what stands above is there: it would move them under the finger. -->
      <div v-if="own.length > 0 || problem" class="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-2">
        <PasskeyPanel @changed="store.load()" />
        <SecondFactor @changed="store.load()" />
      </div>
      <CalendarLinks v-if="!store.isRecorder" class="mt-6" />
      <template v-if="others.length > 0">
        <h2 class="mt-6 border-b-2 border-ink pb-2 text-lg font-bold">Where others are signed in</h2>
        <SessionList :sessions="others" named @end="take(() => account.endSession($event))" />
      </template>
    </section>
  </div>
</template>
