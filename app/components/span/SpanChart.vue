<script setup lang="ts">
import { CustomChart, LineChart } from 'echarts/charts'
import { AxisPointerComponent, GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { FigureSeries, Noises } from '#core/following'
import type { Units } from '#core/units'
import { SHOWN_AT_ONCE } from '#shared/followed-record'
import type { FollowedEnd } from '#shared/following'
import type { ChartEvent, DrawnPlan } from './chart-events'
import { GRID, spanOption } from './span-option'
import { chartCourses, chartSeries, drawnSeries, type ChartCourses } from './span-series'
import { chartColours } from './theme'

use([LineChart, CustomChart, GridComponent, TooltipComponent, AxisPointerComponent, CanvasRenderer])

/** Milliseconds a jaw has to stand until what takes long is worked out anew. */
const COURSES_AFTER_MS = 250

const props = defineProps<{
  ends: readonly FollowedEnd[]
  /** On the newest check-in's terms, weighed at the visits. */
  opening: FigureSeries | null
  from: number
  to: number
  noises: Noises
  units: Units
  neutral: boolean
  /** One figure alone, large; null: all. */
  only: 'fat' | 'lean' | 'sum' | null
  plan: DrawnPlan | null
  events: readonly ChartEvent[]
}>()
const emit = defineEmits<{ drawn: [] }>()
const theme = useTheme()
const box = useTemplateRef<HTMLElement>('box')
const chart = useTemplateRef<InstanceType<typeof VChart>>('chart')

const times = computed(() => props.ends.map(({ record }) => Date.parse(record.startedAt)))
const first = computed(() => times.value[0] ?? 0)
const last = computed(() => times.value.at(-1) ?? 1)
const now = computed(() => props.ends[props.to])
/** What is held against what follows the later jaw's equation and folds only: most moves of a jaw redraw nothing. */
const reference = computed(() => {
  const end = now.value
  const { estimate } = end?.result ?? {}
  return `${estimate?.equation.id} ${end?.facts.protocol.id}`
})
const series = shallowRef<ReturnType<typeof chartSeries> | null>(null)
const courses = shallowRef<ChartCourses | null>(null)
let waiting: number | undefined
let due: (() => void) | null = null
let isShown = false

function drawPoints(): void {
  const reached = now.value
  if (!reached) return
  const opens = props.to === props.ends.length - 1 ? props.opening : null
  series.value = opens ? drawnSeries(opens, props.units) : chartSeries(props.ends, reached, props)
}

function drawCourses(): void {
  if (now.value) courses.value = chartCourses(props.ends, now.value, props)
}

/** What takes long comes when the jaws have stood for a moment, and never before the chart is on the screen. */
function whenTheyStand(work = due): void {
  due = work
  clearTimeout(waiting)
  if (due && isShown) waiting = window.setTimeout(() => (due?.(), (due = null)), COURSES_AFTER_MS)
}

function drawAll(): void {
  drawPoints()
  drawCourses()
}
const isLong = () => props.ends.length > SHOWN_AT_ONCE
watch(
  () => [reference.value, props.ends, props.units] as const,
  () => {
    if (!isLong()) return drawAll()
    drawPoints()
    courses.value = null
    whenTheyStand(drawCourses)
  },
  { immediate: true },
)
// Every few weeks of a record another noise is held: a jaw on its way passes many.
watch(
  () => props.noises,
  () => (isLong() ? whenTheyStand(drawAll) : drawAll()),
)
watch(
  () => [props.from, props.to],
  () => whenTheyStand(),
)
const sumName = computed(() => now.value?.facts.protocol.sumName ?? 'Sum')
const option = computed(() => {
  void theme.value
  if (!series.value) return {}
  return spanOption(series.value, {
    units: props.units,
    colours: chartColours(),
    sumName: sumName.value,
    massHidden: props.neutral,
    first: first.value,
    last: last.value,
    courses: courses.value,
    only: props.only,
    plan: props.plan,
  })
})

/** Where events stand on the chart, as CSS. */
const marks = computed(() => {
  const length = Math.max(1, last.value - first.value)
  const inner = `(100% - ${GRID.left + GRID.right}px)`
  return props.events.map(({ at, words }, i) => ({
    words,
    number: i + 1,
    left: `calc(${GRID.left}px + ${inner} * ${(at - first.value) / length})`,
  }))
})
/** The span shaded over the chart: left and width as CSS, so that dragging a jaw moves one box and redraws no chart. */
const shade = computed(() => {
  const length = Math.max(1, last.value - first.value)
  const share = (place: number) => ((times.value[place] ?? first.value) - first.value) / length
  const inner = `(100% - ${GRID.left + GRID.right}px)`
  return {
    left: `calc(${GRID.left}px + ${inner} * ${share(props.from)})`,
    width: `calc(${inner} * ${share(props.to) - share(props.from)})`,
  }
})

/** The library says that it has drawn before anything is on the screen: what waits for the chart waits for its frame. */
function noteDrawn() {
  requestAnimationFrame(() =>
    setTimeout(() => {
      isShown = true
      emit('drawn')
      whenTheyStand()
    }),
  )
}

onBeforeUnmount(() => {
  due = null
  clearTimeout(waiting)
})

/** The chart follows its box in whole pixels; a fraction of one would draw everything a second time for nothing. */
useResizeObserver(box, ([entry]) => {
  const { clientWidth = 0, clientHeight = 0 } = entry?.target ?? {}
  const drawn = chart.value
  const same = drawn?.getWidth() === clientWidth && drawn.getHeight() === clientHeight
  if (drawn && clientWidth > 0 && !same) drawn.resize()
})

/** The chart as a PNG picture at twice its size. */
function picture(): string | null {
  return chart.value?.getDataURL({ type: 'png', pixelRatio: 2, backgroundColor: chartColours().sheet }) ?? null
}
defineExpose({ picture })
</script>

<template>
  <div ref="box" class="relative">
    <div class="absolute top-[5%] bottom-[8%] bg-wash print:hidden" :style="shade" aria-hidden="true" />
    <div
      v-for="mark in marks"
      :key="mark.number"
      class="absolute top-[3%] bottom-[8%] z-10 w-4 -translate-x-1/2 border-ink/40 text-center text-[11px] leading-4"
      :style="{ left: mark.left }"
      :title="mark.words"
      aria-hidden="true"
    >
      <span class="block rounded-full bg-ink text-paper">{{ mark.number }}</span>
      <span class="mx-auto block h-[calc(100%-16px)] w-px border-l border-dotted border-ink/50" />
    </div>
    <VChart
      ref="chart"
      class="absolute inset-0"
      :option="option"
      :update-options="{ notMerge: true }"
      role="img"
      aria-label="Lean mass, fat mass and sum of folds over time, each with its measuring error; the table of all check-ins holds the same figures"
      @rendered.once="noteDrawn"
    />
  </div>
</template>
