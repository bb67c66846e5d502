<script setup lang="ts">
import type { Composition } from '#core/composition/checkin'
import { CONVERSIONS } from '#core/equations/density'
import { endFigures } from '#core/following'
import { SITES } from '#core/sites'
import type { CheckinRecord, MeasuringFacts } from '#shared/schemas/checkin'
import { formatMass, formatNumber, type Units } from '#core/units'

/** After the last reading: the change first, then the figures; a key covers both where the client can see the screen. */
const props = defineProps<{
  result: Composition
  units: Units
  sumName: string
  neutral: boolean
  conversion?: string
  /** A turn of a study: nothing of what was read is said. */
  study: MeasuringFacts['study'] | null
  /** The check-in with everything read. */
  record: CheckinRecord
  /** It starts covered. */
  covered: boolean
}>()

const isCovered = ref(props.covered)
const { spanned, isMissing } = useResultChange(computed(() => (props.study ? null : props.record)))
const span = computed(() => spanned.value?.span ?? null)
/** Figures of this check-in, as the change shows them. */
const figures = computed(() => (spanned.value?.now ? endFigures(spanned.value.now) : null))

const estimate = computed(() => props.result.estimate)
const reached = computed(() => {
  const value = estimate.value
  return value && (value.status === 'ok' || value.status === 'caution') ? value : null
})
/** Only where a density was turned into a percent. */
const conversion = computed(() => CONVERSIONS[props.conversion ?? 'siri']?.label ?? 'Siri')
const unsettled = computed(() => props.result.unsettled.map((site) => SITES[site].name).join(', '))
const others = computed(() =>
  props.result.estimates.filter((one) => 'percent' in one && one.equation.id !== estimate.value?.equation.id),
)
const missing = computed(() => props.result.missing.map((site) => SITES[site].name).join(', '))
</script>

<template>
  <section v-if="study" aria-label="Result" class="grid content-start gap-3" tabindex="0" data-result>
    <p class="text-2xl font-bold">Everything is read.</p>
    <p class="text-lg">
      Wipe the marks. What was read is shown, and compared with the
      {{ study.kind === 'repeat' ? 'other turn' : 'others' }}, once the study is closed.
    </p>
  </section>
  <section
    v-else
    aria-label="Result"
    class="grid grid-cols-[minmax(0,1fr)] content-start gap-4"
    tabindex="0"
    data-result
  >
    <p v-if="neutral" class="text-lg">Kept. Neutral mode: no number about the body where the client may look.</p>
    <button
      v-if="!neutral"
      type="button"
      class="press min-h-12 justify-self-start"
      :aria-pressed="isCovered"
      data-cover
      @pointerdown.prevent
      @click="isCovered = !isCovered"
    >
      {{ isCovered ? 'Show the result' : 'Cover the result' }}
    </button>
    <p v-if="!neutral && isCovered" class="text-2xl font-bold">Everything is read.</p>
    <template v-if="!neutral && !isCovered">
      <template v-if="span && spanned?.then && spanned.now && figures">
        <LeadWords
          :span="span"
          :from="spanned.then.record.day"
          :to="spanned.now.record.day"
          :next="null"
          :unasked="null"
          :units="units"
          :neutral="false"
        />
        <ChangeFigures
          class="stacked"
          :figures="figures"
          :span="span"
          :now="spanned.now"
          :units="units"
          :neutral="false"
          :judging="false"
          narrow
        />
      </template>
      <p v-else-if="isMissing" class="text-[15px] text-faded">
        The change shows on the client’s page once the server is back.
      </p>
      <div v-if="reached" :class="{ 'border-t border-rule pt-3': span }">
        <h2 class="text-faded">Fat</h2>
        <p class="flex items-baseline gap-2 text-fat">
          <span class="figure leading-none font-bold" :class="span ? 'text-4xl' : 'text-6xl'" data-percent>{{
            formatNumber(reached.percent, 1)
          }}</span>
          <span class="text-xl text-faded">%</span>
        </p>
        <p v-if="reached.band" class="mt-1 text-[15px]">
          Usually between <span class="figure font-semibold">{{ formatNumber(reached.band.low, 1) }}</span> and
          <span class="figure font-semibold">{{ formatNumber(reached.band.high, 1) }} %</span>: two people in three sit
          within {{ formatNumber(reached.seePercent ?? 0, 1) }} points of this equation’s line.
        </p>
      </div>
      <p v-else-if="estimate?.status === 'refused'" class="border-l-4 border-fat pl-3">
        <strong>No percent.</strong> {{ estimate.reason }} The sum of folds stands.
      </p>
      <CorrectionNote v-if="result.correction" :correction="result.correction" />
      <dl
        v-if="!span"
        class="grid grid-cols-[repeat(auto-fit,minmax(132px,1fr))] gap-x-4 gap-y-3 border-t border-rule pt-3"
      >
        <div v-if="result.masses" class="text-fat">
          <dt class="text-sm text-faded">Fat mass</dt>
          <dd>
            <span class="figure text-3xl font-bold" data-fat>{{ formatMass(result.masses.fatKg, units) }}</span>
            <span class="text-faded">{{ units.mass }}</span>
          </dd>
        </div>
        <div v-if="result.masses" class="text-lean">
          <dt class="text-sm text-faded">Lean mass</dt>
          <dd>
            <span class="figure text-3xl font-bold" data-lean>{{ formatMass(result.masses.leanKg, units) }}</span>
            <span class="text-faded">{{ units.mass }}</span>
          </dd>
        </div>
        <div v-if="result.sumMm !== null" class="text-sum">
          <dt class="text-sm text-faded">{{ sumName }}</dt>
          <dd>
            <span class="figure text-3xl font-bold" data-sum>{{ formatNumber(result.sumMm, 1) }}</span>
            <span class="text-faded">mm</span>
          </dd>
        </div>
        <div v-if="reached?.density">
          <dt class="text-sm text-faded">Density</dt>
          <dd>
            <span class="figure text-2xl font-bold" data-density>{{ formatNumber(reached.density, 4) }}</span>
            <span class="text-faded">g/mL</span>
          </dd>
        </div>
      </dl>
      <p v-if="reached && !result.masses" class="text-[15px]">Without a weight there is no fat and lean mass.</p>
    </template>
    <p v-if="missing" class="text-[15px]"><strong>Still missing:</strong> {{ missing }}.</p>
    <p v-if="unsettled" class="text-[15px]"><strong>Still to confirm:</strong> {{ unsettled }}.</p>
    <ul
      v-if="reached && reached.cautions.length > 0 && !neutral && !isCovered"
      class="grid gap-1 border-l-4 border-fat pl-3 text-[15px]"
    >
      <li v-for="caution in reached.cautions" :key="caution.code">{{ caution.sentence }}</li>
    </ul>
    <details v-if="others.length > 0 && !neutral && !isCovered" class="text-[15px]" data-others>
      <summary class="min-h-11 cursor-pointer py-2 underline underline-offset-4">
        {{ reached ? `${others.length} other equations` : 'Equations these readings feed' }}
      </summary>
      <ul>
        <li v-for="other in others" :key="other.equation.id" class="flex justify-between gap-3">
          <span class="min-w-0">{{ other.equation.label }}</span>
          <span v-if="'percent' in other" class="figure">{{ formatNumber(other.percent, 1) }}</span>
        </li>
      </ul>
    </details>
    <ul v-if="result.cautions.length > 0" class="grid gap-1 border-l-4 border-fat pl-3 text-[15px]">
      <li v-for="caution in result.cautions" :key="caution.code">{{ caution.sentence }}</li>
    </ul>
    <p v-if="reached && !neutral && !isCovered" class="text-sm text-faded">
      {{ reached.equation.label
      }}<template v-if="reached.density">; density to percent after {{ conversion }}</template>. Age
      {{ result.ageYears }}.
    </p>
  </section>
</template>
