<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { formatNumber } from '#core/units'

/** Press, count two seconds unseen, press again. */
defineProps<{ level: number }>()
const emit = defineEmits<{ done: [score: number, detail: Record<string, number>] }>()
const TARGET = 2
const began = ref<number | null>(null)
const took = ref<number | null>(null)

function press() {
  if (took.value !== null) return again()
  if (began.value === null) return void (began.value = performance.now())
  took.value = (performance.now() - began.value) / 1000
  emit('done', Math.round(Math.abs(took.value - TARGET) * 1000) / 1000, { took: Math.round(took.value * 1000) / 1000 })
}

function again() {
  began.value = null
  took.value = null
}
useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.key !== ' ' && event.key !== 'Enter') return
  if (event.repeat || (event.target instanceof HTMLElement && event.target.closest('a, button:not([data-count])')))
    return
  event.preventDefault()
  press()
})
/** The ring closes at two seconds; what was pressed stands on it. */
const share = computed(() => Math.min(2, (took.value ?? 0) / TARGET))
const ROUND = 2 * Math.PI * 80
defineExpose({ again })
</script>

<template>
  <div class="grid min-h-0 flex-1 content-start gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <button
      type="button"
      data-count
      class="mx-auto grid aspect-square max-h-[64dvh] w-full max-w-xl touch-manipulation place-items-center rounded-full"
      @pointerdown.prevent="press"
    >
      <svg viewBox="-100 -100 200 200" class="col-start-1 row-start-1 h-full w-full" aria-hidden="true">
        <circle r="80" fill="none" class="stroke-rule" stroke-width="14" />
        <path d="M0 -92v24" class="stroke-ink" stroke-width="3" />
        <path v-for="i in 19" :key="i" d="M0 -90v8" class="stroke-contour" :transform="`rotate(${i * 18})`" />
        <circle
          v-if="took !== null"
          r="80"
          fill="none"
          class="stroke-signal"
          stroke-width="14"
          :stroke-dasharray="`${Math.min(1, share) * ROUND} ${ROUND}`"
          transform="rotate(-90)"
        />
        <g v-if="took !== null" :transform="`rotate(${share * 360})`">
          <path d="M0 -98v36" class="stroke-fat" stroke-width="5" />
        </g>
      </svg>
      <span class="col-start-1 row-start-1 text-3xl font-bold">{{
        took !== null ? 'again' : began === null ? 'press' : 'press at two'
      }}</span>
    </button>
    <div class="grid content-start gap-3" aria-live="polite">
      <p class="text-lg">Press to begin, press again when two seconds have passed. Space or Enter will do.</p>
      <template v-if="took !== null">
        <p>
          <span class="figure text-6xl font-bold" data-score>{{ formatNumber(Math.abs(took - TARGET), 2) }}</span>
          <span class="text-xl text-faded"> s off</span>
        </p>
        <p class="text-lg">
          You pressed at <span class="figure font-bold">{{ formatNumber(took, 2) }}</span> s:
          {{ took > TARGET ? 'late, a fold would have crept on.' : 'early, a fold would not have settled.' }}
        </p>
        <slot />
      </template>
    </div>
  </div>
</template>
