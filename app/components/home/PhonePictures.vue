<script setup lang="ts">
import type { Pose } from '#shared/schemas/photo'
import type { HandIn } from '~/composables/useHandIn'
import { pictureAddress } from '~/calls'
import { outlineOf } from '../photos/outline-of'
import { smaller } from './smaller'

/** Three pictures, one a screen: last week's outline over the camera, a timer to step back by. */
const props = defineProps<{ hand: HandIn }>()
const emit = defineEmits<{ done: []; back: [] }>()

const STEEL = [141, 187, 230] as const
const outlineAt = (path: string) =>
  pictureAddress(path)
    .then((address) => outlineOf(address, STEEL))
    .catch(() => null)
const SECONDS = 10
const WORDS: Record<Pose, { name: string; how: string }> = {
  front: { name: 'Front', how: 'Head to toes in the picture, arms a little out of the way.' },
  side: { name: 'Side', how: 'Turned a quarter, arms raised forward.' },
  back: { name: 'Back', how: 'Turned away, arms a little out of the way.' },
}

const poses = props.hand.poses
const at = ref(
  Math.max(
    0,
    poses.findIndex((pose) => !props.hand.pictures.value.some((one) => one.pose === pose)),
  ),
)
const pose = computed<Pose>(() => poses[at.value] ?? 'front')
const taken = computed(() => props.hand.pictures.value.find((one) => one.pose === pose.value) ?? null)
const shown = ref<string | null>(null)
const ghost = ref<string | null>(null)
const video = useTemplateRef<HTMLVideoElement>('video')
const stream = shallowRef<MediaStream | null>(null)
const left = ref(0)
const problem = ref<string | null>(null)

watch(
  taken,
  (one) => {
    if (shown.value) URL.revokeObjectURL(shown.value)
    shown.value = one ? URL.createObjectURL(one.picture) : null
  },
  { immediate: true },
)
/** The newest picture of the same pose that was handed in before. */
const before = computed(() => {
  const all = props.hand.home.value?.weeks.flatMap(({ photos }) => photos) ?? []
  return all.filter((one) => one.pose === pose.value).sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1))[0] ?? null
})
watch(
  before,
  async (one) => {
    ghost.value = null
    if (one) ghost.value = await outlineAt(`/api/hand-in/photos/${one.id}`)
  },
  { immediate: true },
)

async function openCamera() {
  problem.value = null
  try {
    stream.value = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'user', height: { ideal: 1600 } } })
    await nextTick()
    if (video.value) video.value.srcObject = stream.value
  } catch {
    problem.value = 'The camera may not be used here. Choose a picture from the phone instead.'
  }
}
function closeCamera() {
  stream.value?.getTracks().forEach((track) => track.stop())
  stream.value = null
  left.value = 0
}
const { pause, resume } = useIntervalFn(
  () => {
    left.value -= 1
    if (left.value > 0) return
    pause()
    void shoot()
  },
  1000,
  { immediate: false },
)
function count() {
  left.value = SECONDS
  resume()
}
async function shoot() {
  const source = video.value
  if (!source?.videoWidth) return
  const canvas = document.createElement('canvas')
  canvas.width = source.videoWidth
  canvas.height = source.videoHeight
  canvas.getContext('2d')?.drawImage(source, 0, 0)
  const picture = await new Promise<Blob | null>((give) => canvas.toBlob(give, 'image/jpeg', 0.92))
  closeCamera()
  if (picture) await keep(picture)
}
async function keep(picture: Blob) {
  problem.value = null
  try {
    await props.hand.keepPicture(pose.value, await smaller(picture))
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
async function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) await keep(file)
  input.value = ''
}
function go(by: number) {
  closeCamera()
  const to = at.value + by
  if (to < 0) emit('back')
  else if (to >= poses.length) emit('done')
  else at.value = to
}
onUnmounted(() => {
  closeCamera()
  if (shown.value) URL.revokeObjectURL(shown.value)
})
</script>

<template>
  <div class="flex flex-1 flex-col gap-3" data-pictures>
    <div>
      <p class="text-lg text-faded">Three pictures, {{ at + 1 }} of 3</p>
      <h1 class="text-3xl font-bold">{{ WORDS[pose].name }}</h1>
      <p class="text-lg">{{ WORDS[pose].how }} Same clothes, place and light as last time.</p>
    </div>
    <div class="relative mx-auto aspect-[3/4] max-h-[46dvh] overflow-hidden rounded border border-contour bg-wash">
      <video v-if="stream" ref="video" autoplay playsinline muted class="size-full object-cover" />
      <img v-else-if="shown" :src="shown" :alt="`The picture as taken, ${pose}`" class="size-full object-cover" />
      <p
        v-else
        class="grid size-full p-4 text-center text-lg text-faded"
        :class="ghost ? 'content-start' : 'place-items-center'"
      >
        {{ ghost ? 'The outline is last time’s: stand inside it.' : 'The picture appears here.' }}
      </p>
      <img
        v-if="ghost && !shown"
        :src="ghost"
        alt="Outline of last time"
        class="pointer-events-none absolute inset-0 size-full object-cover"
        data-ghost
      />
      <p v-if="left > 0" class="figure absolute inset-0 grid place-items-center text-9xl text-ink" role="timer">
        {{ left }}
      </p>
    </div>
    <p v-if="problem" role="alert" class="text-lg font-semibold text-alert">{{ problem }}</p>
    <div class="mt-auto grid gap-3">
      <div class="grid grid-cols-2 gap-2">
        <template v-if="stream">
          <button type="button" class="press min-h-14 text-lg" :disabled="left > 0" @click="count">
            In {{ SECONDS }} seconds
          </button>
          <button type="button" class="press min-h-14 text-lg" @click="shoot">Now</button>
        </template>
        <template v-else>
          <button type="button" class="press min-h-14 text-lg" @click="openCamera">
            {{ taken ? 'Take it again' : 'Camera' }}
          </button>
          <label
            class="press min-h-14 cursor-pointer text-lg focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-signal"
            >From the phone
            <input type="file" name="picture" accept="image/*" class="sr-only" @change="choose" />
          </label>
        </template>
      </div>
      <button type="button" class="press press-first min-h-16 text-xl" @click="go(1)">
        {{ taken ? 'Next' : 'Leave this one out' }}
      </button>
      <button type="button" class="min-h-12 text-lg underline underline-offset-4" @click="go(-1)">Back</button>
    </div>
  </div>
</template>
