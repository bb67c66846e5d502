<script setup lang="ts">
import { RECALLED, type Equation } from '#core/equations'
import { asSite, SITES } from '#core/sites'

const props = defineProps<{ equation: Equation }>()

const needs = computed(() =>
  props.equation.inputs.map((input) => {
    const site = asSite(input)
    return site ? SITES[site].name.toLowerCase() : input
  }),
)
const error = computed(() => {
  const { female, male } = props.equation.seePercent
  if (female === null && male === null) return 'not known here'
  if (female === male) return `${female} points (68 %)`
  return `women ${female} points, men ${male} points (68 %)`
})
const vertex = computed(() => {
  const turn = props.equation.vertex
  if (!turn) return null
  const what = turn.of === 'sum' ? 'a sum of' : `${turn.of} at`
  return `${what} ${turn.at.toFixed(1)} ${turn.of === 'sum' ? 'mm' : 'cm'}`
})
const sums = computed(() => props.equation.sums)
</script>

<template>
  <div>
    <h2 class="text-2xl font-bold">{{ equation.label }}</h2>
    <p class="figure mt-2 overflow-x-auto rounded border border-rule bg-sheet px-3 py-2 text-[15px]" tabindex="0">
      {{ equation.gives === 'density' ? 'density' : 'percent' }} = {{ equation.expression }}
    </p>
    <dl class="mt-3 grid grid-cols-[7rem_1fr] gap-y-1 text-[15px]">
      <dt class="text-faded">Needs</dt>
      <dd>{{ needs.join(', ') }}</dd>
      <dt class="text-faded">Made on</dt>
      <dd>
        {{ equation.sample }}<template v-if="sums">; sums of {{ sums.low }} to {{ sums.high }} mm (recalled)</template>
      </dd>
      <dt class="text-faded">Usual error</dt>
      <dd>{{ error }}</dd>
      <template v-if="vertex">
        <dt class="text-faded">Turns at</dt>
        <dd>{{ vertex }}: from there on it is refused, because a bigger body would read leaner.</dd>
      </template>
      <dt class="text-faded">Source</dt>
      <dd>{{ equation.source }}. {{ equation.population === 'tracking' ? '' : RECALLED }}</dd>
    </dl>
  </div>
</template>
