<script setup lang="ts">
import { useMe } from '~/stores/me'

/** How long somebody stays signed in: unused, and in any case. */
const store = useMe()
const { problem, tell } = useTelling()
const IDLE = [
  { id: 1, name: 'an hour' },
  { id: 8, name: '8 hours' },
  { id: 24, name: 'a day' },
  { id: 72, name: '3 days' },
  { id: 168, name: 'a week' },
]
const DAYS = [
  { id: 1, name: 'a day' },
  { id: 7, name: 'a week' },
  { id: 14, name: '2 weeks' },
  { id: 30, name: '30 days' },
]
</script>

<template>
  <section v-if="store.me" aria-labelledby="stays" class="grid content-start gap-2" data-session-limits>
    <h2 id="stays" class="border-b-2 border-ink pb-2 text-lg font-bold">How long people stay signed in</h2>
    <p class="text-[15px]">Unused for</p>
    <PressGroup
      label="Signed out when unused for"
      :options="IDLE"
      :model-value="store.me.rules.sessionIdleHours"
      @update:model-value="$event && tell(() => store.setRules({ sessionIdleHours: $event }))"
    />
    <p class="mt-1 text-[15px]">In any case after</p>
    <PressGroup
      label="Signed out in any case after"
      :options="DAYS"
      :model-value="store.me.rules.sessionDays"
      @update:model-value="$event && tell(() => store.setRules({ sessionDays: $event }))"
    />
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    <p class="text-sm text-faded">
      It counts for everybody here from now on. Readings not sent yet stay on their device and go out after the next
      sign-in.
    </p>
  </section>
</template>
