<script setup lang="ts">
import { NUTRIENTS, splitDay, usualCarbohydrate, type GramRange, type Nutrient } from '#core/energy'
import { parseNumber } from '#core/units'

/** A day's kcal as grams, shares and plain words. */
const props = defineProps<{
  kcal: number
  weightKg: number
  leanKg: number | null
  /** Usual protein of this person; left out: nobody in particular. */
  usual?: GramRange
  /** Hours of training a day; null: not said. */
  hours?: number | null
  kidney?: boolean
}>()
const carbohydrate = computed(() => usualCarbohydrate(props.hours ?? 0))
const middle = (one: GramRange) => ((one.low + one.high) / 2).toFixed(1)

const typed = reactive({
  protein: props.usual ? middle(props.usual) : '1.6',
  fat: '30',
  carbohydrate: middle(carbohydrate.value),
  alcohol: '',
})
const basis = ref<'weight' | 'lean' | null>(props.usual?.of ?? 'weight')
const rest = ref<'rest' | 'per-kg' | null>('rest')
const BASES = computed(() => [
  { id: 'weight' as const, name: 'by weight' },
  ...(props.leanKg === null ? [] : [{ id: 'lean' as const, name: 'by lean mass' }]),
])
const RESTS = [
  { id: 'rest' as const, name: 'carbohydrate the rest' },
  { id: 'per-kg' as const, name: 'by weight, endurance' },
]
const numberOf = (text: string) => (text.trim() === '' ? 0 : parseNumber(text))
const bounds = { protein: [0.3, 5], fat: [5, 80], carbohydrate: [0.5, 15], alcohol: [0, 200] } as const
const problems = computed(() => {
  const found: Partial<Record<keyof typeof typed, string>> = {}
  for (const [name, [low, high]] of Object.entries(bounds) as [keyof typeof typed, readonly [number, number]][]) {
    const value = numberOf(typed[name])
    if (!(value >= low && value <= high)) found[name] = `From ${low} to ${high}.`
  }
  return found
})
const used = computed<(keyof typeof typed)[]>(() => [
  'protein',
  'alcohol',
  rest.value === 'per-kg' ? 'carbohydrate' : 'fat',
])
const answer = computed(() => {
  if (used.value.some((name) => problems.value[name])) return null
  return splitDay({
    kcal: props.kcal,
    weightKg: props.weightKg,
    leanKg: props.leanKg,
    protein: { perKg: numberOf(typed.protein), of: basis.value ?? 'weight' },
    fatShare: numberOf(typed.fat) / 100,
    carbohydrate: rest.value === 'per-kg' ? { kind: 'per-kg', perKg: numberOf(typed.carbohydrate) } : { kind: 'rest' },
    alcoholG: numberOf(typed.alcohol),
    ...(props.usual ? { usual: props.usual } : {}),
    kidney: props.kidney,
  })
})
const NAMES: Record<Nutrient, string> = {
  protein: 'Protein',
  fat: 'Fat',
  carbohydrate: 'Carbohydrate',
  alcohol: 'Alcohol',
}
const rows = computed(() => {
  const mix = answer.value?.mix
  return mix
    ? NUTRIENTS.filter((one) => one !== 'alcohol' || mix.grams.alcohol > 0).map((one) => ({
        id: one,
        name: NAMES[one],
        grams: mix.grams[one],
        kcal: mix.kcal[one],
        share: mix.share[one],
      }))
    : []
})
/** Grams by the hand: a palm of protein food 25 g, a fist of grains, potatoes or fruit 30 g, a thumb of fat 10 g (common practice). */
const hands = computed(() => {
  const mix = answer.value?.mix
  if (!mix) return null
  const count = (grams: number, each: number) => Math.max(0, Math.round(grams / each))
  return {
    palms: count(mix.grams.protein, 25),
    fists: count(mix.grams.carbohydrate, 30),
    thumbs: count(mix.grams.fat, 10),
  }
})
const whole = (value: number) => Math.round(value).toLocaleString('en-US')
</script>

<template>
  <div class="grid gap-3" data-macros>
    <div class="grid items-start gap-3 sm:grid-cols-3">
      <TextField
        v-model="typed.protein"
        label="Protein, g/kg"
        name="protein"
        class="figure"
        inputmode="decimal"
        :problem="problems.protein"
      />
      <TextField
        v-if="rest === 'rest'"
        v-model="typed.fat"
        label="Fat, % of kcal"
        name="fatShare"
        class="figure"
        inputmode="decimal"
        :problem="problems.fat"
      />
      <TextField
        v-else
        v-model="typed.carbohydrate"
        label="Carbohydrate, g/kg"
        name="carbohydrate"
        class="figure"
        inputmode="decimal"
        :problem="problems.carbohydrate"
      />
      <TextField
        v-model="typed.alcohol"
        label="Alcohol, g"
        name="alcohol"
        class="figure"
        inputmode="decimal"
        :problem="problems.alcohol"
      />
    </div>
    <div class="flex flex-wrap gap-x-6 gap-y-2">
      <PressGroup v-if="BASES.length > 1" v-model="basis" label="Protein is counted" :options="BASES">
        <span class="text-[15px]">Protein</span>
      </PressGroup>
      <PressGroup v-model="rest" label="Carbohydrate is" :options="RESTS" />
    </div>
    <template v-if="answer">
      <p v-if="answer.mix === null" role="alert" class="border-l-4 border-alert pl-3 font-semibold" data-no-mix>
        {{ answer.problem }}
      </p>
      <template v-else>
        <table class="ruled max-w-xl">
          <thead>
            <tr>
              <th scope="col">Of {{ whole(kcal) }} kcal</th>
              <th scope="col" class="right">g a day</th>
              <th scope="col" class="right">kcal</th>
              <th scope="col" class="right">Share</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.id" :data-nutrient="row.id">
              <td class="!py-1">{{ row.name }}</td>
              <td class="figure right !py-1 text-lg font-bold">{{ whole(row.grams) }}</td>
              <td class="figure right !py-1">{{ whole(row.kcal) }}</td>
              <td class="figure right !py-1">{{ Math.round(100 * row.share) }} %</td>
            </tr>
          </tbody>
        </table>
        <p v-if="hands" class="text-[15px]" data-hands>
          By the hand over a day, about: {{ hands.palms }} palms of meat, fish, eggs, curd or pulses;
          {{ hands.fists }} fists of grains, potatoes or fruit; {{ hands.thumbs }} thumbs of oil, nuts or butter;
          vegetables as wished.
        </p>
        <p v-for="note in answer.notes" :key="note" class="text-[15px]">{{ note }}</p>
      </template>
    </template>
    <p class="text-sm text-faded">
      <template v-if="usual"
        >Usual for {{ usual.why }}: protein {{ usual.low }} to {{ usual.high }} g a kg of
        {{ usual.of === 'lean' ? 'lean mass' : 'body weight' }}.</template
      >
      <template v-else
        >Usual protein, g a kg: adults 0.8 to 1.0, from 65 years 1.0 to 1.2, athletes 1.2 to 2.0, athletes eating less
        than they use 2.3 to 3.1 of lean mass.</template
      >
      Fat 20 to 35 %. Carbohydrate {{ carbohydrate.low }} to {{ carbohydrate.high }} g/kg for {{ carbohydrate.why }}.
    </p>
  </div>
</template>
