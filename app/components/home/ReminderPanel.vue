<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { ReminderRecord } from '#shared/schemas/link'
import { fromHome as calls } from '~/week-calls'

/** Where a client is reminded and of what, and the weekday their week is handed in on. */
const props = defineProps<{ clientId: string; reminders: ReminderRecord }>()
const emit = defineEmits<{ changed: [reminders: ReminderRecord] }>()

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'].map((name, i) => ({
  id: i + 1,
  name,
}))
const own = reactive({ ...props.reminders, email: props.reminders.email ?? '' })
const problems = useProblems(['email'])
const kept = ref(false)

async function keep() {
  kept.value = await problems.send(async () => {
    const email = own.email.trim() || null
    emit('changed', await calls.setReminders(props.clientId, { ...own, id: uuid(), email }))
  })
}
</script>

<template>
  <form class="grid content-start gap-3" novalidate aria-labelledby="reminders" @submit.prevent="keep">
    <h2 id="reminders" class="border-b-2 border-ink pb-1 text-lg font-bold">Reminders</h2>
    <ListField v-model="own.handInWeekday" label="The week is handed in on" name="handInWeekday" :options="WEEKDAYS" />
    <TextField
      v-model="own.email"
      label="E-mail address, if they want reminders"
      name="email"
      type="email"
      autocomplete="off"
      :problem="problems.byField.value.get('email')"
    />
    <TickField v-model="own.visits" name="visits">The day before a visit</TickField>
    <TickField v-model="own.handIns" name="handIns">On the day of the hand-in</TickField>
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
    <p v-if="kept" role="status" class="text-[15px]">Kept.</p>
    <button class="press justify-self-start">Keep</button>
    <p class="text-sm text-faded">
      No figure and no word about bodies stands in a mail; each has a press that stops them.
    </p>
  </form>
</template>
