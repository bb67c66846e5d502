<script setup lang="ts">
import type { Habits } from '#shared/schemas/account'
import { useMe } from '~/stores/me'

const store = useMe()
const { problem, tell } = useTelling()
const CHOICES: { key: Exclude<keyof Habits, 'cover'>; label: string }[] = [
  { key: 'skipMarking', label: 'Start with the readings, without the marking screen' },
  { key: 'readback', label: 'Say each kept value aloud, where the browser can speak' },
  { key: 'sounds', label: 'A short sound at each kept value' },
]
const COVERS = [
  { id: 'first', name: 'At a first visit' },
  { id: 'always', name: 'Always' },
  { id: 'never', name: 'Never' },
] as const
</script>

<template>
  <section aria-labelledby="habits" class="grid content-start gap-2">
    <h2 id="habits" class="border-b-2 border-ink pb-2 text-lg font-bold">While measuring, for you</h2>
    <TickField
      v-for="choice in CHOICES"
      :key="choice.key"
      class="min-h-10"
      :name="choice.key"
      :model-value="store.me?.habits[choice.key] ?? false"
      @update:model-value="tell(() => store.setHabits({ ...store.me?.habits, [choice.key]: $event }))"
      >{{ choice.label }}</TickField
    >
    <div class="flex flex-wrap items-center gap-3">
      <span id="cover-label">Cover the result until I show it</span>
      <PressGroup
        :model-value="store.me?.habits.cover ?? 'first'"
        label="Cover the result until I show it"
        :options="COVERS"
        @update:model-value="tell(() => store.setHabits({ ...store.me?.habits, cover: $event ?? 'first' }))"
      />
    </div>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </section>
</template>
