<script setup lang="ts">
import { labelProblems, NUTRIENTS, readLabel, type Label, type Nutrient } from '#core/energy'
import { parseNumber } from '#core/units'

/** Reads a food's label: kcal and share of each nutrient, and whether the grams come to what is stated. */
const typed = reactive({
  servingG: '',
  servings: '1',
  statedKcal: '',
  protein: '',
  fat: '',
  carbohydrate: '',
  alcohol: '',
})
type Field = keyof typeof typed
const NAMES: Record<Nutrient, string> = {
  protein: 'Protein, g',
  fat: 'Fat, g',
  carbohydrate: 'Carbohydrate, g',
  alcohol: 'Alcohol, g',
}

/** What stands in a field as a number; null: nothing; NaN: no number. */
function numberIn(field: Field): number | null {
  const text = typed[field].trim()
  if (text === '') return null
  const value = parseNumber(text)
  return value >= 0 ? value : NaN
}
const label = computed<Label>(() => ({
  servingG: numberIn('servingG'),
  servings: numberIn('servings') ?? 1,
  statedKcal: numberIn('statedKcal'),
  grams: Object.fromEntries(NUTRIENTS.map((one) => [one, numberIn(one) ?? 0])) as Label['grams'],
}))
const problems = computed<Partial<Record<Field, string>>>(() => {
  const unread = (Object.keys(typed) as Field[]).filter((field) => Number.isNaN(numberIn(field)))
  if (unread.length > 0) return Object.fromEntries(unread.map((field) => [field, 'A number, such as 12 or 12.5.']))
  return labelProblems(label.value)
})
const read = computed(() => {
  const given = NUTRIENTS.some((one) => numberIn(one) !== null)
  return given && Object.keys(problems.value).length === 0 ? readLabel(label.value) : null
})
const whole = (value: number) => Math.round(value).toLocaleString('en-US')
</script>

<template>
  <div class="grid gap-x-12 gap-y-6 lg:grid-cols-2" data-label>
    <div class="grid content-start gap-4">
      <div class="grid items-start gap-3 sm:grid-cols-3">
        <TextField
          v-model="typed.servingG"
          label="Serving, g"
          name="servingG"
          class="figure"
          inputmode="decimal"
          :problem="problems.servingG"
        />
        <TextField
          v-model="typed.statedKcal"
          label="Stated, kcal"
          name="statedKcal"
          class="figure"
          inputmode="decimal"
          :problem="problems.statedKcal"
        />
        <TextField
          v-model="typed.servings"
          label="Servings eaten"
          name="servings"
          class="figure"
          inputmode="decimal"
          :problem="problems.servings"
        />
      </div>
      <div class="grid items-start gap-3 sm:grid-cols-2">
        <TextField
          v-for="nutrient in NUTRIENTS"
          :key="nutrient"
          v-model="typed[nutrient]"
          :label="NAMES[nutrient]"
          :name="`label-${nutrient}`"
          class="figure"
          inputmode="decimal"
          :problem="problems[nutrient]"
        />
      </div>
      <p class="text-sm text-faded">
        Grams of one serving as printed; kJ by 4.184 are kcal. Fat holds 9 kcal a gram, protein and carbohydrate 4,
        alcohol 7.
      </p>
    </div>
    <div aria-live="polite">
      <template v-if="read">
        <p class="text-weight">
          <span class="figure text-5xl font-bold" data-label-kcal>{{ whole(read.statedKcal ?? read.totalKcal) }}</span>
          <span class="ml-1.5 text-faded"
            >kcal eaten{{ read.statedKcal === null ? ', by the grams' : ', as stated' }}</span
          >
        </p>
        <table class="ruled mt-2 max-w-md">
          <thead>
            <tr>
              <th scope="col">Nutrient</th>
              <th scope="col" class="right">kcal</th>
              <th scope="col" class="right">Share of kcal</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="nutrient in NUTRIENTS" :key="nutrient" :data-share="nutrient">
              <td class="!py-1">{{ NAMES[nutrient].replace(', g', '') }}</td>
              <td class="figure right !py-1">{{ whole(read.kcal[nutrient]) }}</td>
              <td class="figure right !py-1 font-bold">{{ Math.round(100 * read.share[nutrient]) }} %</td>
            </tr>
          </tbody>
        </table>
        <p v-for="note in read.notes" :key="note" class="mt-2 border-l-4 border-alert pl-3" data-label-note>
          {{ note }}
        </p>
        <p class="mt-2 text-sm text-faded">
          A share of kcal is not the “percent of a daily value” that stands on the label.
        </p>
      </template>
      <p v-else class="text-faded">Give the grams of a serving, and its shares show here.</p>
    </div>
  </div>
</template>
