<script setup lang="ts">
import {
  errorParts,
  familyOf,
  limitsSaid,
  remediesFor,
  visitsUntilTold,
  type Change,
  type Component,
  type FigureId,
  type LearntParts,
  type Noises,
  type Remedy,
} from '#core/following'
import { formatMass, formatNumber, kgToMass, type Units } from '#core/units'
import type { FollowedEnd } from '#shared/following'

/** What the error of this change is made of, what is learnt of it, what would shrink it, when a change would be sure, and what cannot be had. */
const props = defineProps<{
  between: readonly FollowedEnd[]
  noises: Noises
  /** Parts as others teach them; null: too few yet. */
  learnt: LearntParts | null
  units: Units
  neutral: boolean
  /** The change of the figure that leads; null: none. */
  leading: Change | null
}>()

const NAMES: Record<Component, string> = {
  reading: 'Readings',
  mark: 'Marks found anew',
  day: 'The day: water, the pinch',
  weight: 'The weight of the day',
  bend: 'The equation’s bend',
  hand: 'Another assessor or caliper',
}
const REMEDIES: Record<Remedy['id'], string> = {
  readings: 'two more readings a site',
  marks: 'marks found half as far off',
  conditions: 'the same hour, training and food each time',
  hand: 'the same person with the same caliper',
}

const figures = computed(() => [
  { id: 'sum' as const, name: 'Sum of folds' },
  ...(props.neutral ? [] : [{ id: 'fat' as const, name: 'Fat' }]),
])
const figure = ref<'sum' | 'fat'>('sum')
const chosen = computed<FigureId>(() => (props.neutral ? 'sum' : figure.value))
const noise = computed(() => props.noises[familyOf(chosen.value)])
const parts = computed(() => errorParts(chosen.value, props.between, noise.value, { learnt: props.learnt }))
const unit = computed(() => (chosen.value === 'fat' ? props.units.mass : 'mm'))
const sd = computed(() => {
  const value = parts.value?.sd ?? 0
  return chosen.value === 'fat' ? formatMass(value, props.units, 2) : formatNumber(value)
})
const shares = computed(() =>
  parts.value
    ? (Object.entries(parts.value.shares) as [Component, number][])
        .filter(([, share]) => share > 0.005)
        .sort(([, a], [, b]) => b - a)
        .map(([id, share]) => ({ id, name: NAMES[id], share }))
    : [],
)
const remedies = computed(() => (parts.value ? remediesFor(parts.value).slice(0, 3) : []))

/** What cannot be had, with this studio's own numbers. */
const limits = computed(() => {
  const own = parts.value
  if (!own) return []
  const isFat = chosen.value === 'fat'
  // 0.2 kg of fat a week is about one percent of the sum.
  const pace = isFat ? 0.2 : 0.0108 * (props.leading?.then ?? 0)
  const paceSaid = isFat ? `${formatMass(0.2, props.units)} ${props.units.mass} of fat` : 'one percent of the sum'
  return limitsSaid({
    noise: noise.value,
    paceSaid,
    visits: pace > 0 ? visitsUntilTold(pace, { weeksApart: 1, variance: own.assumed }, noise.value) : null,
    leading: props.leading,
  })
})

const PACES = { fat: [0.2, 0.5, 0.8], sum: [1, 2, 4] } as const
const CADENCES = [1, 2, 4] as const
const told = computed(() => {
  const own = parts.value
  if (!own) return []
  return PACES[chosen.value === 'fat' ? 'fat' : 'sum'].map((pace) => ({
    pace,
    said: chosen.value === 'fat' ? formatNumber(kgToMass(pace, props.units.mass), 1) : String(pace),
    visits: CADENCES.map((weeksApart) => visitsUntilTold(pace, { weeksApart, variance: own.assumed }, noise.value)),
  }))
})
</script>

<template>
  <div data-error-parts>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <h2 class="font-semibold">What the error of this change is made of</h2>
      <PressGroup v-if="figures.length > 1" v-model="figure" label="Figure" :options="figures" />
    </div>
    <template v-if="parts">
      <p class="mt-1">
        One standard deviation of the change: <span class="figure font-bold">{{ sd }}</span> {{ unit }}.
        <span v-if="noise.learntFrom.clients > 0" data-learnt>
          Learnt from <span class="figure">{{ noise.learntFrom.visits }}</span> check-ins of
          <span class="figure">{{ noise.learntFrom.clients }}</span> other
          {{ noise.learntFrom.clients === 1 ? 'client' : 'clients' }}.
        </span>
        <span v-else data-assumed>Assumed, not yet measured here: learnt once others have four check-ins each.</span>
      </p>
      <p class="text-[15px]" data-parts-from>
        <template v-if="learnt">
          How it is shared out is learnt from <span class="figure">{{ learnt.clients }}</span> others: a reading
          <span class="figure">{{ formatNumber(100 * learnt.reading, 1) }}</span> % of a fold, a mark found anew
          <span class="figure">{{ formatNumber(100 * learnt.mark, 1) }}</span> %, the day
          <span class="figure">{{ formatNumber(100 * learnt.day, 1) }}</span> %.
        </template>
        <template v-else>How it is shared out is assumed: learnt from five others with enough check-ins.</template>
      </p>
      <dl class="mt-2 grid grid-cols-[auto_1fr_auto] items-center gap-x-3 gap-y-1 text-[15px]">
        <template v-for="one in shares" :key="one.id">
          <dt>{{ one.name }}</dt>
          <dd class="h-3 bg-wash" aria-hidden="true">
            <span class="block h-full bg-sum" :style="{ width: `${one.share * 100}%` }" />
          </dd>
          <dd class="figure text-right" :data-share="one.id">{{ formatNumber(one.share * 100, 0) }} %</dd>
        </template>
      </dl>
      <p v-if="remedies.length > 0" class="mt-2 text-[15px]" data-remedies>
        What would shrink it most:
        <template v-for="(one, i) in remedies" :key="one.id"
          >{{ i > 0 ? '; ' : '' }}{{ REMEDIES[one.id] }} (to
          <span class="figure">{{ formatNumber(one.sd * 100, 0) }}</span> %)</template
        >.
      </p>
      <ScrollTable label="Check-ins until a change is sure">
        <table class="ruled mt-3">
          <thead>
            <tr>
              <th scope="col">Sure at which check-in, losing</th>
              <th scope="col" class="right">weekly</th>
              <th scope="col" class="right">fortnightly</th>
              <th scope="col" class="right">four-weekly</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in told" :key="row.pace">
              <td class="!py-1"><span class="figure">{{ row.said }}</span> {{ unit }} a week</td>
              <td v-for="(visits, i) in row.visits" :key="i" class="figure right !py-1">{{ visits ?? 'over 27' }}</td>
            </tr>
          </tbody>
        </table>
      </ScrollTable>
    </template>
    <p v-else class="text-faded">The two check-ins share no such figure.</p>
    <section v-if="limits.length > 0" class="mt-4 border-t border-rule pt-3" data-limits>
      <h2 class="font-semibold">What no method can tell you</h2>
      <ul class="mt-1 grid list-disc gap-1 pl-5 text-[15px]">
        <li v-for="sentence in limits" :key="sentence">{{ sentence }}</li>
      </ul>
    </section>
  </div>
</template>
