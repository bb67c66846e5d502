<script setup lang="ts">
import Download from '@lucide/vue/dist/esm/icons/download.mjs'
import { splitOf, splitSaid } from '#core/energy'
import type { Change, Noises, Span } from '#core/following'
import type { Against, PlanLine } from '#core/plan'
import { formatChange, formatMassChange, type Units } from '#core/units'
import type { FollowedRecord } from '#shared/followed-record'
import type { FollowedEnd } from '#shared/following'
import type { ClientHistory } from '#shared/schemas/following'
import { chartEvents, drawnPlan } from './chart-events'

const LazySpanChart = defineAsyncComponent(() => import('./SpanChart.vue'))

/** The span itself: chart, site by site, words, girths and what stands between the two check-ins. */
const props = defineProps<{
  record: FollowedRecord
  /** Facts beside the check-ins: dates that do not move, calipers, names. */
  history: ClientHistory | null
  /** Places of the two check-ins among the record's ends. */
  from: number
  to: number
  now: FollowedEnd | null
  span: Span | null
  noises: Noises
  units: Units
  neutral: boolean
  /** The change is still being judged. */
  judging: boolean
  /** The plan that counts, unless neutral mode hides it, and where the newest check-in stands to it. */
  plan: PlanLine | null
  against: Against | null
  /** A loss is planned and allowed. */
  losing: boolean
  problem: string | null
  keepWords: (words: string | null) => Promise<boolean>
}>()
const emit = defineEmits<{ drawn: [] }>()
const chart = useTemplateRef<{ picture: () => string | null }>('chart')

/** One figure can be looked at large. */
const shownFigure = ref<'all' | 'fat' | 'lean' | 'sum' | null>('all')
const only = computed(() => (shownFigure.value === 'all' ? null : shownFigure.value))
const figuresDrawn = computed(() => [
  { id: 'all' as const, name: 'All' },
  ...(props.now?.result.masses
    ? [
        { id: 'fat' as const, name: 'Fat' },
        { id: 'lean' as const, name: 'Lean' },
      ]
    : []),
  ...(props.now?.result.sumMm === null ? [] : [{ id: 'sum' as const, name: 'Sum' }]),
])
const events = computed(() => (props.history ? chartEvents(props.record.ends, props.history) : []))
const drawn = computed(() =>
  props.neutral ? null : drawnPlan(props.plan, props.record.ends.at(-1)?.record.day ?? '', props.units),
)
const DAYS_A_MONTH = 30.4375

/** Which part of a real change of weight was fat, beside what bodies of this fatness do. */
const split = computed(() => {
  const { fat, weight, then } = props.span ?? {}
  if (!fat || !weight || !then?.fat) return null
  const found = splitOf(fat, weight, then.fat.value)
  return found && splitSaid(found, weight.change < 0)
})

/** Pace of each figure over the span: its change by the month, with the interval. */
const trends = computed(() => {
  const { span } = props
  if (!span || span.days < DAYS_A_MONTH) return []
  const perMonth = (value: number) => (value * DAYS_A_MONTH) / span.days
  const mass = (value: number) => formatMassChange(perMonth(value), props.units, 2)
  const mm = (value: number) => formatChange(perMonth(value), 1)
  const all: { id: string; name: string; unit: string; of: Change | null; say: (value: number) => string }[] = [
    { id: 'fat', name: 'fat', unit: props.units.mass, of: span.fat, say: mass },
    { id: 'lean', name: 'lean', unit: props.units.mass, of: span.lean, say: mass },
    { id: 'sum', name: 'sum', unit: 'mm', of: span.sum, say: mm },
  ]
  return all.flatMap(({ id, name, unit, of, say }) =>
    of && !(props.neutral && id !== 'sum')
      ? [{ id, name, unit, slope: say(of.change), low: say(of.low), high: say(of.high) }]
      : [],
  )
})

function savePicture() {
  const address = chart.value?.picture()
  if (!address) return
  const link = document.createElement('a')
  link.href = address
  link.download = 'oak-pinch-chart.png'
  link.click()
}
</script>

<template>
  <div class="grid flex-1 grid-cols-[minmax(0,1fr)] lg:grid-cols-[1fr_minmax(460px,44%)]">
    <section aria-labelledby="over-time" class="flex min-h-96 flex-col border-rule px-4 py-3 sm:px-6 lg:border-r">
      <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 id="over-time" class="font-semibold">Over time</h2>
        <PressGroup
          v-if="!neutral && record.ends.length > 1 && figuresDrawn.length > 2"
          v-model="shownFigure"
          class="no-print"
          label="Figure on the chart"
          :options="figuresDrawn"
        />
        <button
          v-if="record.ends.length > 1"
          class="no-print ml-auto inline-flex min-h-9 items-center gap-1.5 underline underline-offset-4"
          @click="savePicture"
        >
          <Download class="size-4" aria-hidden="true" />Picture
        </button>
      </div>
      <LazySpanChart
        v-if="record.ends.length > 1"
        ref="chart"
        :ends="record.ends"
        :opening="record.opening"
        :from="from"
        :to="to"
        :noises="noises"
        :units="units"
        :neutral="neutral"
        :only="only"
        :plan="drawn"
        :events="events"
        class="h-[372px]"
        @drawn="emit('drawn')"
      />
      <p v-else class="text-faded">A line needs a second check-in.</p>
      <p v-if="record.ends.length > 1" class="text-sm text-faded">
        Line: course with its 95 % band. Strokes: error of a visit.{{ drawn ? ' Dots: the plan.' : '' }}
      </p>
      <ol v-if="events.length > 0" class="flex flex-wrap gap-x-4 text-sm text-faded" data-chart-events>
        <li v-for="(event, i) in events" :key="i">
          {{ i + 1 }} {{ sayDay(new Date(event.at).toISOString()) }}: {{ event.words }}
        </li>
      </ol>
      <PlanSaid v-if="plan" class="mt-1" :line="plan" :latest="against" :units="units" />
      <details v-if="trends.length > 0 || (span?.recomposition && !neutral)" class="mt-1" data-more-said>
        <summary class="min-h-11 cursor-pointer py-2 text-[15px] underline underline-offset-4">
          Pace and recomposition, by best estimate
        </summary>
        <p v-if="span?.recomposition && !neutral" class="mt-1" data-recomposition>
          Recomposition <span class="figure font-bold">{{ formatChange(span.recomposition.points) }}</span>
          <span class="ml-1 text-faded">
            points, <span class="figure">{{ formatChange(span.recomposition.low) }}</span> to
            <span class="figure">{{ formatChange(span.recomposition.high) }}</span> ({{ span.recomposition.unit }} of
            fat lost + {{ span.recomposition.unit }} of lean gained){{
              span.days >= 14 ? `; ${formatChange((span.recomposition.points * 7) / span.days, 2)} a week` : ''
            }}
          </span>
        </p>
        <p v-if="split && !neutral" class="text-[15px]" data-split>{{ split }}</p>
        <ul v-if="trends.length > 0" class="flex flex-wrap gap-x-6 text-[15px]" data-lines>
          <li v-for="trend in trends" :key="trend.id" :data-line="trend.id">
            Pace: {{ trend.name }} <span class="figure font-bold">{{ trend.slope }}</span>
            <span class="ml-1 text-faded">
              {{ trend.unit }} a month (<span class="figure">{{ trend.low }}</span> to
              <span class="figure">{{ trend.high }}</span>)</span
            >
          </li>
        </ul>
      </details>
      <WasReal v-if="span" class="mt-1" :span="span" :neutral="neutral" />
    </section>
    <section aria-labelledby="site-by-site" class="bg-sheet px-4 py-3 sm:px-6">
      <h2 id="site-by-site" class="mb-1 font-semibold">
        Site by site
        <span class="font-normal text-faded">mm, then to now; bar: error of two visits</span>
      </h2>
      <template v-if="span && now">
        <SitePicture v-if="span.folds.length > 0" :folds="span.folds" :units="units" />
        <p v-else-if="span.days === 0" class="py-2" data-same-day>
          Both check-ins are of one day and count as one visit: a change shows from another day on.
        </p>
        <p v-else class="py-2 text-faded">The two check-ins share no fold.</p>
        <SpanWords
          class="mt-3"
          :span="span"
          :record="now.record"
          :units="units"
          :neutral="neutral"
          :worthwhile="record.worthwhile"
          :losing="losing"
          :problem="problem"
          :keep="keepWords"
        />
        <GirthTable v-if="span.girths.length > 0" class="mt-4" :span="span" :units="units" />
      </template>
      <p v-else class="text-faded">
        {{ judging ? 'Reading the whole history …' : 'Changes show from the second check-in on.' }}
      </p>
    </section>
  </div>
</template>
