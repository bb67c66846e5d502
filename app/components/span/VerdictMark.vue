<script setup lang="ts">
import { VERDICT_WORDS, verdictSaid, type Change } from '#core/following'

/**
 * The sign of a change as a small balance and words: the bar tilts with the log of the odds, level where there is no sign
 * of a change; its scale has ticks at 3 and 20. Why it is so stands beside it, in the row.
 */
const props = defineProps<{
  change: Pick<Change, 'change' | 'verdict' | 'odds'>
  short?: boolean
  /** On a phone the mark stands alone; its words are read out and in its title. */
  bare?: boolean
  /** The same already under 1100 px. */
  wordsGo?: boolean
}>()

const FULL = 1000
const ANGLE = 34
const WIDTH = 30
const MIDDLE = 9
const ARM = 12
/** Degrees of tilt at some odds, downwards below zero. */
function tilt(odds: number): number {
  return (ANGLE * Math.log(Math.min(FULL, Math.max(1, odds)))) / Math.log(FULL)
}
const way = computed(() => (props.change.change < 0 ? 1 : -1))
const settled = computed(() => ['real', 'one-fold', 'back'].includes(props.change.verdict))
const turned = computed(() =>
  ['back', 'steady'].includes(props.change.verdict) ? 0 : way.value * tilt(props.change.odds),
)
/** Ends of the scale's ticks, on the side the bar goes to. */
const ticks = computed(() =>
  [3, 20].map((odds) => {
    const angle = (way.value * tilt(odds) * Math.PI) / 180
    return { x: WIDTH / 2 + ARM * Math.cos(angle), y: MIDDLE + ARM * Math.sin(angle) }
  }),
)
const words = computed(() => (props.short ? VERDICT_WORDS[props.change.verdict].short : verdictSaid(props.change)))
</script>

<template>
  <span
    class="inline-flex items-center gap-x-1.5 sm:whitespace-nowrap"
    :data-verdict="change.verdict"
    :title="verdictSaid(change)"
  >
    <svg viewBox="0 0 30 18" class="h-[18px] w-[30px] shrink-0" aria-hidden="true">
      <line
        v-for="tick in ticks"
        :key="tick.y"
        :x1="tick.x + 1"
        :y1="tick.y"
        :x2="tick.x + 3.5"
        :y2="tick.y"
        stroke="currentColor"
        stroke-width="1"
        opacity="0.6"
      />
      <path d="M15 9v7M11 16.5h8" stroke="currentColor" stroke-width="1.4" fill="none" opacity="0.6" />
      <line
        x1="3"
        y1="9"
        x2="27"
        y2="9"
        stroke="currentColor"
        :stroke-width="settled ? 3 : 1.8"
        stroke-linecap="round"
        :transform="`rotate(${turned} 15 9)`"
      />
    </svg>
    <span
      :class="[
        settled || change.verdict === 'some-sign' ? 'font-bold' : 'text-faded',
        { 'max-sm:sr-only': bare, 'max-[1100px]:sr-only': wordsGo },
      ]"
      >{{ words }}</span
    >
  </span>
</template>
