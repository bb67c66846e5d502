<script setup lang="ts">
import { CALLS, drawCalls, scoreCalls, spoken, type Answer, type Call, type CallScore } from '#core/drills'
import { FOLDS } from '#core/sites'
import { seededRandom } from '#core/simulate'
import { formatNumber, parseNumber } from '#core/units'

/** A recorder's drill: values are called, or flashed where the browser cannot speak; some are odd and have to be questioned. */
const props = defineProps<{ level: number }>()
const emit = defineEmits<{ done: [score: number, detail: Record<string, number>] }>()
const random = seededRandom(Date.now())
const calls = shallowRef<Call[]>(drawCalls(random, props.level))
const answers = ref<Answer[]>([])
const typed = ref('')
const begun = ref(false)
/** The value stands for a moment only. */
const flashed = ref(false)
const problem = ref<string | null>(null)
const score = shallowRef<CallScore | null>(null)
const field = useTemplateRef<HTMLInputElement>('field')
const canSpeak = import.meta.client && 'speechSynthesis' in window && speechSynthesis.getVoices().length > 0
const FLASH_MS = 1400
const here = computed(() => calls.value[answers.value.length] ?? null)
let timer: ReturnType<typeof setTimeout> | undefined

function callOut() {
  if (!here.value) return
  if (canSpeak) speechSynthesis.speak(new SpeechSynthesisUtterance(spoken(here.value)))
  flashed.value = true
  clearTimeout(timer)
  timer = setTimeout(() => (flashed.value = false), FLASH_MS - 150 * props.level)
  void nextTick(() => field.value?.focus())
}
onUnmounted(() => clearTimeout(timer))

function begin() {
  begun.value = true
  callOut()
}

function answer(given: Answer) {
  answers.value = [...answers.value, given]
  typed.value = ''
  problem.value = null
  if (here.value) return callOut()
  score.value = scoreCalls(calls.value, answers.value)
  const { percent, caught, odd, needless } = score.value
  emit('done', Math.round(percent * 10) / 10, { caught, odd, needless })
}

function write() {
  if (score.value) return again()
  if (!begun.value) return begin()
  const mm = parseNumber(typed.value)
  if (typed.value.trim() === '' || !(mm > 0)) return void (problem.value = 'Write the value down, or question it.')
  answer({ kind: 'wrote', mm })
}

function again() {
  calls.value = drawCalls(random, props.level)
  answers.value = []
  begun.value = false
  score.value = null
  typed.value = ''
  problem.value = null
}
const wrong = (call: Call, given: Answer | undefined) =>
  call.odd ? given?.kind !== 'questioned' : given?.kind !== 'wrote' || Math.abs(given.mm - call.calledMm) >= 0.05
defineExpose({ again })
</script>

<template>
  <div class="grid min-h-0 flex-1 content-start gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <table class="ruled self-start bg-sheet" data-calls>
      <thead>
        <tr>
          <th scope="col" class="!pl-3">Site</th>
          <th scope="col" class="right">Last time</th>
          <th scope="col" class="right">Written</th>
          <th scope="col" class="right !pr-3">Called</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(call, i) in calls" :key="call.site" :class="{ 'bg-wash': begun && i === answers.length }">
          <th scope="row" class="!pl-3">{{ FOLDS[call.site].name }}</th>
          <td class="figure right text-faded">{{ formatNumber(call.lastMm, 1) }}</td>
          <td class="figure right font-bold">
            {{
              answers[i]?.kind === 'questioned'
                ? 'once more?'
                : answers[i]?.kind === 'wrote'
                  ? formatNumber((answers[i] as { mm: number }).mm, 1)
                  : ''
            }}
          </td>
          <td class="figure right !pr-3" :class="{ 'font-bold text-alert': score && wrong(call, answers[i]) }">
            <template v-if="score">{{ formatNumber(call.calledMm, 1) }}{{ call.odd ? ' odd' : '' }}</template>
          </td>
        </tr>
      </tbody>
    </table>
    <form class="grid content-start gap-3" novalidate @submit.prevent="write">
      <template v-if="!score">
        <p class="text-lg">
          {{ CALLS }} values are called. Write each down as it was called; question one that cannot be right after last
          time.
        </p>
        <button v-if="!begun" class="press press-first min-h-16 text-xl" data-begin>Begin</button>
        <template v-else>
          <p
            class="grid min-h-24 place-items-center rounded border border-rule bg-sheet text-center"
            aria-live="assertive"
          >
            <span v-if="here && flashed" data-called>
              <span class="block text-lg text-faded">{{ FOLDS[here.site].name }}</span>
              <span class="figure text-5xl font-bold">{{ formatNumber(here.calledMm, 1) }}</span>
            </span>
            <button v-else type="button" class="min-h-11 text-faded underline underline-offset-4" @click="callOut">
              say it again
            </button>
          </p>
          <label class="grid gap-1">
            <span class="font-semibold">Write, mm</span>
            <input
              ref="field"
              v-model="typed"
              name="written"
              inputmode="decimal"
              autocomplete="off"
              class="field figure text-3xl"
            />
          </label>
          <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
          <div class="grid grid-cols-2 gap-2">
            <button class="press press-first min-h-14 text-lg">Write it</button>
            <button type="button" class="press min-h-14 text-lg" data-question @click="answer({ kind: 'questioned' })">
              Once more?
            </button>
          </div>
        </template>
      </template>
      <template v-else>
        <p aria-live="polite">
          <span class="figure text-6xl font-bold" data-score>{{ formatNumber(score.percent, 0) }}</span>
          <span class="text-xl text-faded"> % right</span>
        </p>
        <p class="text-lg">
          {{ score.caught }} of {{ score.odd }} odd ones caught{{
            score.needless > 0 ? `, ${score.needless} good ones questioned` : ''
          }}.
        </p>
        <slot />
      </template>
    </form>
  </div>
</template>
