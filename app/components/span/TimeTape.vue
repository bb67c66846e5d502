<script setup lang="ts">
import { differenceInCalendarDays } from 'date-fns'
import { tapeScale, tapeTicks } from './time-tape'

/** A tape of time: a tick a week, a mark a check-in, and two jaws that stand on two of them. */
const props = defineProps<{
  /** ISO instants, oldest first; at least two. */
  instants: readonly string[]
  from: number
  to: number
  /** Place of the pinned start. */
  pinned: number
  /** The left jaw stands at a start that was found by looking. */
  searched: boolean
}>()
const emit = defineEmits<{ jaws: [from: number, to: number]; pin: [] }>()

const box = useTemplateRef<HTMLElement>('box')
/** As wide as the page to begin with: asking the tape itself lays the whole page out once more. */
const width = ref(document.documentElement.clientWidth)
useResizeObserver(box, ([entry]) => {
  if (entry) width.value = entry.contentRect.width
})
const times = computed(() => props.instants.map((at) => Date.parse(at)))
const ends = computed(() => [times.value[0] ?? 0, times.value.at(-1) ?? 1] as const)
const scale = computed(() => tapeScale(ends.value[0], ends.value[1], width.value))
const ticks = computed(() => tapeTicks(ends.value[0], ends.value[1], width.value))
const marks = computed(() => times.value.map((at) => scale.value(at)))
const at = computed(() => ({ from: marks.value[props.from] ?? 0, to: marks.value[props.to] ?? 0 }))
const wide = computed(() => at.value.to - at.value.from)

const held = ref<'from' | 'to' | null>(null)

function nearest(clientX: number): number {
  const x = clientX - (box.value?.getBoundingClientRect().left ?? 0)
  let best = 0
  marks.value.forEach((mark, i) => {
    if (Math.abs(mark - x) < Math.abs((marks.value[best] ?? 0) - x)) best = i
  })
  return best
}

/** A jaw that meets the other pushes it along. */
function put(jaw: 'from' | 'to', place: number) {
  const last = props.instants.length - 1
  const wanted = jaw === 'from' ? Math.max(0, Math.min(place, last - 1)) : Math.min(last, Math.max(place, 1))
  const from = jaw === 'from' ? wanted : Math.min(props.from, wanted - 1)
  const to = jaw === 'to' ? wanted : Math.max(props.to, wanted + 1)
  if (from !== props.from || to !== props.to) emit('jaws', from, to)
}

function take(event: PointerEvent, jaw?: 'from' | 'to') {
  // A press on the tape itself takes the nearer jaw there.
  const place = nearest(event.clientX)
  const nearer = Math.abs(place - props.from) <= Math.abs(place - props.to) ? 'from' : 'to'
  held.value = jaw ?? nearer
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  if (!jaw) put(held.value, place)
}

function drag(event: PointerEvent) {
  if (held.value) put(held.value, nearest(event.clientX))
}

const STEPS: Record<string, number> = {
  ArrowLeft: -1,
  ArrowDown: -1,
  ArrowRight: 1,
  ArrowUp: 1,
  PageDown: -5,
  PageUp: 5,
}

function key(event: KeyboardEvent, jaw: 'from' | 'to') {
  const place = props[jaw]
  const step = STEPS[event.key]
  const target =
    event.key === 'Home'
      ? 0
      : event.key === 'End'
        ? props.instants.length - 1
        : step === undefined
          ? null
          : place + step
  if (target === null) return
  event.preventDefault()
  put(jaw, target)
}

/** Room of a date with its year, and of what stands beside it at a searched start, pixels. */
const LABEL = 96
const SEARCHED = 86

/** The jaws' dates stand under them, apart from each other and inside the tape. */
const labels = computed(() => {
  const close = wide.value < 170
  const clamp = (x: number) => Math.min(width.value - 8, Math.max(8, x))
  const place = (x: number, jaw: 'from' | 'to') => {
    if (x < 60) return { x: clamp(x - 16), anchor: 'start' as const }
    if (x > width.value - 60) return { x: clamp(x + 16), anchor: 'end' as const }
    if (!close) return { x, anchor: 'middle' as const }
    return jaw === 'from' ? { x: x + 8, anchor: 'end' as const } : { x: x - 8, anchor: 'start' as const }
  }
  const [from, to] = [place(at.value.from, 'from'), place(at.value.to, 'to')]
  // At an edge one label gives way to the other.
  if (close && to.anchor === 'end')
    return { from: { x: Math.min(at.value.from + 8, to.x - LABEL), anchor: 'end' as const }, to }
  if (close && from.anchor === 'start')
    return {
      from,
      to: { x: Math.max(at.value.to - 8, from.x + LABEL + (props.searched ? SEARCHED : 0)), anchor: 'start' as const },
    }
  return { from, to }
})

const length = computed(() => {
  const days = differenceInCalendarDays(times.value[props.to] ?? 0, times.value[props.from] ?? 0)
  const weeks = Math.round(days / 7)
  const size = days < 14 ? `${days} days` : `${weeks} weeks`
  return `${size}, ${props.to - props.from + 1} check-ins`
})

/** Width of what a hand takes a jaw by, pixels. */
const GRIP = 44
/** Where the grips stand: just outside their check-ins, and apart from each other however near those are. */
const grips = computed(() => {
  const outside = 10
  const from = at.value.from - outside
  const to = at.value.to + outside
  const lacking = Math.max(0, GRIP - (to - from)) / 2
  const low = Math.max(GRIP / 2, Math.min(from - lacking, width.value - 1.5 * GRIP))
  const high = Math.min(width.value - GRIP / 2, Math.max(to + lacking, low + GRIP))
  return { from: Math.min(low, high - GRIP), to: high }
})

const jaws = computed(() => [
  { jaw: 'from' as const, x: at.value.from, way: -1, day: sayDay(props.instants[props.from] ?? ''), name: 'Then' },
  { jaw: 'to' as const, x: at.value.to, way: 1, day: sayDay(props.instants[props.to] ?? ''), name: 'Now' },
])
</script>

<template>
  <div ref="box" class="relative h-28 touch-pan-y overflow-hidden bg-sheet select-none" data-tape>
    <svg
      :width="width"
      height="112"
      :viewBox="`0 0 ${width} 112`"
      class="absolute inset-0 block cursor-pointer print:w-full"
      @pointerdown="take($event)"
      @pointermove="drag"
      @pointerup="held = null"
      @pointercancel="held = null"
    >
      <rect :x="at.from" :width="Math.max(0, wide)" y="16" height="33" class="fill-wash" />
      <TapeScale :marks="marks" :ticks="ticks" :width="width" />
      <circle
        v-for="{ jaw, x } in jaws"
        :key="`at ${jaw}`"
        :cx="x"
        cy="36"
        :r="marks.length > 90 ? 4 : 6"
        class="fill-signal stroke-signal"
        stroke-width="2"
      />
      <text
        v-for="{ jaw, day } in jaws"
        :key="jaw"
        :x="labels[jaw].x"
        y="101"
        :text-anchor="labels[jaw].anchor"
        class="fill-signal text-base font-bold"
      >
        {{ day }}
        <tspan v-if="searched && jaw === 'from'" class="fill-faded text-[13px] font-normal" dx="7" data-searched>
          picked after
        </tspan>
      </text>
      <g v-if="marks[pinned] !== undefined" :transform="`translate(${marks[pinned]} 0)`" aria-hidden="true">
        <path d="M0 43V62" class="stroke-brass" stroke-width="2.5" stroke-linecap="round" />
        <circle cy="66" r="6.5" class="fill-brass stroke-sheet" stroke-width="1.5" />
        <circle cx="-2" cy="64" r="1.6" class="fill-sheet" />
      </g>
      <text
        v-if="wide > 330"
        :x="(at.from + at.to) / 2"
        y="101"
        text-anchor="middle"
        class="fill-signal text-[15px]"
        data-length
      >
        {{ length }}
      </text>
    </svg>
    <button
      v-if="marks[pinned] !== undefined"
      type="button"
      class="absolute top-[54px] h-11 w-11 -translate-x-1/2"
      :style="{ left: `${(Math.min(width - 22, Math.max(22, marks[pinned] ?? 0)) / width) * 100}%` }"
      :aria-label="`Pinned start, ${sayDay(instants[pinned] ?? '')}: start anew`"
      title="Followed from here: press to start anew"
      data-pin
      @click="emit('pin')"
    />
    <div
      v-for="{ jaw, way, day, name } in jaws"
      :key="jaw"
      role="slider"
      tabindex="0"
      class="absolute top-2 h-13 w-11 -translate-x-1/2 cursor-ew-resize touch-none rounded"
      :style="{ left: `${(grips[jaw] / width) * 100}%` }"
      :aria-label="`${name}: check-in of`"
      :aria-valuemin="1"
      :aria-valuemax="instants.length"
      :aria-valuenow="(jaw === 'from' ? from : to) + 1"
      :aria-valuetext="day"
      :data-jaw="jaw"
      @pointerdown.stop="take($event, jaw)"
      @pointermove="drag"
      @pointerup="held = null"
      @pointercancel="held = null"
      @keydown="key($event, jaw)"
    >
      <svg viewBox="-22 0 44 52" class="size-full overflow-visible" aria-hidden="true">
        <path
          :d="way < 0 ? 'M12 7C0 5 -12 8 -12 22V34C-12 46 0 50 12 47' : 'M-12 7C0 5 12 8 12 22V34C12 46 0 50 -12 47'"
          fill="none"
          class="stroke-signal"
          stroke-width="4"
          stroke-linecap="round"
        />
      </svg>
    </div>
  </div>
</template>
