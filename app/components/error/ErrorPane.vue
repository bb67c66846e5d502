<script setup lang="ts">
import { composeSpan, familyOf, noiseOf, type Change, type LearntParts, type Noises, type Span } from '#core/following'
import {
  ASSUMED_ERRORS,
  markOf,
  readingVariance,
  siteVisitVariance,
  TEM_MARKS,
  withFoldShare,
  Z_95,
  type ErrorLookup,
} from '#core/error'
import { isFold, SITES } from '#core/sites'
import { formatChange, formatMassChange, formatNumber } from '#core/units'
import type { Units } from '#core/units'
import type { FollowedEnd } from '#shared/following'

/** The error made one's own: what it is made of, what the assessor's repeats say, and what better hands would make of this span. */
const props = defineProps<{
  /** From the earlier check-in to the later one. */
  between: readonly FollowedEnd[]
  now: FollowedEnd
  span: Span | null
  errors: ErrorLookup
  noises: Noises
  /** Share of the budget the start of the span has. */
  share: number
  /** Parts of the error as others teach them; null: too few yet. */
  learnt: LearntParts | null
  assessor: string
  units: Units
  neutral: boolean
}>()
const DRAWS = 100_000

const rows = computed(() =>
  props.now.result.session.sites.flatMap(({ site, value, live }) => {
    if (value === null) return []
    const { share, repeats, priorWeight } = props.errors(site, props.now.record.assessorId ?? undefined)
    const kind = isFold(site) ? 'fold' : 'girth'
    const reading = readingVariance(site, value, markOf(site), ASSUMED_ERRORS)
    const day = kind === 'fold' ? (ASSUMED_ERRORS.dayShare * value) ** 2 : 0
    const visit = noiseOf(props.noises[familyOf(site)], siteVisitVariance(reading, live.length, ASSUMED_ERRORS) + day)
    const percent = share * 100
    const marks = TEM_MARKS[kind]
    return [
      {
        site,
        name: SITES[site].name,
        unit: kind === 'fold' ? 'mm' : 'cm',
        percent,
        tem: share * value,
        repeats,
        prior: priorWeight * 100,
        visit: visit.sd,
        mark: percent <= marks.trained ? 'trained' : percent <= marks.learning ? 'learning' : 'over the marks',
      },
    ]
  }),
)

const TECHNIQUES = [5, 3.5, 2.5, 1.5] as const
const technique = ref<(typeof TECHNIQUES)[number]>(2.5)
const better = computed(() =>
  props.between.length > 1
    ? composeSpan(props.between, {
        model: withFoldShare(ASSUMED_ERRORS, technique.value / 100),
        noises: props.noises,
        share: props.share,
      })
    : null,
)
const verdicts = computed(() => {
  const [own, would] = [props.span, better.value]
  if (!own || !would) return []
  const range = (change: Change, say: (value: number) => string, unit: string) =>
    `${say(change.change)} (${say(change.low)} to ${say(change.high)}) ${unit}`
  const mass = (change: Change) => range(change, (kg) => formatMassChange(kg, props.units), props.units.mass)
  const mm = (change: Change) => range(change, (by) => formatChange(by), 'mm')
  const points = (change: Change) => range(change, (by) => formatChange(by), 'points')
  const all = [
    { id: 'fat', name: 'Fat', own: own.fat, would: would.fat, say: mass },
    { id: 'lean', name: 'Lean', own: own.lean, would: would.lean, say: mass },
    { id: 'percent', name: 'Percent', own: own.percent, would: would.percent, say: points },
    { id: 'sum', name: 'Sum of folds', own: own.sum, would: would.sum, say: mm },
    { id: 'weight', name: 'Weight', own: own.weight, would: would.weight, say: mass },
  ]
  return all.flatMap(({ id, name, own: mine, would: theirs, say }) =>
    mine && theirs && (!props.neutral || id === 'sum')
      ? [{ id, name, own: mine, would: theirs, ownSaid: say(mine), wouldSaid: say(theirs) }]
      : [],
  )
})

const monteCarlo = useMonteCarlo()
const simulated = ref<{ simulated: number; gradient: number } | null>(null)
const unknown = ref(false)
watch(
  () => props.span,
  () => {
    simulated.value = null
    unknown.value = false
  },
)
async function simulate() {
  const [then] = props.between
  if (!then || !props.span?.percent) return
  const found = await monteCarlo.simulate([then, props.now], DRAWS)
  if (!found) unknown.value = true
  else {
    const total = (of: (one: { simulated: number; bySlopes: number }) => number) =>
      Z_95 * Math.sqrt(found.reduce((sum, one) => sum + of(one), 0))
    simulated.value = { simulated: total((one) => one.simulated), gradient: total((one) => one.bySlopes) }
  }
}
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-2" data-error-view>
    <section
      class="grid grid-cols-[minmax(0,1fr)] content-start gap-6 border-rule px-4 py-4 sm:px-6 lg:border-r"
      aria-label="How sure each change is"
    >
      <SureTable v-if="span" :span="span" :units="units" :neutral="neutral" />
      <div aria-labelledby="own-error">
        <h2 id="own-error" class="font-semibold">
          {{ assessor }}’s own error
          <span class="font-normal text-faded">from the repeats of the last 180 days</span>
        </h2>
        <ScrollTable label="Error by site">
          <table class="ruled mt-2">
            <thead>
              <tr>
                <th scope="col">Site</th>
                <th scope="col" class="right">TEM, %</th>
                <th scope="col" class="right">TEM here</th>
                <th scope="col" class="right">Error at a visit</th>
                <th scope="col" class="right">Repeats</th>
                <th scope="col" class="right">Prior</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows" :key="row.site" :data-tem="row.site">
                <td class="!py-1 font-semibold">{{ row.name }}</td>
                <td class="right !py-1">
                  <span class="figure">{{ formatNumber(row.percent) }}</span>
                  <span class="block text-xs text-faded">{{ row.mark }}</span>
                </td>
                <td class="figure right !py-1">{{ formatNumber(row.tem, 2) }} {{ row.unit }}</td>
                <td class="figure right !py-1 font-bold">{{ formatNumber(row.visit, 2) }} {{ row.unit }}</td>
                <td class="figure right !py-1">{{ row.repeats }}</td>
                <td class="figure right !py-1 text-faded">{{ formatNumber(row.prior, 0) }} %</td>
              </tr>
            </tbody>
          </table>
        </ScrollTable>
        <p class="mt-2 text-sm text-faded">
          TEM: technical error of one reading, from repeats within a visit. Prior: how much of it is still assumed (5 %
          for folds, 1 % for girths, common practice) while repeats are few. Error at a visit: one standard deviation
          with marks found anew and the day in it, {{ noises.fold.learntFrom.clients > 0 ? 'learnt' : 'assumed' }} as
          said beside. Usual marks: folds {{ TEM_MARKS.fold.trained }} % trained, {{ TEM_MARKS.fold.learning }} %
          learning; girths {{ TEM_MARKS.girth.trained }} %.
        </p>
      </div>
    </section>
    <section
      class="grid grid-cols-[minmax(0,1fr)] content-start gap-6 bg-sheet px-4 py-4 sm:px-6"
      aria-label="The error of this change"
    >
      <ErrorParts
        v-if="span"
        :between="between"
        :noises="noises"
        :learnt="learnt"
        :units="units"
        :neutral="neutral"
        :leading="span.leading"
      />
      <div v-if="span" aria-labelledby="better">
        <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
          <h2 id="better" class="font-semibold">With better technique</h2>
          <PressGroup
            v-model="technique"
            label="Folds read with a technical error of"
            :options="TECHNIQUES.map((share) => ({ id: share, name: `${share} %` }))"
          />
        </div>
        <ScrollTable label="Verdicts with better technique">
          <table class="ruled mt-2">
            <thead>
              <tr>
                <th scope="col">Change</th>
                <th scope="col">As measured</th>
                <th scope="col">With folds read to {{ technique }} %</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in verdicts" :key="row.id" :data-technique="row.id">
                <td class="font-semibold">{{ row.name }}</td>
                <td>
                  <span class="figure block">{{ row.ownSaid }}</span
                  ><VerdictMark class="text-[15px]" :change="row.own" />
                </td>
                <td>
                  <span class="figure block">{{ row.wouldSaid }}</span
                  ><VerdictMark class="text-[15px]" :change="row.would" />
                </td>
              </tr>
            </tbody>
          </table>
        </ScrollTable>
        <div v-if="span.percent && !neutral" class="mt-4 border-t border-rule pt-3">
          <h3 class="font-semibold">By simulation</h3>
          <p class="text-[15px] text-faded">
            The interval follows each site’s error through the equation by its slope; near a turning point by
            simulation. For the curious: both visits measured {{ DRAWS.toLocaleString('en') }} times with the assumed
            errors.
          </p>
          <button class="press mt-2" :disabled="monteCarlo.running.value" @click="simulate">
            {{ monteCarlo.running.value ? 'Simulating' : 'Simulate' }}
          </button>
          <p v-if="simulated" class="mt-2" data-simulated>
            Percent by simulation ±
            <span class="figure font-bold">{{ formatNumber(simulated.simulated, 2) }}</span> points, by slope ±
            <span class="figure font-bold">{{ formatNumber(simulated.gradient, 2) }}</span> points.
          </p>
          <p v-if="unknown" class="mt-2">One of the two check-ins has no percent to simulate.</p>
        </div>
      </div>
      <p v-else id="better" class="text-faded">A second check-in is needed to speak of a change.</p>
      <slot />
    </section>
  </div>
</template>
