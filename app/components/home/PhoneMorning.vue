<script setup lang="ts">
import { addDays, daysOfWeek, weekdayOf } from '#core/calendar'
import { weightSlip } from '#core/home'
import { formatNumber, kgToMass, massToKg, WEIGHT_RANGE_KG } from '#core/units'
import type { HandIn } from '~/composables/useHandIn'
import { typedNumber } from '~/composables/useHandIn'

/** The first screen: this morning's weight as one number and one press, the week's dots, the coach's line. */
const props = defineProps<{ hand: HandIn }>()
const emit = defineEmits<{ week: []; look: [] }>()

const home = computed(() => props.hand.home.value)
const unit = computed(() => home.value?.units.mass ?? 'kg')
const typed = ref('')
const refused = ref<string | null>(null)
/** What may have been meant, in the shown unit; NaN: far off and nothing says how. */
const meant = ref<number | null>(null)
const said = ref<string | null>(null)

const today = computed(() => props.hand.today())
const week = computed(() => daysOfWeek(today.value))
const isDone = computed(() => props.hand.weighed.value.has(today.value))
const isWeekday = computed(() => home.value !== null && weekdayOf(today.value) === home.value.weekday)
const handedIn = computed(() => {
  const since = addDays(today.value, -5)
  return (
    (home.value?.weeks.some(({ day }) => day >= since) ?? false) ||
    props.hand.waiting.value.some((one) => one.kind === 'week' && one.week.day >= since)
  )
})
const line = computed(() => home.value?.lines[0] ?? null)

async function keep(sure = false) {
  refused.value = meant.value = said.value = null
  const value = typedNumber(typed.value)
  if (value === null)
    return void (refused.value = `Type the number the scale shows, such as ${unit.value === 'kg' ? '71.4' : '157.4'}.`)
  const kg = massToKg(value, unit.value)
  const slip = weightSlip(kg, props.hand.lastKg.value)
  if (slip !== null && !sure) {
    meant.value = Number.isNaN(slip) ? NaN : kgToMass(slip, unit.value)
    return
  }
  if (kg < WEIGHT_RANGE_KG.low || kg > WEIGHT_RANGE_KG.high)
    return void (refused.value = 'That cannot be a weight. Is the point in the right place?')
  const first = !isDone.value
  await props.hand.weigh(value, unit.value, today.value)
  typed.value = ''
  said.value = first ? 'Handed in. Have a good day.' : 'Kept. The first of a day is the one that counts.'
}
function take(value: number) {
  typed.value = String(Math.round(value * 10) / 10)
  void keep(true)
}
</script>

<template>
  <div class="flex flex-1 flex-col gap-5">
    <section
      v-if="line"
      class="rounded border-l-6 border-lean bg-sheet px-4 py-3 text-lg"
      aria-label="From your coach"
      data-line
    >
      <p>{{ line.words }}</p>
      <p class="mt-1 text-[15px] text-faded">{{ line.by }}, {{ sayAgo(line.at) }}</p>
    </section>
    <p v-if="home?.nextVisit" class="text-lg text-faded">
      Next visit: {{ sayTime(home.nextVisit, 'EEEE d MMMM') }}, {{ sayTime(home.nextVisit) }}
    </p>
    <div
      class="grid grid-cols-7 gap-1"
      role="img"
      :aria-label="`Mornings of this week: ${week.filter((day) => hand.weighed.value.has(day)).length}`"
    >
      <span v-for="day in week" :key="day" class="grid justify-items-center gap-1 text-[15px] text-faded">
        <span
          class="size-5 rounded-full border-2"
          :class="[
            hand.weighed.value.has(day) ? 'border-lean bg-lean' : 'border-contour',
            { 'ring-2 ring-ink ring-offset-2 ring-offset-paper': day === today },
          ]"
        />
        {{ sayDayAs(day, 'EEEEE') }}
      </span>
    </div>

    <form
      v-if="home?.scope.includes('weigh-ins')"
      class="mt-auto grid gap-3"
      novalidate
      data-morning
      @submit.prevent="keep()"
    >
      <label for="weight" class="text-2xl font-bold">{{
        isDone ? 'Handed in this morning' : 'This morning’s weight'
      }}</label>
      <p class="text-[17px] text-faded">After the toilet, before food and drink, least clothing.</p>
      <div class="flex items-center gap-3">
        <input
          id="weight"
          v-model="typed"
          name="weight"
          inputmode="decimal"
          autocomplete="off"
          enterkeyhint="done"
          class="field figure min-h-20 min-w-0 flex-1 text-center text-5xl"
          :aria-invalid="refused ? 'true' : undefined"
          @input="refused = meant = null"
        />
        <span class="text-2xl text-faded">{{ unit }}</span>
      </div>
      <div v-if="meant !== null" role="alert" class="grid gap-2 text-lg" data-meant>
        <template v-if="home.neutral || Number.isNaN(meant)">
          <p>That is far from what this scale shows otherwise. Is the point in the right place?</p>
        </template>
        <template v-else>
          <p>Is it {{ formatNumber(meant) }} {{ unit }}?</p>
          <button type="button" class="press min-h-14 text-lg" @click="take(meant)">
            Yes, {{ formatNumber(meant) }}
          </button>
        </template>
        <button type="button" class="press press-quiet min-h-14 text-lg" @click="keep(true)">
          It is as I typed it
        </button>
      </div>
      <p v-if="refused" role="alert" class="text-lg font-semibold text-alert">{{ refused }}</p>
      <p v-if="said" role="status" class="text-lg font-semibold text-lean">{{ said }}</p>
      <button class="press press-first min-h-16 text-xl">Hand in</button>
    </form>
    <div class="grid gap-3" :class="{ 'mt-auto': !home?.scope.includes('weigh-ins') }">
      <button
        type="button"
        class="press min-h-16 text-xl"
        :class="{ 'press-first': isWeekday && !handedIn && isDone }"
        @click="emit('week')"
      >
        {{ hand.draft.value ? 'Go on with the week' : handedIn ? 'Hand in another week' : 'Hand in the week' }}
      </button>
      <button type="button" class="min-h-12 text-lg underline underline-offset-4" @click="emit('look')">
        What I handed in
      </button>
    </div>
  </div>
</template>
