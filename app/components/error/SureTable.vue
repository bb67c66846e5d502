<script setup lang="ts">
import { oddsSentence, PROMISE, unitOf, type Change, type FigureId, type Span } from '#core/following'
import { formatChange, kgToMass, type Units } from '#core/units'

/** How sure each change is: the best estimate from all check-ins with its interval, and the odds in words. */
const props = defineProps<{ span: Span; units: Units; neutral: boolean }>()

const NAMES: [FigureId, string][] = [
  ['fat', 'Fat'],
  ['sum', 'Sum of folds'],
  ['lean', 'Lean'],
  ['weight', 'Weight'],
  ['week-weight', 'Weight, mean of the week'],
  ['percent', 'Fat, percent'],
]
const changeOf = (figure: FigureId): Change | null =>
  figure === 'week-weight' ? props.span.week : props.span[figure as 'fat' | 'sum' | 'lean' | 'weight' | 'percent']
const rows = computed(() =>
  NAMES.flatMap(([figure, name]) => {
    const change = changeOf(figure)
    if (!change || (props.neutral && figure !== 'sum')) return []
    const { differenceUnit: unit } = unitOf(figure, props.units)
    const isMass = figure !== 'sum' && figure !== 'percent'
    const say = (value: number) => formatChange(isMass ? kgToMass(value, props.units.mass) : value)
    return [{ figure, name, unit, change, best: say(change.change), low: say(change.low), high: say(change.high) }]
  }),
)
const visits = computed(() => Math.max(0, ...rows.value.map(({ change }) => change.visits)))
</script>

<template>
  <section v-if="rows.length > 0" aria-labelledby="best-estimate" data-sure>
    <h2 id="best-estimate" class="font-semibold">
      Best estimate from {{ visits === 2 ? 'both' : `all ${visits}` }} check-ins
      <span class="font-normal text-faded">with its 95 % interval</span>
    </h2>
    <ScrollTable label="Best estimate of each change">
      <table class="ruled mt-2">
        <thead>
          <tr>
            <th scope="col">Figure</th>
            <th scope="col" class="right">Change</th>
            <th scope="col" class="right">95 % interval</th>
            <th scope="col">How likely</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.figure" :data-sure-of="row.figure">
            <td class="!py-1 font-semibold">{{ row.name }}</td>
            <td class="figure right !py-1 font-bold whitespace-nowrap" data-best>{{ row.best }} {{ row.unit }}</td>
            <td class="figure right !py-1 whitespace-nowrap" data-interval>{{ row.low }} to {{ row.high }}</td>
            <td class="!py-1 text-[15px]">
              <VerdictMark :change="row.change" /><span class="block text-sm text-faded" data-odds>{{
                oddsSentence(row.change.odds)
              }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </ScrollTable>
    <p class="mt-2 text-sm text-faded">{{ PROMISE }}</p>
  </section>
</template>
