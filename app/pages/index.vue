<script setup lang="ts">
import type { Floor } from '#shared/schemas/checkin'
import { useMe } from '~/stores/me'

useHead({ title: 'Floor, Oak Pinch' })

const store = useMe()
const floor = ref<Floor | null>(null)
const { keptSince, ask } = useKeptAnswers()
const { problem, tell } = useTelling()

onMounted(() =>
  tell(async () => {
    floor.value = await ask<Floor>('/api/floor')
  }),
)
</script>

<template>
  <div class="w-full px-4 py-6 sm:px-6">
    <div class="flex items-baseline gap-4">
      <h1 class="text-3xl font-bold">Floor</h1>
      <p class="text-faded">{{ sayTime(Date.now(), 'EEEE d MMMM') }}</p>
    </div>
    <p v-if="problem" role="alert" class="mt-4 font-semibold text-alert">
      {{ problem }}
    </p>
    <KeptNotice class="mt-4" :since="keptSince" />

    <div v-if="floor" class="mt-6 grid items-start gap-x-12 gap-y-8 sm:grid-cols-2 lg:grid-cols-3">
      <section v-if="floor.open.length > 0" aria-label="Unfinished" class="sm:col-span-2 lg:col-span-3">
        <ul class="grid gap-3">
          <li
            v-for="line in floor.open"
            :key="line.checkinId"
            class="flex flex-wrap items-center gap-x-6 gap-y-2 rounded border-l-6 border-signal bg-sheet px-5 py-4"
          >
            <div class="min-w-0 flex-1">
              <h2 class="text-xl font-bold">{{ line.clientName }}</h2>
              <p class="text-faded">
                Unfinished, started {{ sayAgo(line.day) }} at {{ sayTime(line.at) }},
                <span class="figure">{{ line.readings }}</span>
                {{ line.readings === 1 ? 'reading' : 'readings' }} kept
              </p>
            </div>
            <NuxtLink :to="`/measure/${line.checkinId}`" class="press press-first min-h-12">{{
              store.isRecorder ? 'Write down' : 'Go on measuring'
            }}</NuxtLink>
          </li>
        </ul>
      </section>

      <p v-if="store.isRecorder && floor.open.length === 0" class="text-lg text-faded">
        Nobody is being measured at the moment. A check-in shows here once a coach has started it.
      </p>
      <section v-if="!store.isRecorder" aria-labelledby="due">
        <h2 id="due" class="border-b-2 border-ink pb-2 text-lg font-bold">Due</h2>
        <p v-if="floor.due.length === 0" class="py-3 text-faded">
          Nobody is due: everyone was measured within four weeks.
        </p>
        <ul>
          <li v-for="line in floor.due" :key="line.clientId" class="flex items-center gap-4 border-b border-rule py-2">
            <NuxtLink :to="`/clients/${line.clientId}`" class="min-w-0 flex-1">
              <span class="block truncate font-semibold">{{ line.clientName }}</span>
              <span class="text-sm text-faded">{{
                line.lastDay ? `last ${sayAgo(line.lastDay)}` : 'not measured yet'
              }}</span>
            </NuxtLink>
            <NuxtLink :to="`/clients/${line.clientId}/measure`" class="press">Measure</NuxtLink>
          </li>
        </ul>
      </section>

      <section v-if="!store.isRecorder" aria-labelledby="soon">
        <h2 id="soon" class="border-b-2 border-ink pb-2 text-lg font-bold">Coming up</h2>
        <p v-if="floor.soon.length === 0" class="py-3 text-faded">Nobody within two weeks.</p>
        <ul>
          <li v-for="line in floor.soon" :key="line.clientId" class="border-b border-rule">
            <NuxtLink :to="`/clients/${line.clientId}`" class="flex items-baseline gap-4 py-3">
              <span class="min-w-0 flex-1 truncate font-semibold">{{ line.clientName }}</span>
              <span class="text-sm whitespace-nowrap text-faded">from {{ sayDay(line.dueOn) }}</span>
            </NuxtLink>
          </li>
        </ul>
      </section>

      <section v-if="!store.isRecorder" aria-labelledby="lately">
        <h2 id="lately" class="border-b-2 border-ink pb-2 text-lg font-bold">Measured lately</h2>
        <p v-if="floor.finished.length === 0" class="py-3 text-faded">
          Nothing yet. <NuxtLink to="/clients/new" class="underline">Add a client</NuxtLink> and measure.
        </p>
        <ul>
          <li v-for="line in floor.finished" :key="line.checkinId" class="border-b border-rule">
            <NuxtLink :to="`/clients/${line.clientId}`" class="flex items-baseline gap-4 py-3">
              <span class="min-w-0 flex-1 truncate font-semibold">{{ line.clientName }}</span>
              <span class="text-sm whitespace-nowrap text-faded">{{ sayDay(line.day) }}, {{ sayAgo(line.day) }}</span>
            </NuxtLink>
          </li>
        </ul>
      </section>
    </div>
  </div>
</template>
