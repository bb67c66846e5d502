<script setup lang="ts">
import { DRILLS, learningCurve, type DrillId } from '#core/drills'
import { formatNumber } from '#core/units'

/** A learning curve: one point a round, and the level with its band. The better is always below. */
const props = defineProps<{ drill: DrillId; scores: readonly number[] }>()
const [WIDTH, HEIGHT] = [300, 90]
const facts = computed(() => DRILLS[props.drill])
const shown = computed(() => props.scores.slice(-60))
const curve = computed(() => learningCurve(shown.value))
const top = computed(() =>
  Math.max(1e-6, ...shown.value, ...curve.value.map(({ high }) => Math.min(high, 2 * Math.max(...shown.value)))),
)
const xAt = (i: number) => 4 + (i / Math.max(1, shown.value.length - 1)) * (WIDTH - 8)
const yAt = (score: number) => {
  const share = Math.min(1, Math.max(0, score / top.value))
  return 4 + (facts.value.better === 'less' ? 1 - share : share) * (HEIGHT - 12)
}
const line = (pick: (point: { level: number; low: number; high: number }) => number) =>
  curve.value.map((point, i) => `${i === 0 ? 'M' : 'L'}${xAt(i).toFixed(1)} ${yAt(pick(point)).toFixed(1)}`).join('')
const band = computed(() => {
  const back = curve.value.map((point, i) => `L${xAt(i).toFixed(1)} ${yAt(point.low).toFixed(1)}`).reverse()
  return curve.value.length < 3 ? '' : `${line(({ high }) => high)}${back.join('')}Z`
})
const said = computed(() => {
  const now = curve.value.at(-1)
  if (!now) return `${facts.value.name}: no round yet`
  const say = (value: number) => `${formatNumber(value, facts.value.digits)} ${facts.value.unit}`
  return `${facts.value.name}: ${shown.value.length} rounds, now ${say(now.level)}, between ${say(now.low)} and ${say(now.high)}`
})
</script>

<template>
  <svg
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    class="w-full overflow-visible"
    role="img"
    :aria-label="said"
    preserveAspectRatio="none"
  >
    <path :d="`M0 ${HEIGHT - 4}H${WIDTH}`" class="stroke-rule" vector-effect="non-scaling-stroke" />
    <path
      v-for="i in shown.length"
      :key="`t${i}`"
      :d="`M${xAt(i - 1)} ${HEIGHT - 4}v-3`"
      class="stroke-rule"
      vector-effect="non-scaling-stroke"
    />
    <path v-if="band" :d="band" class="fill-signal" opacity="0.14" />
    <path
      v-if="curve.length > 1"
      :d="line(({ level }) => level)"
      class="stroke-signal"
      fill="none"
      stroke-width="2"
      vector-effect="non-scaling-stroke"
    />
    <path
      v-for="(score, i) in shown"
      :key="i"
      :d="`M${xAt(i)} ${yAt(score)}h0.01`"
      class="stroke-ink"
      :stroke-width="i === shown.length - 1 ? 8 : 5"
      stroke-linecap="round"
      vector-effect="non-scaling-stroke"
    />
  </svg>
</template>
