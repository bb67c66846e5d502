<script setup lang="ts">
import type { EChartsType } from 'echarts/core'
import { addDays, daysBetween, type Day } from '#core/calendar'
import type { Against, PlanLine } from '#core/plan'
import type { Units } from '#core/units'
import { chartColours } from '../span/theme'
import TimeChart from '../span/TimeChart.vue'
import { planOption } from './plan-option'
import { TARGET_NAMES, targetShown } from './target-shown'

/** A plan, or the draft of one, against what happened. The end of a draft can be dragged, or moved with the arrow keys. */
const props = defineProps<{ line: PlanLine; measured: readonly Against[]; units: Units; movable?: boolean }>()
const emit = defineEmits<{ drag: [end: { day: Day; value: number }] }>()
const theme = useTheme()
const shown = computed(() => targetShown(props.line.kind, props.units))
const option = computed(() => {
  void theme.value
  const colours = chartColours()
  const { kind } = props.line
  const colour = { percent: colours.fat, fat: colours.fat, weight: colours.weight, sum: colours.sum }[kind]
  const name = `${TARGET_NAMES[kind]}, ${shown.value.unit}`
  return planOption(props.line, { measured: props.measured, scale: shown.value.scale, name, colours, colour })
})

const DAY_MS = 24 * 60 * 60 * 1000
const box = useTemplateRef<HTMLElement>('box')
const chart = shallowRef<EChartsType | null>(null)
const handle = ref<{ x: number; y: number } | null>(null)
const endDay = computed(() => addDays(props.line.startDay, Math.ceil(props.line.weeks * 7)))
const start = computed(() => Date.parse(props.line.startedAt))

/** Puts the handle where the line ends. */
function place() {
  const { line } = props
  const at = start.value + daysBetween(line.startDay, endDay.value) * DAY_MS
  const [x, y] = (chart.value?.convertToPixel({ gridIndex: 0 }, [at, shown.value.scale(line.to)]) ?? []) as number[]
  handle.value = x === undefined || y === undefined || !Number.isFinite(x + y) ? null : { x, y }
}
useResizeObserver(box, () => requestAnimationFrame(place))

const pulling = ref(false)
/** The end of the line under the hand: a day after the start and a value above zero. */
function pull(event: PointerEvent) {
  const bounds = box.value?.getBoundingClientRect()
  if (!pulling.value || !bounds || !chart.value) return
  const pixel = [event.clientX - bounds.left, event.clientY - bounds.top]
  const [at, value] = chart.value.convertFromPixel({ gridIndex: 0 }, pixel) as [number, number]
  move(Math.round((at - start.value) / DAY_MS), value / shown.value.scale(1))
}
function move(days: number, value: number) {
  const own = Math.max(0.1, Math.round(value * 10) / 10)
  emit('drag', { day: addDays(props.line.startDay, Math.max(7, days)), value: own })
}
function release(event: PointerEvent) {
  pulling.value = false
  ;(event.target as HTMLElement).releasePointerCapture?.(event.pointerId)
}
function grab(event: PointerEvent) {
  pulling.value = true
  ;(event.target as HTMLElement).setPointerCapture?.(event.pointerId)
}
const STEPS: Record<string, readonly [days: number, value: number]> = {
  ArrowLeft: [-7, 0],
  ArrowRight: [7, 0],
  ArrowUp: [0, 0.1],
  ArrowDown: [0, -0.1],
}
function key(event: KeyboardEvent) {
  const step = STEPS[event.key]
  if (!step) return
  event.preventDefault()
  move(daysBetween(props.line.startDay, endDay.value) + step[0], props.line.to + step[1])
}
</script>

<template>
  <div ref="box" class="relative">
    <TimeChart
      class="h-full"
      :option="option"
      label="The plan with its band and the check-ins since its start; the table holds the same figures"
      @ready="((chart = $event), place())"
    />
    <button
      v-if="movable && handle"
      type="button"
      class="absolute flex size-11 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none items-center justify-center rounded-full"
      :style="{ left: `${handle.x}px`, top: `${handle.y}px` }"
      :aria-label="`End of the line: ${shown.value(line.to)} ${shown.unit} on ${sayDay(endDay)}. Drag it, or use the arrow keys.`"
      data-drag-end
      @pointerdown.prevent="grab"
      @pointermove="pull"
      @pointerup="release"
      @pointercancel="release"
      @keydown="key"
    >
      <span class="size-5 rounded-full border-3 border-ink bg-sheet" aria-hidden="true" />
    </button>
  </div>
</template>
