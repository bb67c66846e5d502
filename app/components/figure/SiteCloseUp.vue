<script setup lang="ts">
import {
  CLOSE_UPS,
  landmarkPlaces,
  markAt,
  pointOf,
  REGIONS,
  type Pair,
  type Region,
  type RegionId,
} from '#core/sites/close-ups'
import { smoothCurve, type Point } from '#core/sites/curve'
import { SITES, type SiteId } from '#core/sites'

/** One site from near: the region, bony points, what is measured between them, the mark and how the fold runs. In mm. */
const props = defineProps<{
  site: SiteId
  /** Measured on the left: everything changes sides. */
  mirrored?: boolean
  sex?: 'female' | 'male' | undefined
}>()

/** Size of writing, and how wide a letter is of it. */
const FONT = 13
const LETTER = 0.5

const closeUp = computed(() => CLOSE_UPS[props.site])
const region = computed<Region>(() => REGIONS[closeUp.value.region as RegionId])
/** One size for writing and strokes, whatever the region's. */
const unit = computed(() => Math.max(region.value.width / 300, region.value.height / 400))
/** What is seen of it. */
const frame = computed(() => {
  const room = region.value.room ?? 0
  return { x: -room, width: region.value.width + 2 * room }
})
const clip = useId()
const flip = ({ x, y }: Point): Point => ({ x: props.mirrored ? region.value.width - x : x, y })
const placed = (pair: Pair) => flip(pointOf(pair))

const mark = computed(() => (closeUp.value.kind === 'fold' ? flip(markAt(closeUp.value, props.sex)) : null))
/** The mark of the other sex, where it is another and nobody is named. */
const other = computed(() =>
  closeUp.value.kind === 'fold' && closeUp.value.female && !props.sex ? flip(markAt(closeUp.value, 'female')) : null,
)
const crest = computed(() => (closeUp.value.kind === 'fold' ? (props.mirrored ? -1 : 1) * closeUp.value.crest : 0))

const guides = computed(() => {
  const placeOf = landmarkPlaces(closeUp.value)
  const endOf = (end: string | Pair): Point =>
    end === 'mark' ? (mark.value ?? { x: 0, y: 0 }) : typeof end === 'string' ? flip(placeOf(end)) : placed(end)
  return closeUp.value.guides.map((guide) => {
    const [a, b] = [endOf(guide.from), endOf(guide.to)]
    const length = Math.hypot(b.x - a.x, b.y - a.y)
    const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length]
    // A tick a centimetre, a longer one every five.
    const ticks = guide.measured
      ? Array.from({ length: Math.floor(length / 10) + 1 }, (_, cm) => {
          const [x, y] = [a.x + ux * cm * 10, a.y + uy * cm * 10]
          const size = cm % 5 === 0 ? 5 : 3
          return `M${x} ${y}l${-uy * size} ${ux * size}`
        })
      : []
    const at = guide.wordsAt ?? 0.5
    const middle = { x: a.x + (b.x - a.x) * at, y: a.y + (b.y - a.y) * at }
    const said = guide.words
      ? beside(middle, guide.label ?? 'right', guide.words, guide.label === 'right' ? 24 : 32)
      : null
    return { ...guide, a, b, ticks: ticks.join(''), said }
  })
})

/** Where words stand beside a point; never beyond the edge. */
function beside({ x, y }: Point, side: 'left' | 'right' | 'above' | 'below', words: string, away = 10) {
  const turned = props.mirrored && side === 'left' ? 'right' : props.mirrored && side === 'right' ? 'left' : side
  const gap = away * unit.value
  const size = FONT * unit.value
  const width = words.length * size * LETTER
  const from = { left: x - gap - width, right: x + gap, above: x - width / 2, below: x - width / 2 }[turned]
  const down = { left: size / 3, right: size / 3, above: -gap, below: gap + size * 0.7 }[turned]
  const room = region.value.room ?? 0
  return { x: Math.max(2 - room, Math.min(region.value.width + room - width - 2, from)), y: y + down }
}
const landmarks = computed(() =>
  Object.values(closeUp.value.landmarks).map((one) => {
    const at = placed(one.at)
    return { ...one, at, words: beside(at, one.label, one.name) }
  }),
)

const tape = computed(() => {
  if (closeUp.value.kind !== 'girth') return null
  const { from, to, sag } = closeUp.value.tape
  const [a, b] = [placed(from), placed(to)]
  const upright = Math.abs(b.x - a.x) < Math.abs(b.y - a.y)
  const bend = (t: number): Point => {
    const off = 4 * t * (1 - t) * sag
    return { x: a.x + (b.x - a.x) * t + (upright ? -off : 0), y: a.y + (b.y - a.y) * t + (upright ? 0 : off) }
  }
  const along = Array.from({ length: 13 }, (_, i) => bend(i / 12))
  const count = Math.round(Math.hypot(b.x - a.x, b.y - a.y) / 10)
  const ticks = Array.from({ length: count - 1 }, (_, i) => {
    const { x, y } = bend((i + 1) / count)
    const size = (i + 1) % 5 === 0 ? 4 : 2.5
    return upright ? `M${x - size} ${y}h${2 * size}` : `M${x} ${y - size}v${2 * size}`
  })
  return { path: smoothCurve(along, false), ticks: ticks.join('') }
})
const description = computed(() => `${region.value.view}. ${SITES[props.site].name}: ${SITES[props.site].where}`)
</script>

<template>
  <svg
    :viewBox="`${frame.x} 0 ${frame.width} ${region.height}`"
    role="img"
    :aria-label="description"
    :data-close-up="site"
  >
    <clipPath :id="clip"><rect :x="frame.x" y="0" :width="frame.width" :height="region.height" /></clipPath>
    <g stroke-linejoin="round" stroke-linecap="round" :clip-path="`url(#${clip})`">
      <RegionDrawing :region="region" :mirrored="mirrored" :stroke="unit" />
      <g v-if="tape" fill="none">
        <path :d="tape.path" class="stroke-sheet" :stroke-width="11 * unit" stroke-linecap="butt" />
        <path :d="tape.path" class="stroke-girth" :stroke-width="8 * unit" stroke-linecap="butt" />
        <path :d="tape.ticks" class="stroke-sheet" :stroke-width="1 * unit" />
      </g>
      <g v-for="(guide, i) in guides" :key="i" class="stroke-signal" fill="none" :stroke-width="1.4 * unit">
        <path
          :d="`M${guide.a.x} ${guide.a.y}L${guide.b.x} ${guide.b.y}`"
          :stroke-dasharray="guide.measured ? undefined : `${4 * unit} ${4 * unit}`"
        />
        <path :d="guide.ticks" :stroke-width="1 * unit" />
      </g>
      <g v-if="mark" :transform="`translate(${mark.x} ${mark.y}) rotate(${crest})`">
        <!-- The fold's two sides along its crest, thumb and finger a centimetre from the jaws. -->
        <path
          d="M-7 -26C-4.5 -12 -4.5 12 -7 26M7 -26C4.5 -12 4.5 12 7 26"
          class="stroke-sum"
          fill="none"
          :stroke-width="2.2 * unit"
        />
        <path d="M-20 0H-6M20 0H6" class="stroke-ink" :stroke-width="4 * unit" stroke-linecap="butt" />
        <g class="stroke-contour" fill="none" :stroke-width="1.3 * unit">
          <ellipse cx="-10" cy="-15" rx="4.5" ry="6.5" />
          <ellipse cx="10" cy="-15" rx="4.5" ry="6.5" />
        </g>
      </g>
      <path
        v-if="other"
        :d="`M${other.x - 6} ${other.y}h12M${other.x} ${other.y - 6}v12`"
        class="stroke-sum"
        :stroke-width="2.2 * unit"
      />
      <g v-for="one in landmarks" :key="one.name + one.at.x">
        <path
          v-if="one.kind === 'bone'"
          :d="`M${one.at.x - 6 * unit} ${one.at.y}h${12 * unit}M${one.at.x} ${one.at.y - 6 * unit}v${12 * unit}`"
          class="stroke-ink"
          :stroke-width="2 * unit"
        />
        <circle
          v-else
          :cx="one.at.x"
          :cy="one.at.y"
          :r="3.2 * unit"
          class="fill-sheet stroke-ink"
          :stroke-width="1.5 * unit"
        />
      </g>
    </g>
    <g
      :font-size="FONT * unit"
      class="fill-ink"
      paint-order="stroke"
      stroke="var(--skin)"
      :stroke-width="3 * unit"
      stroke-linejoin="round"
    >
      <text v-for="one in landmarks" :key="one.name + one.at.x" :x="one.words.x" :y="one.words.y">
        {{ one.name }}
      </text>
      <template v-for="(guide, i) in guides" :key="i">
        <text v-if="guide.said" :x="guide.said.x" :y="guide.said.y" class="fill-signal font-semibold">
          {{ guide.words }}
        </text>
      </template>
    </g>
  </svg>
</template>
