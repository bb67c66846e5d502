<script setup lang="ts">
import { GIRTHS, type GirthSiteId } from '#core/sites'
import { girthOf, HOME_PLACES } from '#core/home'
import { formatMass, formatNumber } from '#core/units'
import type { HandIn } from '~/composables/useHandIn'

/** What was handed in, as the client may see it: in neutral mode that it was, without figures. */
const props = defineProps<{ hand: HandIn }>()
const emit = defineEmits<{ back: [] }>()
const home = computed(() => props.hand.home.value)
const days = computed(() => [...(home.value?.weighIns ?? [])].reverse().slice(0, 14))
const weeks = computed(() =>
  (home.value?.weeks ?? []).map((week) => ({
    ...week,
    places: [...new Set(week.girths.map(({ site }) => site))].map((site: GirthSiteId) => {
      const own = week.girths.filter((one) => one.site === site)
      const values = own.flatMap(({ value }) => value ?? [])
      const value = girthOf(values)
      return { name: HOME_PLACES[site]?.name ?? GIRTHS[site].name, value, unit: own[0]?.unit ?? 'cm' }
    }),
    lines: (home.value?.lines ?? []).filter(({ handInId }) => handInId === week.id),
  })),
)
</script>

<template>
  <div v-if="home" class="flex flex-1 flex-col gap-4" data-handed-in>
    <h1 class="text-3xl font-bold">What I handed in</h1>
    <section v-if="days.length > 0" aria-label="Mornings">
      <h2 class="border-b-2 border-ink pb-1 text-xl font-bold">Mornings</h2>
      <ul>
        <li v-for="one in days" :key="one.day" class="flex justify-between border-b border-rule py-2 text-lg">
          <span>{{ sayDayAs(one.day, 'EEE d MMM') }}</span>
          <span class="figure">{{
            one.kg === null ? 'handed in' : `${formatMass(one.kg, home.units)} ${home.units.mass}`
          }}</span>
        </li>
      </ul>
    </section>
    <section v-for="week in weeks" :key="week.id" :aria-label="`Week of ${sayDay(week.day)}`">
      <h2 class="border-b-2 border-ink pb-1 text-xl font-bold">Week of {{ sayDay(week.day) }}</h2>
      <ul>
        <li v-for="one in week.places" :key="one.name" class="flex justify-between border-b border-rule py-2 text-lg">
          <span>{{ one.name }}</span>
          <span class="figure">{{ one.value === null ? 'handed in' : `${formatNumber(one.value)} ${one.unit}` }}</span>
        </li>
        <li v-if="week.photos.length > 0" class="flex justify-between border-b border-rule py-2 text-lg">
          <span>Pictures</span><span class="figure">{{ week.photos.length }}</span>
        </li>
        <li v-if="week.words" class="border-b border-rule py-2 text-lg">{{ week.words }}</li>
        <li v-for="line in week.lines" :key="line.at" class="border-l-6 border-lean px-3 py-2 text-lg">
          {{ line.words }} <span class="text-[15px] text-faded">{{ line.by }}</span>
        </li>
      </ul>
    </section>
    <p v-if="days.length === 0 && weeks.length === 0" class="text-lg text-faded">Nothing yet.</p>
    <div class="mt-auto grid gap-3 pt-4">
      <a v-if="home.takeHome" href="/api/hand-in/take-home" download class="press min-h-14 text-lg"
        >The page to take home</a
      >
      <button
        v-for="one in home.challenges"
        :key="one.entryId"
        type="button"
        class="press min-h-14 text-lg"
        @click="hand.leaveChallenge(one.entryId)"
      >
        Leave “{{ one.name }}”
      </button>
      <button v-if="home.reminders.on" type="button" class="press min-h-14 text-lg" @click="hand.stopReminders()">
        Stop reminders
      </button>
      <button type="button" class="press press-first min-h-16 text-xl" @click="emit('back')">Back</button>
      <button type="button" class="min-h-12 text-[17px] underline underline-offset-4" @click="hand.leave()">
        Sign this phone out
      </button>
    </div>
  </div>
</template>
