<script setup lang="ts">
import { addDays, daysBetween } from '#core/calendar'
import { parseIntake, type BodyTarget, type ForecastPoint } from '#core/energy'
import { endFigures } from '#core/following'
import {
  formatMass,
  formatMassChange,
  formatNumber,
  kgToMass,
  massToKg,
  parseMass,
  parseNumber,
  type Units,
} from '#core/units'
import type { EnergyFacts } from '#shared/energy'
import type { Client } from '#shared/schemas/client'
import type { PlanInput } from '#shared/schemas/plan'
import { fatAtPercent, intakeToReach, whatIf } from '#shared/what-if'
import type { ForecastWorker } from '~/workers/forecast'
import { v7 as uuid } from 'uuid'

const LazyForecastChart = defineAsyncComponent(() => import('./ForecastChart.vue'))

/** What an intake comes to: course with its band, limits, arrival, the rule of thumb; kept as a plan where it may be. */
const props = defineProps<{
  facts: EnergyFacts
  client: Client
  units: Units
  busy: boolean
  /** Keeps a plan; gives whether it worked. */
  keep: (plan: PlanInput) => Promise<boolean>
}>()
const emit = defineEmits<{ intake: [kcal: number | null] }>()

const KINDS = [
  { id: 'weight' as const, name: 'weight' },
  { id: 'fat' as const, name: 'fat' },
  { id: 'percent' as const, name: 'percent' },
]
const BREAKS = [
  { id: 0, name: 'none' },
  { id: 6, name: 'after every 6 weeks' },
  { id: 8, name: 'after every 8 weeks' },
  { id: 12, name: 'after every 12 weeks' },
]
// Rounded up: a little under balance would be a deficit, which some may not even open on.
const balance = Math.ceil((props.facts.believed?.value ?? 2000) / 10) * 10
const typed = reactive({ kcal: String(balance), value: '', byDay: '' })
const kind = ref<'weight' | 'fat' | 'percent' | null>('weight')
const breakEvery = ref(0)
const today = todayHere()

const eaten = computed(() => parseIntake(typed.kcal))
const own = computed(() => endFigures(props.facts.end))
/** The target in the kind's own unit, or what is wrong with it. */
const target = computed<{ value: number; body: BodyTarget } | { problem: string } | null>(() => {
  if (typed.value.trim() === '' || !kind.value) return null
  if (kind.value === 'percent') {
    const percent = parseNumber(typed.value.replace('%', ''))
    const body = percent > 0 && percent < 75 ? fatAtPercent(props.facts, percent) : null
    return body ? { value: percent, body } : { problem: 'A percent, such as 18.' }
  }
  const parsed = parseMass(typed.value, props.units.mass)
  if (parsed.kind !== 'value') return { problem: parsed.sentence }
  const kg = massToKg(parsed.value, parsed.unit)
  return { value: kg, body: { of: kind.value, kg } }
})
const body = computed(() => (target.value && 'body' in target.value ? target.value.body : null))
const about = computed(() => ({ person: props.client, today, units: props.units }))
const found = computed(() =>
  'kcal' in eaten.value
    ? whatIf(
        props.facts,
        { kcal: eaten.value.kcal, breakEvery: breakEvery.value || null, target: body.value },
        about.value,
      )
    : null,
)
watch(found, (now) => emit('intake', now && !now.stopped ? now.plan.kcal : null), { immediate: true })

/** A target the way it goes cannot reach. */
const targetProblem = computed(() => {
  if (target.value && 'problem' in target.value) return target.value.problem
  const now = found.value
  if (!body.value || !now || now.stopped || now.arrives !== null) return undefined
  const from = body.value.of === 'fat' ? now.start.fatKg.value : now.start.weightKg.value
  const more = body.value.kg > from
  const fed = now.plan.kcal > now.energy.dailyKcal
  if (more !== fed)
    return more ? 'That is above today, and this intake loses.' : 'That is below today, and this intake gains.'
  return 'Not reached within two years with this intake.'
})

const dayProblem = ref<string | undefined>()
/** The intake for the target by the day typed. */
function solve() {
  dayProblem.value = undefined
  const days = /^\d{4}-\d\d-\d\d$/.test(typed.byDay) ? daysBetween(today, typed.byDay) : NaN
  if (!body.value) return void (dayProblem.value = 'Give the target first.')
  if (!(days >= 7)) return void (dayProblem.value = 'Give a day a week or more from today.')
  const kcal = intakeToReach(props.facts, body.value, days, breakEvery.value || null)
  if (kcal === null) return void (dayProblem.value = 'No intake reaches it by then.')
  typed.kcal = String(Math.max(0, Math.round(kcal)))
}

const { run } = useWorker<ForecastWorker>(
  () => new Worker(new URL('../../workers/forecast.ts', import.meta.url), { type: 'module' }),
)
const points = shallowRef<ForecastPoint[]>([])
let asked = 0
watchDebounced(
  found,
  async (now) => {
    asked += 1
    const own = asked
    if (!now || now.stopped) return void (points.value = [])
    const plain = JSON.parse(JSON.stringify({ start: now.start, plan: now.plan, days: now.days })) as typeof now
    const band = await run((worker) => worker.forecast(plain.start, plain.plan, plain.days))
    if (own === asked) points.value = band
  },
  { immediate: true, debounce: 120 },
)

const table = computed(() => {
  const now = found.value
  if (!now || now.stopped) return []
  const step = Math.max(1, Math.ceil((now.days.length - 1) / 8))
  return now.course
    .map((point, i) => ({ ...point, band: points.value[i], day: point.day }))
    .filter((_, i) => i % step === 0 || i === now.course.length - 1)
})
/** What water and glycogen take of the first week; null: next to nothing. */
const water = computed(() => {
  const first = found.value?.course.find(({ day }) => day === 7)
  const kg = first ? first.scaleKg - first.weightKg : 0
  return Math.abs(kg) < 0.1 ? null : kg
})
const kcalSaid = (kcal: number) => Math.round(kcal).toLocaleString('en-US')

async function keepIt() {
  const now = found.value
  const given = target.value
  if (!now || !given || !('value' in given) || now.arrives === null || !kind.value) return
  const mass = kind.value !== 'percent'
  const from = { weight: own.value.weight, fat: own.value.fat, percent: own.value.percent }[kind.value]?.value ?? 0
  const shown = (value: number) => (mass ? kgToMass(value, props.units.mass) : value)
  await props.keep({
    id: uuid(),
    checkinId: props.facts.end.record.id,
    kind: kind.value,
    value: shown(given.value),
    perWeek: Math.max(1e-3, (7 * Math.abs(shown(from) - shown(given.value))) / Math.max(1, now.arrives)),
    unit: mass ? props.units.mass : '%',
    byDay: /^\d{4}-\d\d-\d\d$/.test(typed.byDay) ? typed.byDay : null,
    energy: now.energy,
  })
}
</script>

<template>
  <div class="grid gap-3" data-what-if>
    <div class="grid items-start gap-3 sm:grid-cols-2">
      <TextField
        v-model="typed.kcal"
        label="Eats, kcal a day"
        name="eats"
        class="figure"
        inputmode="numeric"
        autocomplete="off"
        :problem="'problem' in eaten ? eaten.problem : undefined"
      />
      <ListField v-model="breakEvery" label="Weeks at balance" name="breaks" :options="BREAKS" />
      <div class="grid content-start gap-2">
        <TextField
          v-model="typed.value"
          :label="`Target, ${kind === 'percent' ? '%' : units.mass}, if any`"
          name="goal"
          class="figure"
          inputmode="decimal"
          autocomplete="off"
          :problem="targetProblem"
        />
        <PressGroup v-model="kind" label="The target is" :options="KINDS" />
      </div>
      <div class="grid content-start gap-2">
        <TextField
          v-model="typed.byDay"
          label="By a day that does not move"
          name="goalDay"
          type="date"
          :min="today"
          :problem="dayProblem"
        />
        <div><button type="button" class="press" data-solve @click="solve">Intake for it</button></div>
      </div>
    </div>
    <template v-if="found">
      <ul v-if="found.limits.length > 0" class="grid gap-2" data-limits>
        <li
          v-for="limit in found.limits"
          :key="limit.code"
          class="border-l-4 pl-3"
          :class="limit.stop ? 'border-alert font-semibold' : 'border-rule'"
          :role="limit.stop ? 'alert' : undefined"
          :data-limit="limit.code"
        >
          {{ limit.sentence }}
        </li>
      </ul>
      <template v-if="!found.stopped">
        <p v-if="found.arrives !== null" class="text-lg" data-arrives>
          There about <strong>{{ sayDay(addDays(today, found.arrives)) }}</strong>, after
          <span class="figure">{{ Math.round(found.arrives / 7) }}</span> weeks.
        </p>
        <LazyForecastChart class="h-72" :found="found" :points="points" :units="units" />
        <p class="flex flex-wrap gap-x-5 text-sm text-faded" aria-hidden="true">
          <span><span class="inline-block h-1 w-6 bg-weight align-middle" /> on the scale, 95 % of readings</span>
          <span v-if="found.rule"
            ><span class="inline-block w-6 border-t-2 border-dashed border-faded align-middle" /> rule of thumb</span
          >
          <span v-for="other in found.others" :key="other.id">
            <span class="inline-block h-1 w-6 align-middle" :class="other.id === 'eat-less' ? 'bg-fat' : 'bg-lean'" />
            {{ other.id === 'eat-less' ? '200 kcal less' : 'two hours of training more' }}
          </span>
        </p>
        <p v-if="found.rule" class="text-[15px]" data-rule>
          The rule of thumb says {{ formatMassChange(found.rule.ruleKg, units) }} {{ units.mass }} by then, the model
          {{ formatMassChange(found.rule.modelKg, units) }}:
          {{
            found.rule.partsOnDay === null
              ? 'they stay within a tenth of each other.'
              : `from week ${Math.ceil(found.rule.partsOnDay / 7)} on they part by over a tenth, because a smaller body needs less.`
          }}
        </p>
        <ScrollTable label="The forecast week by week">
          <table class="ruled">
            <thead>
              <tr>
                <th scope="col">Week</th>
                <th scope="col">About</th>
                <th scope="col" class="right">On the scale, {{ units.mass }}</th>
                <th scope="col" class="right">95 % band</th>
                <th scope="col" class="right">Fat</th>
                <th scope="col" class="right">Lean</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in table" :key="row.day">
                <td class="figure !py-1">{{ Math.round(row.day / 7) }}</td>
                <td class="!py-1 whitespace-nowrap">{{ sayDay(addDays(today, row.day)) }}</td>
                <td class="figure right !py-1 font-bold">{{ formatMass(row.scaleKg, units) }}</td>
                <td class="right !py-1 whitespace-nowrap text-faded">
                  <template v-if="row.band">
                    <span class="figure block leading-5"
                      >{{ formatMass(row.band.scaleLow, units) }} to {{ formatMass(row.band.scaleHigh, units) }}</span
                    >
                    <span class="block text-sm leading-5"
                      >tissue
                      <span class="figure"
                        >{{ formatMass(row.band.weightLow, units) }} to
                        {{ formatMass(row.band.weightHigh, units) }}</span
                      ></span
                    >
                  </template>
                </td>
                <td class="figure right !py-1">{{ formatMass(row.fatKg, units) }}</td>
                <td class="figure right !py-1">{{ formatMass(row.leanKg, units) }}</td>
              </tr>
            </tbody>
          </table>
        </ScrollTable>
        <p v-if="water !== null" class="text-[15px]" data-water>
          Of the first week’s change about {{ formatMassChange(water, units) }} {{ units.mass }} is water and glycogen:
          it comes back with eating as before.
        </p>
        <p class="text-sm text-faded">
          Balance is {{ kcalSaid(found.energy.dailyKcal) }} kcal a day today. Training that keeps lean mass and protein
          are outside the model: its split of fat and lean is a default.
          <template v-if="facts.split">
            Their own so far: {{ formatNumber(100 * facts.split.share, 0) }} % of the change of weight was fat ({{
              formatNumber(100 * facts.split.low, 0)
            }}
            to {{ formatNumber(100 * facts.split.high, 0) }} %).
          </template>
        </p>
        <div v-if="found.arrives !== null">
          <button type="button" class="press press-first" :disabled="busy" data-keep-plan @click="keepIt">
            Keep as the plan
          </button>
        </div>
      </template>
    </template>
    <p v-else-if="'kcal' in eaten" class="text-faded">
      A forecast needs a check-in with percent fat, and somebody to say how active the client is.
    </p>
  </div>
</template>
