<script setup lang="ts">
import { conversionOf, EQUATIONS, findEquation, fitsPocketChart, pocketChart, type Sex } from '#core/equations'
import { SITES } from '#core/sites'
import { formatNumber } from '#core/units'

useHead({ title: 'Pocket charts, Oak Pinch' })

const charts = EQUATIONS.filter(fitsPocketChart)
const id = ref(charts[0]?.id ?? '')
const asked = ref<Sex>('female')
const conversion = ref('siri')
const equation = computed(() => findEquation(id.value))
const sex = computed<Sex>(() => (equation.value && equation.value.sex !== 'both' ? equation.value.sex : asked.value))
const chart = computed(() => (equation.value ? pocketChart(equation.value, sex.value, conversion.value) : null))
const folds = computed(() => equation.value?.summed.map((site) => SITES[site].name.toLowerCase()).join(', '))

function print() {
  window.print()
}
</script>

<template>
  <div class="px-4 py-4 sm:px-6">
    <div class="no-print flex flex-wrap items-end gap-4">
      <PickField
        class="w-96 max-w-full"
        label="Equation"
        name="equation"
        :options="charts.map((one) => ({ id: one.id, name: one.label, note: one.source }))"
        :model-value="id"
        @update:model-value="$event && (id = $event)"
      />
      <ChoiceField
        v-if="equation?.sex === 'both'"
        v-model="asked"
        label="Sex"
        name="sex"
        :options="[
          { value: 'female', label: 'Women’s' },
          { value: 'male', label: 'Men’s' },
        ]"
      />
      <ConversionField v-model="conversion" class="w-72 max-w-full" />
      <button class="press press-first ml-auto min-h-11" @click="print">Print for the wall</button>
    </div>
    <section v-if="equation && chart" class="chart mt-4" aria-label="Pocket chart">
      <h2 class="text-xl font-bold">
        {{ equation.label }}<span v-if="equation.sex === 'both'">, {{ sex === 'female' ? 'women' : 'men' }}</span>
      </h2>
      <p class="mb-2 text-[15px] text-faded">
        Percent fat by the sum of {{ folds }}. {{ conversionOf(conversion).label }}. {{ equation.source }}.
      </p>
      <ScrollTable label="Percent fat by sum and age">
        <table class="w-full border-collapse">
          <thead>
            <tr class="border-b-2 border-ink">
              <th scope="col" class="py-1 pr-3 text-right text-sm font-medium text-faded">Sum, mm</th>
              <th
                v-for="age in chart.ages"
                :key="age ?? 'any'"
                scope="col"
                class="figure px-1 py-1 text-right font-semibold"
              >
                {{ age === null ? 'any age' : `${age} y` }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(sum, row) in chart.sums" :key="sum" class="odd:bg-sheet">
              <th scope="row" class="figure py-0 leading-[1.3] pr-3 text-right font-bold text-sum">{{ sum }}</th>
              <td
                v-for="(age, column) in chart.ages"
                :key="age ?? 'any'"
                class="figure px-1 py-0 leading-[1.3] text-right"
              >
                {{ chart.percents[row]?.[column] === null ? '·' : formatNumber(chart.percents[row]?.[column] ?? 0, 1) }}
              </td>
            </tr>
          </tbody>
        </table>
      </ScrollTable>
      <p class="mt-2 text-sm text-faded">
        A person may sit {{ equation.seePercent[sex] ?? 'some' }} points from the line; the sum needs no equation. ·
        means the equation gives no percent there. Follow change, not a single figure.
      </p>
    </section>
  </div>
</template>

<style scoped>
@media print {
  .chart {
    font-size: 10.5pt;
  }
  .chart td,
  .chart th {
    border-bottom: 0.5pt solid #bbb;
  }
}
</style>
