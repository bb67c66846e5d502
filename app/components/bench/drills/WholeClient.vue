<script setup lang="ts">
import { HARD, type Hard } from '#core/drills'
import { SCHOOLS, SITES } from '#core/sites'
import { formatChange, formatNumber, trimZero } from '#core/units'
import { useMe } from '~/stores/me'

/** A client whose folds are known, under a stand-in caliper, on the log sheet; afterwards truth beside readings. */
defineProps<{ level: number }>()
const emit = defineEmits<{ done: [score: number, detail: Record<string, number | string>] }>()
const store = useMe()
const practice = usePractice()
const { client, session, rows, cell, shown, seconds, score, picked, strikable } = practice
const hard = ref<Hard>('usual')
const entry = useEntry({
  cell,
  massUnit: ref('kg'),
  lengthUnit: ref('cm'),
  last: ref({}),
  here: practice.here,
  daysSince: ref(null),
  resolutionMm: ref(0.5),
  commit: (entered, source, site) => practice.commit(entered, source, site),
  strike: practice.strikeAt,
})
const count = useCount(ref(SCHOOLS.laboratory.readAfterSeconds))
const HARD_WORDS: Record<Hard, string> = {
  easy: 'holds still, folds lift well',
  usual: 'moves now and then',
  hard: 'moves often, folds give way fast',
}
const pickedFigure = computed(() => {
  const reading = strikable.value
  return picked.value && reading ? trimZero(formatNumber(reading.value, 1)) : null
})

function strikeNext() {
  if (strikable.value) practice.strike(strikable.value)
}
function pinch() {
  practice.pinch()
  count.start()
}
useMeasuringKeys({
  type: entry.type,
  erase: entry.erase,
  keep: () => (cell.value.kind === 'none' ? undefined : entry.keep('keyboard')),
  strikeLast: strikeNext,
  note: () => undefined,
  skip: () => undefined,
  count: pinch,
  blind: () => undefined,
  move: () => undefined,
  beside: () => undefined,
  inTurn: () => undefined,
  help: () => undefined,
  correct: () => entry.correct('keyboard'),
  busy: () => client.value === null || score.value !== null,
})
const middle = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? null
watch(score, (now, before) => {
  if (!now || before || now.offPercent === null) return
  emit('done', Math.round(now.offPercent * 10) / 10, {
    hard: hard.value,
    bias: Math.round((now.biasPercent ?? 0) * 10) / 10,
    slips: now.slips,
    caught: now.caught,
    seconds: Math.round((middle(seconds.value) ?? 0) * 10) / 10,
  })
})
const say = (value: number | null, digits = 1) => (value === null ? '' : formatChange(value, digits))
defineExpose({ again: () => practice.begin(hard.value) })
</script>

<template>
  <form v-if="!client" class="grid max-w-xl gap-4" @submit.prevent="practice.begin(hard)">
    <p class="text-lg">
      Seven folds by the laboratory school, two rounds. The jaws creep as real ones do; a client who moves spoils the
      lift.
    </p>
    <fieldset class="grid gap-2">
      <legend class="font-semibold">How hard</legend>
      <label v-for="one in HARD" :key="one" class="flex min-h-11 items-center gap-3">
        <input v-model="hard" type="radio" name="hard" :value="one" class="size-5 accent-ink" />
        <span><span class="font-semibold">{{ one }}</span> <span class="text-faded">{{ HARD_WORDS[one] }}</span></span>
      </label>
    </fieldset>
    <button class="press press-first min-h-14 justify-self-start px-8 text-lg" data-begin>Begin</button>
  </form>
  <div
    v-else-if="!score"
    class="grid min-h-0 flex-1 gap-x-8 gap-y-3 lg:grid-cols-[minmax(0,1fr)_380px]"
    style="--row-height: 56px; --long-row-height: 38px; --key: clamp(48px, 8.5vh, 76px)"
  >
    <div class="min-w-0 bg-sheet p-3">
      <LogSheet
        :rows="rows"
        :cell="cell"
        :typed="entry.text.value"
        :last-date="null"
        :show-last="false"
        :base="session.base"
        :units="store.units"
        :blind="false"
        :noted="new Set()"
        :picked="picked"
        @choose="practice.choose"
        @pick="(id) => (picked = picked === id ? null : id)"
      />
    </div>
    <div class="flex flex-col gap-3">
      <p class="text-2xl font-bold">{{ cell.kind === 'site' ? SITES[cell.site].name : '' }}</p>
      <div class="flex items-center gap-4 rounded border border-rule bg-sheet px-4 py-2">
        <p class="flex-1 text-faded">
          The jaws show
          <span class="figure block text-5xl font-bold text-ink" data-jaws>{{
            shown === null ? '–' : formatNumber(shown, 1)
          }}</span>
        </p>
        <CountRing :share="count.share.value" :done="count.done.value" :seconds="2" @start="pinch" />
        <button type="button" class="press min-h-14" data-pinch @click="pinch">
          Pinch <span class="figure text-faded">t</span>
        </button>
      </div>
      <p class="figure min-h-12 text-5xl font-bold" aria-live="polite" data-typed>{{ entry.text.value }}</p>
      <p v-if="entry.problem.value" role="alert" class="font-semibold text-alert">{{ entry.problem.value }}</p>
      <KeyPad
        class="mt-auto"
        :can-strike="strikable !== null"
        :picked="pickedFigure"
        :fractions="false"
        no-notes
        @type="entry.type"
        @erase="entry.erase"
        @keep="entry.keep('pad')"
        @strike="strikeNext"
      />
    </div>
  </div>
  <div v-else class="grid min-h-0 flex-1 content-start gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <table class="ruled" data-truth>
      <thead>
        <tr>
          <th scope="col">Site</th>
          <th scope="col" class="right">True, mm</th>
          <th scope="col" class="right">You read</th>
          <th scope="col" class="right">Off, %</th>
          <th scope="col" class="right">Between readings, mm</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in score.sites" :key="one.site">
          <th scope="row">{{ SITES[one.site].name }}</th>
          <td class="figure right">{{ formatNumber(one.trueMm, 1) }}</td>
          <td class="figure right font-bold">{{ one.readMm === null ? '' : formatNumber(one.readMm, 1) }}</td>
          <td class="figure right">{{ say(one.biasPercent) }}</td>
          <td class="figure right">{{ one.spreadMm === null ? '' : formatNumber(one.spreadMm, 1) }}</td>
        </tr>
      </tbody>
    </table>
    <div class="grid content-start gap-3" aria-live="polite">
      <p>
        <span class="figure text-6xl font-bold" data-score>{{
          score.offPercent === null ? '' : formatNumber(score.offPercent, 1)
        }}</span>
        <span class="text-xl text-faded"> % off a site</span>
      </p>
      <p class="text-lg">
        Bias <span class="figure font-bold">{{ say(score.biasPercent) }} %</span> over all sites;
        <span class="figure font-bold">{{ formatNumber(middle(seconds) ?? 0, 1) }}</span> s at the caliper, in the
        middle.
        {{
          score.slips === 0
            ? 'The client held still.'
            : `The client moved under ${score.slips} ${score.slips === 1 ? 'reading' : 'readings'}; ${score.caught} of them struck.`
        }}
      </p>
      <slot />
    </div>
  </div>
</template>
