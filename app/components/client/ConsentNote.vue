<script setup lang="ts">
import { ageInYears } from '#core/calendar'
import { ADULT_YEARS } from '#core/cautions'
import type { Client } from '#shared/schemas/client'
import { clients } from '~/calls'

/** Consent, talked through and noted on the spot: measuring goes on without leaving the page. */
const props = defineProps<{ client: Client }>()
const emit = defineEmits<{ noted: [client: Client] }>()

const isMinor = computed(() => ageInYears(props.client.birthDate, todayHere()) < ADULT_YEARS)
const own = ref(props.client.consentOn !== null)
const guardian = ref(props.client.guardianConsent)
const guardianName = ref(props.client.guardianName ?? '')
const { problem, busy, tell } = useTelling()

const OFFERED = ['a chaperone', 'a private place', 'tape only'] as const
const offered = ref<string[]>([])

async function note() {
  const { id, archived: _, ...record } = props.client
  const today = todayHere()
  const words =
    offered.value.length > 0 ? `Consent talked through on ${today}; offered: ${offered.value.join(', ')}.` : ''
  await tell(async () => {
    const body = {
      ...record,
      consentOn: record.consentOn ?? (own.value ? today : null),
      guardianConsent: guardian.value,
      guardianName: guardian.value ? guardianName.value : '',
      guardianConsentOn: guardian.value ? (record.guardianConsentOn ?? today) : null,
      notes: [record.notes, words].filter(Boolean).join('\n'),
    }
    emit('noted', await clients.change(id, body))
  })
}
</script>

<template>
  <fieldset class="grid gap-3 border-l-4 border-signal bg-sheet px-4 py-3" data-consent>
    <legend class="sr-only">Consent</legend>
    <p class="font-semibold">Talk it through, then note it here: it is never a condition for training.</p>
    <div class="flex flex-wrap items-center gap-x-6 gap-y-2">
      <TickField v-if="client.consentOn === null" v-model="own" name="consentHere">
        {{ client.name }} agrees to be measured by touch and to these data being kept.
      </TickField>
      <TickField v-if="isMinor" v-model="guardian" name="guardianHere">A guardian agrees.</TickField>
      <TextField
        v-if="isMinor && guardian"
        v-model="guardianName"
        label="Guardian"
        name="guardianNameHere"
        autocomplete="off"
      />
    </div>
    <div class="flex flex-wrap items-center gap-x-6 gap-y-2">
      <span class="text-faded">Offered:</span>
      <label v-for="one in OFFERED" :key="one" class="flex min-h-9 items-center gap-2">
        <input v-model="offered" type="checkbox" class="size-5 accent-ink" :value="one" />
        {{ one }}
      </label>
      <button
        type="button"
        class="press ml-auto"
        :disabled="
          busy || (client.consentOn === null && !own) || (isMinor && (!guardian || guardianName.trim() === ''))
        "
        @click="note"
      >
        Note consent
      </button>
    </div>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </fieldset>
</template>
