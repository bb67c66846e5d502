<script setup lang="ts">
import type { Habits } from '#shared/schemas/account'
import { useMe } from '~/stores/me'

const store = useMe()
const problem = ref<string | null>(null)
const CHOICES: { key: keyof Habits; label: string }[] = [
  { key: 'skipMarking', label: 'Start with the readings, without the marking screen' },
  { key: 'readback', label: 'Say each kept value aloud, where the browser can speak' },
  { key: 'sounds', label: 'A short sound at each kept value' },
]

async function set(key: keyof Habits, on: boolean) {
  problem.value = null
  try {
    await store.setHabits({ ...store.me?.habits, [key]: on })
  } catch (error) {
    problem.value = problemOf(error).message
  }
}
</script>

<template>
  <section aria-labelledby="habits" class="grid content-start gap-2">
    <h2 id="habits" class="border-b-2 border-ink pb-2 text-lg font-bold">While measuring, for you</h2>
    <label v-for="choice in CHOICES" :key="choice.key" class="flex min-h-10 items-center gap-3">
      <input
        type="checkbox"
        :name="choice.key"
        class="size-5 accent-ink"
        :checked="store.me?.habits[choice.key] ?? false"
        @change="set(choice.key, ($event.target as HTMLInputElement).checked)"
      />
      {{ choice.label }}
    </label>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </section>
</template>
