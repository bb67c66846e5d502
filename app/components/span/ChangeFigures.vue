<script setup lang="ts">
import {
  changeRow,
  figureShown,
  unitOf,
  USUAL_ERROR,
  type Change,
  type EndFigures,
  type FigureId,
  type Span,
} from '#core/following'
import { isFold, SITES } from '#core/sites'
import { formatNumber, formatTape, type Units } from '#core/units'
import type { FollowedEnd } from '#shared/following'

/**
 * What changed: the leading figure large, the others as a table, each by the one row (then, now, difference, sign, why).
 * In neutral mode the sum alone.
 */
const props = defineProps<{
  figures: EndFigures
  span: Span | null
  now: FollowedEnd
  units: Units
  neutral: boolean
  /** The change is still being judged. */
  judging: boolean
  /** In a narrow pane: one under the other. */
  narrow?: boolean
}>()

interface Shown {
  id: string
  figure: FigureId
  name: string
  colour: string
  value: string | null
  unit: string
  change: Change | null
}

const instead = computed(() => {
  if (props.judging) return '…'
  if (!props.span) return 'first check-in'
  if (props.span.days === 0) return 'same day'
  return props.span.comparability.percent ? 'not known then' : 'not compared'
})

const foldCount = computed(() => props.now.result.session.sites.filter(({ site }) => isFold(site)).length)
/** The sum of the folds both ends hold, else of this check-in's own. */
const sumName = computed(() => {
  const { protocol } = props.now.facts
  const shared = props.span?.summed.length ?? 0
  const [only] = props.span?.summed ?? []
  const own = props.now.result.session.sites.filter(({ site }) => props.span?.summed.includes(site)).length
  if (!props.span?.sum || shared === foldCount.value || own !== shared) return protocol.sumName
  return shared === 1 && only ? `${SITES[only].name} alone` : `Sum of the ${shared} shared`
})

const shownAs = (figure: FigureId, value: number | undefined | null) =>
  value === undefined || value === null ? null : figureShown(figure, value, props.units)
function entry(
  figure: FigureId,
  name: string,
  colour: string,
  value: number | undefined,
  change: Change | null,
): Shown {
  const shown = change ? change.now : value
  return { id: figure, figure, name, colour, ...unitOf(figure, props.units), value: shownAs(figure, shown), change }
}

const GIRTHS = [
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
/** Girths a tape set is followed by, the most telling first, and the waist's share of the height. */
const girths = computed(() => {
  const { span, now, units } = props
  const { values, indexes } = now.result
  const rows = GIRTHS.flatMap((site): Shown[] => {
    const cm = values[site]
    if (cm === undefined) return []
    const change = span?.girths.find((one) => one.site === site)?.change ?? null
    const own = entry(site, SITES[site].name, 'text-girth', cm, change)
    return [change ? own : { ...own, value: formatTape(cm, units) }]
  })
  const share = indexes.waistToHeight
  if (share === null) return rows
  const ratio: Shown = {
    id: 'waist-to-height',
    figure: 'waist',
    name: 'Waist to height',
    colour: 'text-girth',
    unit: '',
    value: formatNumber(share, 2),
    change: null,
  }
  return [...rows.slice(0, 1), ratio, ...rows.slice(1)]
})

const shown = computed(() => {
  const { figures, span, neutral, now } = props
  const all = [
    entry('fat', 'Fat', 'text-fat', figures.fat?.value, span?.fat ?? null),
    entry('sum', sumName.value, 'text-sum', figures.sum?.value, span?.sum ?? null),
    entry('lean', 'Lean', 'text-lean', figures.lean?.value, span?.lean ?? null),
    entry('weight', 'Weight', 'text-weight', figures.weight?.value, span?.weight ?? null),
    ...(now.week
      ? [entry('week-weight', 'Weight, mean of the week', 'text-weight', now.week.weightKg, span?.week ?? null)]
      : []),
    entry('percent', 'Fat, percent', 'text-fat', figures.percent?.value, span?.percent ?? null),
  ]
  const own = all.filter(({ id }) => !neutral || id === 'sum')
  // Without folds what the tape yields takes the places nothing is known for.
  return (foldCount.value > 0 ? own : [...own, ...girths.value]).filter(({ value }) => value !== null).slice(0, 6)
})
const rows = computed(() =>
  shown.value.map((one) => ({ ...one, row: one.change && changeRow(one.change, props.units) })),
)
const lead = computed(() => rows.value[0] ?? null)
const others = computed(() => rows.value.slice(1))
const isAssumed = computed(() => rows.value.some(({ row }) => row?.isAssumed))

const band = computed(() => {
  const { estimate } = props.now.result
  return estimate && 'percent' in estimate ? estimate.band : null
})
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] gap-x-10" :class="narrow ? 'narrow' : 'lg:grid-cols-2'" data-figures>
    <div class="grid content-start gap-4">
      <div v-if="lead" :data-figure="lead.id">
        <p class="text-[15px] text-faded">{{ lead.name }}</p>
        <p class="flex flex-wrap items-baseline gap-x-2" :class="lead.colour">
          <template v-if="lead.row">
            <span class="figure text-2xl text-faded" data-then>{{ lead.row.then }}</span>
            <span class="text-xl text-faded" aria-hidden="true">→</span>
            <span class="sr-only">to</span>
          </template>
          <span class="figure text-5xl leading-none font-bold sm:text-6xl" data-now>{{ lead.value }}</span>
          <span class="text-lg text-faded">{{ lead.unit }}</span>
          <span v-if="lead.row" class="figure ml-3 text-3xl leading-none font-bold text-ink" data-change>{{
            lead.row.difference
          }}</span>
          <span v-else class="ml-2 text-faded">{{ instead }}</span>
        </p>
        <p v-if="lead.change && lead.row" class="mt-1 flex flex-wrap items-center gap-x-3">
          <VerdictMark class="text-lg" :change="lead.change" />
          <span class="text-sm text-faded" data-reason>{{ lead.row.reason }}</span>
        </p>
        <p v-else-if="judging" class="mt-1 text-lg">&nbsp;</p>
        <p v-if="isAssumed" class="text-sm text-faded" data-assumed>{{ USUAL_ERROR }}</p>
      </div>
      <slot />
    </div>
    <table v-if="others.length > 0" class="w-full self-start max-lg:mt-3" data-rows>
      <thead class="sr-only">
        <tr>
          <th scope="col">Figure</th>
          <th scope="col">Then</th>
          <th scope="col">Now</th>
          <th scope="col">Difference</th>
          <th scope="col">Sign of change</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in others" :key="one.id" class="row border-b border-rule" :data-figure="one.id">
          <th scope="row" class="py-1 pr-2 text-left text-[15px] font-semibold">
            {{ one.name }}
            <span v-if="one.row" class="block text-xs font-normal text-faded" data-reason>{{ one.row.reason }}</span>
            <span v-else-if="one.id === 'percent' && band" class="block text-xs font-normal text-faded"
              >could be {{ formatNumber(band.low, 0) }} to {{ formatNumber(band.high, 0) }} %</span
            >
          </th>
          <td class="figure py-1 text-right text-faded max-sm:hidden">
            <span v-if="one.row" data-then>{{ one.row.then }}</span>
          </td>
          <td class="py-1 pl-2 text-right whitespace-nowrap" :class="one.colour">
            <span v-if="one.row && !narrow" class="text-faded max-sm:hidden" aria-hidden="true">→ </span>
            <span v-if="one.row" class="figure text-sm text-faded sm:hidden" aria-hidden="true"
              >{{ one.row.then }} →
            </span>
            <span class="figure text-xl font-bold" data-now>{{ one.value }}</span>
            <span class="ml-1 text-sm text-faded">{{ one.unit }}</span>
          </td>
          <td class="figure py-1 pl-3 text-right text-lg font-bold">
            <span v-if="one.row" data-change>{{ one.row.difference }}</span>
          </td>
          <td class="py-1 pl-3 text-[15px] lg:w-40">
            <VerdictMark v-if="one.change" :change="one.change" bare />
            <span v-else class="text-faded">{{ one.id === 'waist-to-height' ? 'of the height' : instead }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
/* On a phone, and in a narrow pane, the name and the reason stand above the figures. */
.narrow .row {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  align-items: baseline;
}
.narrow .row th {
  grid-column: 1 / -1;
  padding-bottom: 0;
}
.narrow .row td:nth-child(2) {
  display: none;
}
.narrow .row td:nth-child(3) {
  padding-left: 0;
  text-align: left;
}
@media (max-width: 639px) {
  .row {
    display: grid;
    grid-template-columns: 1fr auto auto;
    column-gap: 10px;
    align-items: baseline;
  }
  .row th {
    grid-column: 1 / -1;
    padding-bottom: 0;
  }
  .row td:nth-child(3) {
    padding-left: 0;
    text-align: left;
  }
}
</style>
