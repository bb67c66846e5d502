<script setup lang="ts">
import { useRafFn } from '@vueuse/core'
import { dialMiss, drawDial, needleAt, type DialRound } from '#core/drills'
import { seededRandom } from '#core/simulate'
import { formatNumber, parseNumber } from '#core/units'

/** A round dial: the needle falls onto the fold, settles and creeps; it is read two seconds after full pressure. */
const props = defineProps<{ level: number }>()
const emit = defineEmits<{ done: [score: number, detail: Record<string, number>] }>()
const random = seededRandom(Date.now())
const round = shallowRef<DialRound>(drawDial(random, props.level))
const began = ref<number | null>(null)
/** When the value was taken in: the moment the first digit was typed, s. */
const readAt = ref<number | null>(null)
const typed = ref('')
const problem = ref<string | null>(null)
const shown = ref(0)
const result = shallowRef<{ mm: number; seconds: number } | null>(null)
const field = useTemplateRef<HTMLInputElement>('field')
/** A dial of 0 to 60 mm in one turn. */
const TURN_MM = 60
const elapsed = () => (began.value === null ? 0 : (performance.now() - began.value) / 1000)

const { pause, resume } = useRafFn(() => (shown.value = needleAt(round.value, elapsed())), { immediate: false })

function begin() {
  if (began.value !== null) return
  began.value = performance.now()
  resume()
  void nextTick(() => field.value?.focus())
}
watch(typed, (text) => {
  if (text !== '' && readAt.value === null) readAt.value = elapsed()
  if (text === '') readAt.value = null
})

function keep() {
  if (result.value) return again()
  if (began.value === null) return begin()
  const mm = parseNumber(typed.value)
  problem.value = typed.value.trim() !== '' && mm > 0 && mm <= 80 ? null : 'Type what the needle said, in mm.'
  if (problem.value) return
  pause()
  result.value = dialMiss(round.value, mm, readAt.value ?? elapsed())
  emit('done', Math.round(result.value.mm * 100) / 100, { seconds: Math.round(result.value.seconds * 100) / 100 })
}

function again() {
  round.value = drawDial(random, props.level)
  began.value = null
  readAt.value = null
  typed.value = ''
  shown.value = 0
  result.value = null
  problem.value = null
}
const angle = (mm: number) => (mm / TURN_MM) * 360
const marks = Array.from({ length: TURN_MM * 2 }, (_, i) => ({ mm: i / 2, long: i % 10 === 0, middle: i % 2 === 0 }))
defineExpose({ again })
</script>

<template>
  <div class="grid min-h-0 flex-1 content-start gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <svg
      viewBox="-110 -110 220 220"
      class="mx-auto h-full max-h-[66dvh] min-h-52 w-full"
      role="img"
      aria-label="A dial of 0 to 60 mm"
      :data-fold="round.foldMm"
      :data-settles="round.settles"
    >
      <circle r="104" class="fill-sheet stroke-ink" stroke-width="3" />
      <circle r="98" fill="none" class="stroke-rule" />
      <path
        v-for="mark in marks"
        :key="mark.mm"
        :d="`M0 -96v${mark.long ? 13 : mark.middle ? 8 : 4}`"
        class="stroke-ink"
        :stroke-width="mark.long ? 1.6 : 0.6"
        :transform="`rotate(${angle(mark.mm)})`"
      />
      <text
        v-for="mm in 12"
        :key="mm"
        :x="74 * Math.sin((angle(mm * 5) * Math.PI) / 180)"
        :y="-74 * Math.cos((angle(mm * 5) * Math.PI) / 180) + 5"
        text-anchor="middle"
        font-size="14"
        class="figure fill-ink"
      >
        {{ mm === 12 ? 0 : mm * 5 }}
      </text>
      <g :transform="`rotate(${angle(shown)})`">
        <path d="M-2.4 18L-1 -90h2L2.4 18z" class="fill-fat" />
      </g>
      <circle r="7" class="fill-brass" />
    </svg>
    <form class="grid content-start gap-3" novalidate @submit.prevent="keep">
      <template v-if="!result">
        <p class="text-lg">Two seconds after the needle has settled, read it. To the half millimetre.</p>
        <button v-if="began === null" class="press press-first min-h-16 text-xl" data-pinch>Pinch</button>
        <label v-else class="grid gap-1">
          <span class="font-semibold">It said, mm</span>
          <input
            ref="field"
            v-model="typed"
            name="said"
            inputmode="decimal"
            autocomplete="off"
            class="field figure text-3xl"
            :aria-invalid="problem ? 'true' : undefined"
          />
        </label>
        <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
        <button v-if="began !== null" class="press press-first min-h-14 text-lg">Keep</button>
      </template>
      <template v-else>
        <p aria-live="polite">
          <span class="figure text-6xl font-bold" data-score>{{ formatNumber(result.mm, 1) }}</span>
          <span class="text-xl text-faded"> mm off</span>
        </p>
        <p class="text-lg">
          It was <span class="figure font-bold">{{ formatNumber(round.foldMm, 1) }}</span> mm.
          {{
            Math.abs(result.seconds) < 0.5
              ? 'Taken in at the right second.'
              : `Taken in ${formatNumber(Math.abs(result.seconds), 1)} s too ${result.seconds > 0 ? 'late: the fold had crept on.' : 'early: it had not settled.'}`
          }}
        </p>
        <slot />
      </template>
    </form>
  </div>
</template>
