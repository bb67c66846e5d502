<script setup lang="ts">
import { drawBody, drawSite, foldMoved, missCm, type DrawnSite } from '#core/drills'
import { FOLD_CLOSE_UPS } from '#core/sites/close-ups'
import type { Point } from '#core/sites/curve'
import { FOLDS, type FoldSiteId } from '#core/sites'
import { seededRandom } from '#core/simulate'
import { formatNumber } from '#core/units'

/** A drawn body: press for bony points, then point to where the mark belongs. By arrows and Enter as well. */
const props = defineProps<{ level: number }>()
const emit = defineEmits<{ done: [score: number, detail: Record<string, string | number>] }>()
const SITES = Object.keys(FOLD_CLOSE_UPS) as FoldSiteId[]
/** One lot for a visit to the page. */
const random = seededRandom(Date.now())
let before: FoldSiteId | null = null
const drawn = shallowRef<DrawnSite>(next())
const shown = ref(new Set<string>())
const pointed = ref<Point | null>(null)
/** Where the keys stand, mm. */
const aim = ref<Point | null>(null)
const svg = useTemplateRef<SVGSVGElement>('svg')

function next(): DrawnSite {
  // Another site than the one before.
  const others = SITES.filter((one) => one !== before)
  before = others[Math.floor(random.next() * others.length)] ?? 'triceps'
  return drawSite(before, drawBody(random, props.level))
}
const region = computed(() => drawn.value.region)
const room = computed(() => region.value.room ?? 0)
const unit = computed(() => Math.max(region.value.width / 300, region.value.height / 400))
const site = computed(() => FOLDS[drawn.value.site])
const miss = computed(() => (pointed.value ? missCm(drawn.value.mark, pointed.value) : null))
const moved = computed(() => (miss.value === null ? null : foldMoved(miss.value)))

/** A press on the picture, in mm. */
function placeOf(event: MouseEvent): Point | null {
  const matrix = svg.value?.getScreenCTM()?.inverse()
  if (!matrix) return null
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  return { x, y }
}
/** A press within a finger's breadth of a hidden bony point finds it; anywhere else it sets the mark. */
const NEAR_MM = 14

function press(at: Point | null) {
  if (!at || pointed.value) return
  const bone = drawn.value.landmarks.find(
    ({ id, at: there }) => !shown.value.has(id) && Math.hypot(there.x - at.x, there.y - at.y) < NEAR_MM,
  )
  // On the mark's own place a landmark does not swallow the pointing.
  if (bone && missCm(drawn.value.mark, at) > 0.8) return void shown.value.add(bone.id)
  point(at)
}

function point(at: Point) {
  pointed.value = at
  emit('done', Math.round(missCm(drawn.value.mark, at) * 100) / 100, { site: drawn.value.site })
}

function again() {
  drawn.value = next()
  shown.value = new Set()
  pointed.value = null
  aim.value = null
}

function showAll() {
  shown.value = new Set(drawn.value.landmarks.map(({ id }) => id))
}

function keys(event: KeyboardEvent) {
  if (pointed.value) return void (event.key === 'Enter' && (event.preventDefault(), again()))
  const from = aim.value ?? { x: region.value.width / 2, y: region.value.height / 2 }
  const by = event.shiftKey ? 20 : 4
  const step = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[event.key]
  if (step) aim.value = { x: from.x + (step[0] ?? 0), y: from.y + (step[1] ?? 0) }
  else if (event.key === 'Enter') press(from)
  else if (event.key === 'b') showAll()
  else return
  event.preventDefault()
}
defineExpose({ again })
</script>

<template>
  <div class="grid min-h-0 flex-1 gap-x-8 gap-y-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <svg
      ref="svg"
      :viewBox="`${-room} 0 ${region.width + 2 * room} ${region.height}`"
      class="h-full max-h-[70dvh] min-h-0 w-full cursor-crosshair touch-none outline-offset-4"
      role="application"
      tabindex="0"
      :aria-label="`${region.view}. Point to the ${site.name.toLowerCase()} site: arrows move, Enter marks, b shows the bony points.`"
      data-body
      :data-mark="`${drawn.mark.x.toFixed(1)} ${drawn.mark.y.toFixed(1)}`"
      @pointerdown.prevent="press(placeOf($event))"
      @keydown="keys"
    >
      <RegionDrawing :region="region" :stroke="unit" />
      <g v-for="one in drawn.landmarks" :key="one.id">
        <g v-if="shown.has(one.id) || pointed" class="stroke-ink" :stroke-width="2 * unit" fill="none">
          <path
            :d="`M${one.at.x - 6 * unit} ${one.at.y}h${12 * unit}M${one.at.x} ${one.at.y - 6 * unit}v${12 * unit}`"
          />
          <text
            :x="Math.min(one.at.x + 9 * unit, region.width + room - one.name.length * 6.5 * unit)"
            :y="one.at.y - 8 * unit"
            :font-size="13 * unit"
            class="fill-ink"
            stroke="none"
          >
            {{ one.name }}
          </text>
        </g>
      </g>
      <g v-if="aim && !pointed" class="stroke-signal" fill="none" :stroke-width="1.6 * unit">
        <circle :cx="aim.x" :cy="aim.y" :r="8 * unit" />
        <path :d="`M${aim.x - 13 * unit} ${aim.y}h${26 * unit}M${aim.x} ${aim.y - 13 * unit}v${26 * unit}`" />
      </g>
      <g v-if="pointed">
        <path
          :d="`M${pointed.x} ${pointed.y}L${drawn.mark.x} ${drawn.mark.y}`"
          class="stroke-fat"
          :stroke-width="2 * unit"
        />
        <circle :cx="pointed.x" :cy="pointed.y" :r="5 * unit" class="fill-sheet stroke-fat" :stroke-width="2 * unit" />
        <g :transform="`translate(${drawn.mark.x} ${drawn.mark.y}) rotate(${drawn.crest})`">
          <path
            d="M-7 -26C-4.5 -12 -4.5 12 -7 26M7 -26C4.5 -12 4.5 12 7 26"
            class="stroke-sum"
            fill="none"
            :stroke-width="2.2 * unit"
          />
          <path d="M-20 0H-6M20 0H6" class="stroke-ink" :stroke-width="4 * unit" />
        </g>
      </g>
    </svg>
    <div class="grid content-start gap-3" aria-live="polite">
      <p class="text-3xl font-bold">{{ site.name }}</p>
      <template v-if="miss === null">
        <p class="text-lg">Find the bony points by pressing where you would feel for them, then point to the mark.</p>
        <p class="text-faded">{{ shown.size }} of {{ drawn.landmarks.length }} landmarks found.</p>
        <button type="button" class="press press-quiet min-h-12 justify-self-start" data-landmarks @click="showAll">
          Show the landmarks{{ ' ' }}<span class="figure text-faded">b</span>
        </button>
      </template>
      <template v-else>
        <p>
          <span class="figure text-6xl font-bold" data-score>{{ formatNumber(miss, 1) }}</span>
          <span class="text-xl text-faded"> cm off</span>
        </p>
        <p v-if="moved" class="max-w-prose">
          A miss of that size can move a usual fold of 16 mm here by some
          <span class="figure">{{ formatNumber(moved.low, 1) }}</span> to
          <span class="figure">{{ formatNumber(moved.high, 1) }}</span> mm.
          <span class="text-faded">(Hume &amp; Marfell-Jones 2008, recalled.)</span>
        </p>
        <p class="text-lg">{{ site.where }}</p>
      </template>
      <slot />
    </div>
  </div>
</template>
