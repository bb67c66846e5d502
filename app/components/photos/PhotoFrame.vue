<script setup lang="ts">
import { clamp } from '@vueuse/core'
import type { Alignment, Photo } from '#shared/schemas/photo'

/** One photograph in a frame of fixed shape with level lines; drag and pinch (or keys) lay it over the others. */
const props = defineProps<{ photo: Photo; label: string; aligning: boolean; lines: boolean }>()
const emit = defineEmits<{ aligned: [alignment: Alignment] }>()

const frame = useTemplateRef<HTMLElement>('frame')
const alignment = ref<Alignment>({ ...props.photo.alignment })
watch(
  () => props.photo,
  (photo) => (alignment.value = { ...photo.alignment }),
)

const pointers = new Map<number, { x: number; y: number }>()

function put(x: number, y: number, scale: number) {
  alignment.value = { x: clamp(x, -1, 1), y: clamp(y, -1, 1), scale: clamp(scale, 0.5, 2) }
}

function down(event: PointerEvent) {
  if (!props.aligning) return
  event.preventDefault()
  pointers.set(event.pointerId, { x: event.clientX, y: event.clientY })
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}

function spread(): number {
  const [a, b] = [...pointers.values()]
  return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0
}

function move(event: PointerEvent) {
  const last = pointers.get(event.pointerId)
  const box = frame.value?.getBoundingClientRect()
  if (!last || !box) return
  const before = spread()
  pointers.set(event.pointerId, { x: event.clientX, y: event.clientY })
  const { x, y, scale } = alignment.value
  // Each finger of a pinch carries its half of the shift.
  const share = 1 / pointers.size
  put(
    x + ((event.clientX - last.x) / box.width) * share,
    y + ((event.clientY - last.y) / box.height) * share,
    before > 0 ? (scale * spread()) / before : scale,
  )
}

function up(event: PointerEvent) {
  if (pointers.delete(event.pointerId) && pointers.size === 0) emit('aligned', alignment.value)
}

const STEP = 0.01
const KEYS: Record<string, [x: number, y: number, scale: number]> = {
  ArrowLeft: [-STEP, 0, 1],
  ArrowRight: [STEP, 0, 1],
  ArrowUp: [0, -STEP, 1],
  ArrowDown: [0, STEP, 1],
  '+': [0, 0, 1.02],
  '-': [0, 0, 1 / 1.02],
}

function key(event: KeyboardEvent) {
  const step = props.aligning ? KEYS[event.key] : undefined
  if (!step) return
  event.preventDefault()
  const { x, y, scale } = alignment.value
  put(x + step[0], y + step[1], scale * step[2])
  emit('aligned', alignment.value)
}

function wheel(event: WheelEvent) {
  if (!props.aligning) return
  event.preventDefault()
  const { x, y, scale } = alignment.value
  put(x, y, scale * (event.deltaY < 0 ? 1.03 : 1 / 1.03))
  emit('aligned', alignment.value)
}
</script>

<template>
  <div
    ref="frame"
    class="relative aspect-[2/3] w-full overflow-hidden rounded border border-rule bg-wash"
    :class="{ 'cursor-grab touch-none outline-2 outline-signal': aligning }"
    :tabindex="aligning ? 0 : undefined"
    :role="aligning ? 'group' : undefined"
    :aria-label="aligning ? `${label}: arrows move it, plus and minus enlarge it` : undefined"
    :data-photo="photo.id"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @keydown="key"
    @wheel="wheel"
  >
    <SignedPicture
      :path="`/api/photos/${photo.id}`"
      :alt="label"
      draggable="false"
      class="size-full object-cover select-none"
      :style="{ transform: `translate(${alignment.x * 100}%, ${alignment.y * 100}%) scale(${alignment.scale})` }"
    />
    <template v-if="lines || aligning">
      <span
        v-for="at in [12.5, 25, 37.5, 50, 62.5, 75, 87.5]"
        :key="at"
        class="absolute inset-x-0 border-t border-signal/50"
        :style="{ top: `${at}%` }"
      />
      <span class="absolute inset-y-0 left-1/2 border-l border-signal/50" />
    </template>
  </div>
</template>
