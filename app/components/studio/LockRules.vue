<script setup lang="ts">
import { useMe } from '~/stores/me'

/** What a studio asks of everybody's devices and sign-ins. */
const store = useMe()
const { problem, tell } = useTelling()
const LOCKS = [
  { id: 0, name: 'never' },
  { id: 2, name: '2 minutes' },
  { id: 5, name: '5 minutes' },
  { id: 15, name: '15 minutes' },
]
const PROOFS = [
  { id: 'one' as const, name: 'a password is enough' },
  { id: 'two' as const, name: 'a code or a passkey as well' },
]
</script>

<template>
  <section v-if="store.me" aria-labelledby="locks" class="grid content-start gap-2" data-lock-rules>
    <h2 id="locks" class="border-b-2 border-ink pb-2 text-lg font-bold">Unattended devices</h2>
    <p class="text-[15px]">Locks after nobody has touched it for</p>
    <PressGroup
      label="Locks after"
      :options="LOCKS"
      :model-value="store.me.rules.lockMinutes"
      @update:model-value="$event !== null && tell(() => store.setRules({ lockMinutes: $event }))"
    />
    <p class="text-sm text-faded">
      Each coach unlocks it with their own PIN (Studio &gt; Your account). A session in progress stays as it was;
      another coach continues as themselves.
    </p>
    <p class="mt-2 text-[15px]">To sign in,</p>
    <PressGroup
      label="To sign in"
      :options="PROOFS"
      :model-value="store.me.rules.secondRequired ? 'two' : 'one'"
      @update:model-value="$event && tell(() => store.setRules({ secondRequired: $event === 'two' }))"
    />
    <p v-if="store.me.rules.secondRequired" class="text-sm text-faded">
      Whoever has neither yet is led to set one up at their next visit, and reaches nothing else until then.
    </p>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </section>
</template>
