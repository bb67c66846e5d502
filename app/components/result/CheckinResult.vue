<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { ADULT_YEARS } from '#core/cautions'
import { composeCheckin, type Choices } from '#core/composition'
import { rankEquations, spreadOf } from '#core/equations'
import { unsettledSaid } from '#core/readings'
import { formatMass, formatNumber } from '#core/units'
import { BROUGHT_IN } from '#shared/assessor-said'
import { choiceOf } from '#shared/choices'
import type { Units } from '#core/units'
import type { FollowedEnd } from '#shared/following'
import type { ChoiceInput, RecordedChoice } from '#shared/schemas/following'

/** The check-in under the later jaw: what it says, what stands behind it, and which equation it is followed with. */
const props = defineProps<{
  end: FollowedEnd
  choices: Choices
  /** The choice that counts, as it was made; null: none. */
  recorded: RecordedChoice | null
  assessor: string
  units: Units
  neutral: boolean
  busy: boolean
  problem: string | null
}>()
const emit = defineEmits<{ choose: [choice: ChoiceInput] }>()

/** With every equation the product knows. */
const result = computed(() => composeCheckin(props.end.facts, props.choices))
const reached = computed(() => {
  const estimate = result.value.estimate
  return estimate && 'percent' in estimate ? estimate : null
})
const unsettled = computed(() => unsettledSaid(result.value.session))
const ranked = computed(() =>
  rankEquations(
    // Equations made on children say nothing about an adult.
    result.value.estimates.filter(
      ({ equation }) => equation.population !== 'young' || result.value.ageYears < ADULT_YEARS,
    ),
    props.end.facts.person,
  ),
)
const spread = computed(() => spreadOf(result.value.estimates))
const level = computed(() => result.value.standings.filter(({ table }) => table.of === 'percent'))
const isDensity = computed(() => reached.value?.equation.gives === 'density')

function choose(change: Partial<Choices>) {
  emit('choose', { id: uuid(), ...choiceOf(props.choices, change) })
}
/** Both levels of the abdomen were taken, and an equation asks for their mean. */
const twoLevels = computed(
  () =>
    result.value.values.waist !== undefined &&
    result.value.values.abdomen !== undefined &&
    result.value.estimates.some(({ equation }) => equation.optional?.includes('waist')),
)
</script>

<template>
  <div v-if="result" class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(380px,38%)_1fr]" data-result-view>
    <section class="grid content-start gap-4 border-rule px-4 py-4 sm:px-6 lg:border-r" aria-labelledby="checkin-of">
      <h2 id="checkin-of" class="text-lg font-bold">
        Check-in of {{ sayDay(end.record.day) }}
        <span class="font-normal text-faded">{{ assessor === BROUGHT_IN ? assessor : `measured by ${assessor}` }}</span>
      </h2>
      <p v-if="unsettled" class="border-l-4 border-alert pl-3 font-semibold" data-unsettled>{{ unsettled }}</p>
      <CorrectionNote v-if="result.correction" :correction="result.correction" />
      <div v-if="!neutral && reached" class="flex flex-wrap items-end gap-x-8 gap-y-2">
        <p class="text-fat">
          <span class="figure text-5xl leading-none font-bold" data-percent>{{ formatNumber(reached.percent) }}</span>
          <span class="ml-1 text-xl text-faded">%</span>
        </p>
        <p v-if="result.masses" class="text-[15px]">
          Fat <span class="figure font-bold text-alert">{{ formatMass(result.masses.fatKg, units) }}</span>
          {{ units.mass }}, lean
          <span class="figure font-bold text-lean">{{ formatMass(result.masses.leanKg, units) }}</span>
          {{ units.mass
          }}<template v-if="result.weightKg !== null">
            of {{ formatMass(result.weightKg, units) }} {{ units.mass }} as weighed at the visit</template
          >.
          <template v-if="end.week">
            The week’s mean: <span class="figure font-bold">{{ formatMass(end.week.weightKg, units) }}</span>
            {{ units.mass }} of {{ end.week.count }} days.
          </template>
        </p>
      </div>
      <p v-if="!neutral && reached?.band" class="text-[15px]">
        Two people in three with these values sit between
        <span class="figure font-semibold">{{ formatNumber(reached.band.low) }}</span> and
        <span class="figure font-semibold">{{ formatNumber(reached.band.high) }} %</span>: that is the error of the
        level, the same at every visit, and not the error of a change.
      </p>
      <p v-if="!neutral && result.estimate?.status === 'refused'" class="border-l-4 border-fat pl-3">
        <strong>No percent.</strong> {{ result.estimate.reason }}
      </p>
      <template v-if="!neutral">
        <div v-for="{ table, value, band: own, note } in level" :key="table.id" class="text-[15px]">
          <p>
            {{ table.name }}<template v-if="own">: <strong>{{ own.name }}</strong></template>
          </p>
          <BandScale
            v-if="table.bands(end.facts.person.sex, result.ageYears).length > 0"
            class="mt-1"
            :bands="table.bands(end.facts.person.sex, result.ageYears)"
            :unit="table.unit"
            :at="value"
            :label="`${table.name}: ${formatNumber(value)} ${table.unit}`"
          />
          <p v-if="note" class="text-sm text-faded">{{ note }}</p>
        </div>
      </template>
      <p v-if="!neutral && reached?.density" class="text-[15px]">
        Density <span class="figure font-semibold" data-density>{{ formatNumber(reached.density, 4) }}</span> g/mL.
      </p>
      <p v-if="result.noStandings && !neutral" class="text-[15px] text-faded" data-no-tables>
        {{ result.noStandings }}
      </p>
      <ul v-if="result.cautions.length > 0" class="grid gap-1 border-l-4 border-fat pl-3 text-[15px]">
        <li v-for="caution in result.cautions" :key="caution.code">{{ caution.sentence }}</li>
      </ul>
      <SiteValues :result="result" :units="units" />
      <p v-if="end.record.note" class="border-l-4 border-rule pl-3">{{ end.record.note }}</p>
    </section>
    <section class="grid content-start gap-5 bg-sheet px-4 py-4 sm:px-6" aria-labelledby="all-equations">
      <details v-if="!neutral" class="grid gap-5" data-other-equations>
        <summary class="min-h-11 cursor-pointer py-2 text-lg font-semibold underline underline-offset-4">
          Other equations and settings
        </summary>
        <div>
          <h2 id="all-equations" class="font-semibold">
            Every equation these readings feed
            <span v-if="spread" class="font-normal text-faded">
              · {{ spread.count }} that fit give <span class="figure">{{ formatNumber(spread.low) }}</span> to
              <span class="figure">{{ formatNumber(spread.high) }} %</span> of the same body</span
            >
          </h2>
          <EquationScale
            v-if="ranked.length > 0"
            class="mt-2"
            :ranked="ranked"
            :chosen-id="reached?.equation.id ?? null"
            :busy="busy"
            @choose="choose({ equationId: $event })"
          />
          <p v-else class="text-faded">None yet.</p>
        </div>
        <div class="grid gap-3 sm:grid-cols-2">
          <ConversionField
            v-if="isDensity"
            :sex="end.facts.person.sex"
            :disabled="busy"
            :model-value="choices.conversion"
            @update:model-value="choose({ conversion: $event })"
          />
          <label v-if="end.facts.person.ancestry === 'black'" class="flex items-center gap-3">
            <input
              type="checkbox"
              class="size-5 accent-ink"
              :checked="choices.blackAthleteTerm ?? false"
              :disabled="busy"
              @change="choose({ blackAthleteTerm: ($event.target as HTMLInputElement).checked })"
            />
            Use the published term for Black athletes where an equation has one
          </label>
          <label v-if="twoLevels" class="flex items-center gap-3">
            <input
              type="checkbox"
              class="size-5 accent-ink"
              name="abdomenOfTwo"
              :checked="choices.abdomenOfTwo ?? false"
              :disabled="busy"
              @change="choose({ abdomenOfTwo: ($event.target as HTMLInputElement).checked })"
            />
            Tran-Weltman and Weltman: the abdomen as the mean of waist and navel, as in the papers
          </label>
          <label class="flex items-center gap-3">
            <input
              type="checkbox"
              class="size-5 accent-ink"
              name="militaryRounding"
              :checked="choices.militaryRounding ?? false"
              :disabled="busy"
              @change="choose({ militaryRounding: ($event.target as HTMLInputElement).checked })"
            />
            Round girths as military instructions do
          </label>
        </div>
        <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
        <p v-if="recorded" class="text-sm text-faded" data-choice>
          Chosen by {{ recorded.by }} on {{ sayDay(recorded.at) }}; it holds for every check-in that feeds it.
          <button
            v-if="choices.equationId"
            class="underline underline-offset-4"
            :disabled="busy"
            @click="choose({ equationId: null })"
          >
            Back to each set’s own equation
          </button>
        </p>
        <p v-else class="text-sm text-faded">Nothing chosen: each set of sites is followed with its own equation.</p>
      </details>
      <h2 v-else id="all-equations" class="font-semibold">Size and shape</h2>
      <IndexTable :result="result" :units="units" :neutral="neutral" />
    </section>
  </div>
</template>
