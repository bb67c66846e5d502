<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { readDiaryTrend, sevenDayMean } from '#core/trend'
import { formatMass, formatMassChange, formatNumber, massToKg, parseWeight, type Units } from '#core/units'
import type { WeighInRecord, WeighInsInput } from '#shared/schemas/following'
import { diaryOf } from '#shared/following'

const LazyDiaryChart = defineAsyncComponent(() => import('./DiaryChart.vue'))

/** The daily weight: typed, pasted or from the scale; its week's mean, its trend, and the check-ins beside it. */
const props = defineProps<{
  weighIns: readonly WeighInRecord[]
  /** Weights at the check-ins, oldest first. */
  visits: readonly { id: string; at: string; weightKg: number }[]
  units: Units
  neutral: boolean
  busy: boolean
  /** Stores weigh-ins; gives whether it worked. */
  add: (given: WeighInsInput['weighIns']) => Promise<boolean>
}>()
const emit = defineEmits<{ strike: [id: string] }>()
const problem = defineModel<string | null>('problem', { required: true })
const SHOWN = 60

const diary = computed(() => diaryOf(props.weighIns))
const reading = computed(() => readDiaryTrend(diary.value))
const newest = computed(() => [...props.weighIns].reverse().slice(0, SHOWN))
const taken = computed(() => new Set(props.weighIns.map(({ day }) => day)))
/** Check-ins beside the mean of their week. */
const beside = computed(() =>
  [...props.visits]
    .reverse()
    .map((visit) => ({ ...visit, week: sevenDayMean(diary.value, visit.at) }))
    .filter(({ week }) => week !== null)
    .slice(0, 6),
)

const today = todayHere()
const day = ref(today)
const text = ref('')
const dry = ref(true)
const pasting = ref(false)

async function addTyped() {
  const parsed = parseWeight(text.value, props.units.mass)
  if (parsed.kind !== 'value') return void (problem.value = parsed.sentence)
  const given = {
    id: uuid(),
    day: day.value,
    value: parsed.value,
    unit: parsed.unit,
    dry: dry.value,
    source: 'typed' as const,
  }
  if (await props.add([given])) text.value = ''
}

async function storePasted(given: WeighInsInput['weighIns']) {
  if (await props.add(given)) pasting.value = false
}

// The scale's press is today's weight.
const scale = useDevices({
  press({ device, value }) {
    if (device === 'scale' && !pasting.value) {
      void props.add([{ id: uuid(), day: today, value, unit: 'kg', dry: dry.value, source: 'scale' }])
    }
  },
})
</script>

<template>
  <div v-if="neutral" class="px-4 py-6 sm:px-6">
    <p>Neutral mode shows no weight here. Switch it off above to see or add weigh-ins.</p>
  </div>
  <div v-else class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[1fr_minmax(420px,38%)]" data-diary>
    <section class="border-rule px-4 py-4 sm:px-6 lg:border-r" aria-labelledby="weight-trend">
      <div class="flex flex-wrap items-end gap-x-10 gap-y-2">
        <h2 id="weight-trend" class="sr-only">Weight trend</h2>
        <div v-if="reading.week" class="text-weight" data-week>
          <p class="text-[15px] text-faded">Mean of the last seven days</p>
          <span class="figure text-4xl leading-tight font-bold">{{ formatMass(reading.week.weightKg, units) }}</span>
          <span class="ml-1.5 text-faded">{{ units.mass }}, of {{ reading.week.count }} weigh-ins</span>
        </div>
        <p v-else-if="weighIns.length > 0" class="text-faded">A week’s mean needs three weigh-ins in seven days.</p>
        <div v-if="reading.rate" data-rate>
          <p class="text-[15px] text-faded">Rate of the trend</p>
          <span class="figure text-4xl leading-tight font-bold">{{
            formatMassChange(reading.rate.perWeek, units, 2)
          }}</span>
          <span class="ml-1.5 text-faded">
            {{ units.mass }} a week, ± <span class="figure">{{ formatMass(reading.rate.error, units, 2) }}</span>
          </span>
        </div>
      </div>
      <LazyDiaryChart
        v-if="reading.points.length > 1"
        class="mt-2 h-80"
        :points="reading.points"
        :visits="visits"
        :units="units"
      />
      <p v-else class="py-4 text-faded">No diary yet. A daily weight tells a change from a day’s water.</p>
      <ScrollTable v-if="beside.length > 0" label="Check-ins beside the mean of their week">
        <table class="ruled mt-3 max-w-2xl">
          <thead>
            <tr>
              <th scope="col">Check-in</th>
              <th scope="col" class="right">Weighed at the visit</th>
              <th scope="col" class="right">Mean of its week</th>
              <th scope="col" class="right">Apart</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="visit in beside" :key="visit.id" :data-beside="visit.id">
              <td class="!py-1">{{ sayDay(visit.at) }}</td>
              <td class="figure right !py-1">{{ formatMass(visit.weightKg, units) }}</td>
              <td class="figure right !py-1 font-bold">
                {{ formatMass(visit.week?.weightKg ?? 0, units) }}
                <span class="text-sm font-normal text-faded">of {{ visit.week?.count }}</span>
              </td>
              <td class="figure right !py-1">
                {{ formatMassChange(visit.weightKg - (visit.week?.weightKg ?? 0), units) }}
              </td>
            </tr>
          </tbody>
        </table></ScrollTable
      >
    </section>
    <section class="grid content-start gap-4 bg-sheet px-4 py-4 sm:px-6" aria-labelledby="weigh-ins">
      <div class="flex items-baseline">
        <h2 id="weigh-ins" class="font-semibold">
          Weigh-ins <span class="font-normal text-faded">{{ weighIns.length }} kept</span>
        </h2>
        <button v-if="!pasting" class="ml-auto min-h-9 underline underline-offset-4" @click="pasting = true">
          Paste a diary
        </button>
      </div>
      <DiaryPaste
        v-if="pasting"
        :unit="units.mass"
        :taken="taken"
        :busy="busy"
        :problem="problem"
        @store="storePasted"
        @close="((pasting = false), (problem = null))"
      />
      <template v-else>
        <form class="grid gap-2" @submit.prevent="addTyped">
          <div class="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
            <label class="grid gap-1">
              <span class="text-[15px] font-semibold">Day</span>
              <input v-model="day" type="date" name="weighInDay" class="field" :max="today" required />
            </label>
            <label class="grid gap-1">
              <span class="text-[15px] font-semibold">Weight, {{ units.mass }}</span>
              <input
                v-model="text"
                name="weighIn"
                class="field figure"
                inputmode="decimal"
                :placeholder="scale.shown.value?.device === 'scale' ? formatNumber(scale.shown.value.value) : ''"
              />
            </label>
            <button class="press press-first min-h-11" :disabled="busy">Add</button>
          </div>
          <label class="flex min-h-9 items-center gap-3 text-[15px]">
            <input v-model="dry" type="checkbox" name="dry" class="size-5 accent-ink" />
            Morning, before food and drink, after the toilet, least clothing
          </label>
        </form>
        <p v-if="scale.shown.value?.device === 'scale'" class="text-[15px]">
          The scale shows <span class="figure font-bold">{{ formatNumber(scale.shown.value.value) }} kg</span>; its
          button keeps it as today’s weight.
        </p>
        <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
        <div
          v-if="newest.length > 0"
          class="max-h-96 overflow-y-auto"
          tabindex="0"
          role="region"
          aria-label="Weigh-ins, the newest first"
        >
          <table class="ruled">
            <tbody>
              <tr v-for="one in newest" :key="one.id" :data-weigh-in="one.day">
                <td class="!py-1">{{ sayDay(one.day) }}</td>
                <td class="figure right !py-1 font-bold">
                  {{ formatMass(massToKg(one.value, one.unit), units) }}
                </td>
                <td class="!py-1 pl-3 text-sm text-faded">
                  {{ one.dry ? '' : 'as it stood; '
                  }}{{ one.unit === units.mass ? '' : `written ${one.value} ${one.unit}; ` }}{{ one.source }}
                </td>
                <td class="right !py-1">
                  <button
                    class="min-h-9 text-[15px] underline underline-offset-4"
                    :aria-label="`Strike ${sayDay(one.day)}`"
                    @click="emit('strike', one.id)"
                  >
                    strike
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </section>
  </div>
</template>
