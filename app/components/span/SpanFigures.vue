<script setup lang="ts">
import type { EndFigures, Span } from '#core/composition'
import type { Change } from '#core/error'
import { formatChange, formatMass, formatMassChange, formatNumber, type Units } from '#core/units'
import { isFold } from '#core/sites'
import type { FollowedEnd } from '#shared/following'

/** The five figures of the span, in the person's units. In neutral mode the sum alone. */
const props = defineProps<{
  figures: EndFigures
  span: Span | null
  now: FollowedEnd
  units: Units
  neutral: boolean
}>()

const instead = computed(() => {
  if (!props.span) return 'first check-in'
  return props.span.comparability.percent ? 'not known then' : 'not compared'
})

function mass(change: Change | null) {
  return {
    verdict: change,
    change: change && formatMassChange(change.change, props.units),
    error: change && formatMass(change.error, props.units),
  }
}

function plain(change: Change | null) {
  return {
    verdict: change,
    change: change && formatChange(change.change, 1),
    error: change && formatNumber(change.error, 1),
  }
}

/** The sum of the folds both ends hold, else of this check-in's own. */
const sumName = computed(() => {
  const { protocol } = props.now.facts
  const shared = props.span?.summed.length ?? 0
  const own = props.now.result.session.sites.filter(({ site }) => props.span?.summed.includes(site)).length
  return props.span?.sum && shared < foldCount.value && own === shared
    ? `Sum of the ${shared} shared`
    : protocol.sumName
})
const foldCount = computed(() => props.now.result.session.sites.filter(({ site }) => isFold(site)).length)

const shown = computed(() => {
  const { figures, span, units, neutral } = props
  const kg = (value: number | undefined) => (value === undefined ? null : formatMass(value, units))
  const sum = span?.sum?.now ?? figures.sum?.value
  const all = [
    {
      id: 'fat',
      name: 'Fat',
      colour: 'text-fat',
      unit: units.mass,
      value: kg(figures.fat?.value),
      ...mass(span?.fat ?? null),
    },
    {
      id: 'lean',
      name: 'Lean',
      colour: 'text-lean',
      unit: units.mass,
      value: kg(figures.lean?.value),
      ...mass(span?.lean ?? null),
    },
    {
      id: 'sum',
      name: sumName.value,
      colour: 'text-sum',
      unit: 'mm',
      value: sum === undefined ? null : formatNumber(sum, 1),
      ...plain(span?.sum ?? null),
    },
    {
      id: 'weight',
      name: span?.byWeek || (!span && props.now.week) ? 'Weight, week' : 'Weight',
      colour: 'text-weight',
      unit: units.mass,
      value: kg(figures.weight?.value),
      ...mass(span?.weight ?? null),
    },
    {
      id: 'percent',
      name: 'Fat, percent',
      colour: 'text-fat',
      unit: '%',
      value: figures.percent ? formatNumber(figures.percent.value, 1) : null,
      ...plain(span?.percent ?? null),
    },
  ]
  return all.filter(({ id }) => !neutral || id === 'sum')
})

const band = computed(() => {
  const { estimate } = props.now.result
  return estimate && 'percent' in estimate ? estimate.band : null
})
</script>

<template>
  <dl
    class="grid grid-cols-2 border-b border-rule sm:grid-cols-3 lg:grid-cols-5 print:grid-cols-5 max-lg:[&>div]:border-b lg:[&>div+div]:border-l"
    data-figures
  >
    <SpanFigure v-for="one in shown" :key="one.id" v-bind="one" :instead="instead">
      <template v-if="one.id === 'percent' && band" #beside>
        <span class="whitespace-nowrap print:hidden" title="Two people in three with these folds sit in this band">
          · level <span class="figure">{{ formatNumber(band.low, 0) }}–{{ formatNumber(band.high, 0) }}</span>
        </span>
      </template>
    </SpanFigure>
  </dl>
</template>
