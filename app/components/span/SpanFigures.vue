<script setup lang="ts">
import { familyOf, type Change, type EndFigures, type Noises, type Span } from '#core/following'
import { isFold, SITES } from '#core/sites'
import {
  cmToLength,
  formatChange,
  formatMass,
  formatMassChange,
  formatNumber,
  formatTape,
  type Units,
} from '#core/units'
import type { FollowedEnd } from '#shared/following'

/** The five figures of the span, in the person's units. In neutral mode the sum alone. */
const props = defineProps<{
  figures: EndFigures
  span: Span | null
  now: FollowedEnd
  units: Units
  neutral: boolean
  /** The change is still being judged. */
  judging: boolean
  noises: Noises
}>()

const assumed = computed(() => {
  const family = familyOf(props.figures.sum ? 'sum' : 'weight')
  return props.noises[family].learntFrom.clients === 0
})

const instead = computed(() => {
  if (props.judging) return '…'
  if (!props.span) return 'first check-in'
  if (props.span.days === 0) return 'same day'
  return props.span.comparability.percent ? 'not known then' : 'not compared'
})

/** A change with its interval as text. */
function said(change: Change | null, say: (value: number) => string) {
  const { change: by, low, high } = change ?? {}
  const text = (value: number | undefined) => (value === undefined ? null : say(value))
  return { verdict: change, change: text(by), low: text(low), high: text(high) }
}
const mass = (change: Change | null) => said(change, (kg) => formatMassChange(kg, props.units))
const plain = (change: Change | null) => said(change, (value) => formatChange(value, 1))

/** The sum of the folds both ends hold, else of this check-in's own. */
const sumName = computed(() => {
  const { protocol } = props.now.facts
  const shared = props.span?.summed.length ?? 0
  const [only] = props.span?.summed ?? []
  const own = props.now.result.session.sites.filter(({ site }) => props.span?.summed.includes(site)).length
  if (!props.span?.sum || shared === foldCount.value || own !== shared) return protocol.sumName
  return shared === 1 && only ? `${SITES[only].name} alone` : `Sum of the ${shared} shared`
})
const foldCount = computed(() => props.now.result.session.sites.filter(({ site }) => isFold(site)).length)

/** Girths a tape set is followed by, the most telling first, and the waist's share of the height. */
const girths = computed(() => {
  const { span, now, units } = props
  const { values, indexes } = now.result
  const order = [
    'waist',
    'waist-mid',
    'abdomen',
    'hip',
    'arm-relaxed',
    'mid-thigh-girth',
    'thigh-girth',
    'calf-girth',
    'neck',
  ] as const
  const tiles = order.flatMap((site) => {
    const cm = values[site]
    if (cm === undefined) return []
    const change = span?.girths.find((one) => one.site === site)?.change ?? null
    return [
      {
        id: site,
        name: SITES[site].name,
        colour: 'text-girth',
        unit: units.length,
        value: formatTape(cm, units),
        ...said(change, (by) => formatChange(cmToLength(by, units.length))),
      },
    ]
  })
  const share = indexes.waistToHeight
  if (share === null) return tiles
  const ratio = {
    id: 'waist-to-height',
    name: 'Waist to height',
    colour: 'text-girth',
    unit: '',
    value: formatNumber(share, 2),
  }
  return [...tiles.slice(0, 1), { ...ratio, ...said(null, String) }, ...tiles.slice(1)]
})

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
  const own = all.filter(({ id }) => !neutral || id === 'sum')
  // Without folds what the tape yields takes the places nothing is known for.
  return foldCount.value > 0
    ? own
    : [...own.filter(({ value }) => value !== null), ...girths.value].slice(0, own.length + 1)
})

const band = computed(() => {
  const { estimate } = props.now.result
  return estimate && 'percent' in estimate ? estimate.band : null
})
</script>

<template>
  <dl
    class="grid grid-cols-2 border-b border-rule sm:grid-cols-3 lg:grid-cols-5 print:grid-cols-5 max-lg:[&>div]:border-b lg:[&>div+div]:border-l"
    :class="{ five: shown.length === 5 }"
    data-figures
  >
    <SpanFigure
      v-for="one in shown"
      :key="one.id"
      v-bind="one"
      :instead="instead"
      :judging="judging"
      :assumed="assumed"
    >
      <template v-if="one.id === 'percent' && band" #beside>
        <span class="whitespace-nowrap print:hidden" title="Two people in three with these folds sit in this band">
          · level <span class="figure">{{ formatNumber(band.low, 0) }}–{{ formatNumber(band.high, 0) }}</span>
        </span>
      </template>
    </SpanFigure>
  </dl>
</template>

<style scoped>
/* Five figures upright on a tablet: three and two, each row whole. */
@media (min-width: 640px) and (max-width: 1023px) {
  .five {
    grid-template-columns: repeat(6, minmax(0, 1fr));
  }
  .five > div {
    grid-column: span 2;
  }
  .five > div:nth-child(n + 4) {
    grid-column: span 3;
  }
}
</style>
