<script setup lang="ts">
import { composeSpan, withTechnique, type Span } from '#core/following'
import {
  BETWEEN_VISIT_FACTOR,
  INTER_ASSESSOR_FACTOR,
  smallestRealChange,
  TEM_MARKS,
  visitVariance,
  Z_95,
  type Change,
  type ErrorLookup,
} from '#core/error'
import { isFold, SITES } from '#core/sites'
import { formatChange, formatMass, formatMassChange, formatNumber } from '#core/units'
import type { Units } from '#core/units'
import type { FollowedEnd } from '#shared/following'

/** The error made one's own: what the assessor's repeats say of them, and what better hands would make of this span. */
const props = defineProps<{
  then: FollowedEnd | null
  now: FollowedEnd
  span: Span | null
  errors: ErrorLookup
  assessor: string
  units: Units
  neutral: boolean
}>()
const DRAWS = 100_000

const factor = computed(
  () => BETWEEN_VISIT_FACTOR * (props.span?.comparability.otherAssessor ? INTER_ASSESSOR_FACTOR : 1),
)

const rows = computed(() =>
  props.now.result.session.sites.flatMap(({ site, value, live }) => {
    if (value === null) return []
    const { share, repeats, priorWeight } = props.errors(site, props.now.record.assessorId ?? undefined)
    const variance = visitVariance(share * value, live.length, factor.value)
    const kind = isFold(site) ? 'fold' : 'girth'
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
        smallest: smallestRealChange(variance, variance),
        mark: percent <= marks.trained ? 'trained' : percent <= marks.learning ? 'learning' : 'over the marks',
      },
    ]
  }),
)

const TECHNIQUES = [5, 3.5, 2.5, 1.5] as const
const technique = ref<(typeof TECHNIQUES)[number]>(2.5)
const better = computed(() =>
  props.then
    ? composeSpan(props.then, props.now, withTechnique(props.errors, technique.value / 100), props.units.mass)
    : null,
)
const verdicts = computed(() => {
  const [own, would] = [props.span, better.value]
  if (!own || !would) return []
  const mass = (change: Change) =>
    `${formatMassChange(change.change, props.units)} ± ${formatMass(change.error, props.units)} ${props.units.mass}`
  const mm = (change: Change) => `${formatChange(change.change)} ± ${formatNumber(change.error)} mm`
  const points = (change: Change) => `${formatChange(change.change)} ± ${formatNumber(change.error)} points`
  const all = [
    { id: 'fat', name: 'Fat', own: own.fat, would: would.fat, say: mass },
    { id: 'lean', name: 'Lean', own: own.lean, would: would.lean, say: mass },
    { id: 'percent', name: 'Percent', own: own.percent, would: would.percent, say: points },
    { id: 'sum', name: 'Sum of folds', own: own.sum, would: would.sum, say: mm },
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
  const change = props.span?.percent
  if (!props.then || !change) return
  const found = await monteCarlo.simulate([props.then, props.now], props.errors, { draws: DRAWS, factor: factor.value })
  if (!found) unknown.value = true
  else simulated.value = { simulated: Z_95 * Math.hypot(...found), gradient: change.error }
}
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-2" data-error-view>
    <section class="border-rule px-4 py-4 sm:px-6 lg:border-r" aria-labelledby="own-error">
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
              <th scope="col" class="right">Smallest real change</th>
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
              <td class="figure right !py-1 font-bold">{{ formatNumber(row.smallest) }} {{ row.unit }}</td>
              <td class="figure right !py-1">{{ row.repeats }}</td>
              <td class="figure right !py-1 text-faded">{{ formatNumber(row.prior, 0) }} %</td>
            </tr>
          </tbody>
        </table>
      </ScrollTable>
      <p class="mt-2 text-sm text-faded">
        TEM: technical error of one reading. Prior: how much of it is still assumed (5 % for folds, 1 % for girths,
        common practice) while repeats are few. Between visits the error is taken as {{ BETWEEN_VISIT_FACTOR }} times
        that within one<template v-if="span?.comparability.otherAssessor"
          >, and another {{ INTER_ASSESSOR_FACTOR }} times because two people measured</template
        >, until a repeat study says better. Usual marks: folds {{ TEM_MARKS.fold.trained }} % trained,
        {{ TEM_MARKS.fold.learning }} % learning; girths {{ TEM_MARKS.girth.trained }} %.
      </p>
    </section>
    <section class="bg-sheet px-4 py-4 sm:px-6" aria-labelledby="better">
      <template v-if="span">
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
                  <span class="figure block">{{ row.ownSaid }}</span><VerdictMark
                    class="text-[15px]"
                    :change="row.own"
                  />
                </td>
                <td>
                  <span class="figure block">{{ row.wouldSaid }}</span><VerdictMark
                    class="text-[15px]"
                    :change="row.would"
                  />
                </td>
              </tr>
            </tbody>
          </table>
        </ScrollTable>
        <div v-if="span.percent && !neutral" class="mt-4 border-t border-rule pt-3">
          <h3 class="font-semibold">By simulation</h3>
          <p class="text-[15px] text-faded">
            The plus-minus above follows each site’s error through the equation by its slope. For the curious: the same
            by measuring both visits {{ DRAWS.toLocaleString('en') }} times with random errors.
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
      </template>
      <p v-else id="better" class="text-faded">A second check-in is needed to speak of a change.</p>
    </section>
  </div>
</template>
