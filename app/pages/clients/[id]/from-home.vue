<script setup lang="ts">
import { ageInYears } from '#core/calendar'
import { ADULT_YEARS } from '#core/cautions'
import { isNeutral } from '#shared/neutral'
import type { Client } from '#shared/schemas/client'
import type { FromHome } from '#shared/schemas/link'
import { clients } from '~/calls'
import { fromHome as calls } from '~/week-calls'
import { useMe } from '~/stores/me'

const route = useRoute()
const store = useMe()
const id = String(route.params.id)
const client = ref<Client | null>(null)
const facts = ref<FromHome | null>(null)
const shown = ref('')

useHead({ title: () => `${client.value?.name ?? 'Client'}, from home, Oak Pinch` })
useOpening(async () => {
  const [person, found] = await Promise.all([clients.read(id), calls.read(id)])
  client.value = person
  facts.value = found
  const wanted = route.hash.slice(1)
  show(found.weeks.find((week) => week.id === wanted)?.id ?? found.weeks[0]?.id ?? '')
})

const week = computed(() => facts.value?.weeks.find((one) => one.id === shown.value) ?? null)
const before = computed(() => {
  const later = facts.value?.weeks.findIndex((one) => one.id === shown.value) ?? -1
  return facts.value?.weeks.slice(later + 1).find(({ photos }) => photos.length > 0) ?? null
})
const lines = computed(() => facts.value?.lines.filter(({ handInId }) => handInId === shown.value) ?? [])

/** To look at a week is to have seen it. */
function show(one: string) {
  shown.value = one
  const found = facts.value?.weeks.find((each) => each.id === one)
  if (!found || found.seenAt) return
  void calls.seen(id, one).catch(() => undefined)
}
async function reload() {
  facts.value = await calls.read(id)
}
</script>

<template>
  <div v-if="client && facts" class="flex flex-1 flex-col">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-rule px-4 py-2 sm:px-6">
      <h1 class="text-3xl font-bold">
        <NuxtLink :to="`/clients/${id}`" class="underline decoration-1 underline-offset-4">{{ client.name }}</NuxtLink>
      </h1>
      <p class="text-faded">from home</p>
    </div>
    <div class="grid gap-x-10 gap-y-6 px-4 py-4 sm:px-6 lg:grid-cols-[minmax(0,1fr)_minmax(300px,360px)]">
      <div class="grid content-start gap-4">
        <nav v-if="facts.weeks.length > 0" class="flex flex-wrap gap-1" aria-label="Weeks handed in">
          <button
            v-for="one in facts.weeks.slice(0, 10)"
            :key="one.id"
            type="button"
            class="press min-h-10 px-3"
            :class="one.id === shown ? 'press-first' : 'press-quiet'"
            :aria-pressed="one.id === shown"
            @click="show(one.id)"
          >
            {{ sayDay(one.day) }}
          </button>
        </nav>
        <WeekFromHome
          v-if="week"
          :key="week.id"
          :client-id="id"
          :week="week"
          :before="before"
          :lines="lines"
          :units="store.units"
          :neutral="isNeutral(client, todayHere())"
          @lines="facts = { ...facts, lines: $event }"
          @removed="reload"
        />
        <p v-else class="max-w-prose text-lg text-faded">
          Nothing has been handed in yet. Make a link and hold its code to their phone:
          {{
            isNeutral(client, todayHere())
              ? 'in neutral mode it opens the page to take home.'
              : 'weight every morning, the tape and three pictures once a week, in ten minutes, without an account.'
          }}
        </p>
      </div>
      <div class="grid content-start gap-8">
        <LinkPanel
          :client-id="id"
          :links="facts.links"
          :photo-consent="client.photoConsentOn !== null"
          :minor="ageInYears(client.birthDate, todayHere()) < ADULT_YEARS"
          :neutral="isNeutral(client, todayHere())"
          @changed="facts = $event"
        />
        <ReminderPanel
          :client-id="id"
          :reminders="facts.reminders"
          @changed="facts = { ...facts, reminders: $event }"
        />
      </div>
    </div>
  </div>
</template>
