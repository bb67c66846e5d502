<script setup lang="ts">
import { PHOTO_CONDITIONS, type Photo, type Pose } from '#shared/schemas/photo'
import { pictureAddress } from '~/calls'
import { outlineOf } from './outline-of'

/** Taking a photograph: the camera with last time's outline laid over it, or a file. Conditions as last time. */
const props = defineProps<{ pose: Pose; last: Photo | null; busy: boolean; problem: string | null }>()
const emit = defineEmits<{ close: []; taken: [picture: Blob, conditions: Record<string, string>] }>()

const STEEL = [43, 92, 138] as const
const outlineAt = (path: string) =>
  pictureAddress(path)
    .then((address) => outlineOf(address, STEEL))
    .catch(() => null)

const conditions = ref<Record<string, string>>(
  props.last?.conditions ?? Object.fromEntries(PHOTO_CONDITIONS.map(({ id, options }) => [id, options[0]?.id ?? ''])),
)
const video = useTemplateRef<HTMLVideoElement>('video')
const stream = shallowRef<MediaStream | null>(null)
const noCamera = ref<string | null>(null)
const ghost = ref<string | null>(null)
const withGhost = ref(true)
const picked = shallowRef<Blob | null>(null)
const preview = ref<string | null>(null)

async function openCamera() {
  noCamera.value = null
  try {
    stream.value = await navigator.mediaDevices.getUserMedia({
      video: { facingMode: 'environment', height: { ideal: 1600 } },
    })
    await nextTick()
    if (video.value) video.value.srcObject = stream.value
  } catch {
    noCamera.value = 'There is no camera here, or it may not be used. Choose a file instead.'
  }
}

function closeCamera() {
  stream.value?.getTracks().forEach((track) => track.stop())
  stream.value = null
}

function show(picture: Blob | null) {
  if (preview.value) URL.revokeObjectURL(preview.value)
  picked.value = picture
  preview.value = picture ? URL.createObjectURL(picture) : null
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
  show(picture)
}

function choose(event: Event) {
  closeCamera()
  show((event.target as HTMLInputElement).files?.[0] ?? null)
}

onMounted(async () => {
  if (props.last) ghost.value = await outlineAt(`/api/photos/${props.last.id}`)
})
onUnmounted(() => {
  closeCamera()
  show(null)
})
</script>

<template>
  <SheetDialog :title="`Photograph, ${pose}`" wide @close="emit('close')">
    <div class="grid gap-5 sm:grid-cols-[1fr_1.1fr]">
      <div class="relative aspect-[2/3] overflow-hidden rounded border border-rule bg-wash">
        <video v-if="stream" ref="video" autoplay playsinline muted class="size-full object-cover" />
        <img v-else-if="preview" :src="preview" alt="The photograph as chosen" class="size-full object-cover" />
        <p v-else class="px-6 py-3 text-center text-faded">The camera’s picture appears here.</p>
        <img
          v-if="ghost && withGhost"
          :src="ghost"
          alt="Outline of last time"
          class="pointer-events-none absolute inset-0 size-full object-cover"
          data-ghost
        />
      </div>
      <div class="grid content-start gap-4">
        <div v-for="condition in PHOTO_CONDITIONS" :key="condition.id" class="grid gap-1">
          <span class="text-[15px] font-semibold">{{ condition.label }}</span>
          <PressGroup
            :label="condition.label"
            :options="condition.options"
            :model-value="conditions[condition.id] ?? null"
            @update:model-value="$event && (conditions = { ...conditions, [condition.id]: $event })"
          />
        </div>
        <!-- From the first: what comes later would move the buttons under the finger. -->
        <label v-if="last" class="flex items-center gap-3" :class="ghost ? '' : 'text-faded'">
          <input v-model="withGhost" type="checkbox" class="size-5 accent-ink" :disabled="!ghost" />
          Last time’s outline over the picture
        </label>
        <div class="flex flex-wrap gap-2">
          <button v-if="stream" type="button" class="press press-first" @click="shoot">Take</button>
          <button v-else type="button" class="press" @click="openCamera">Camera</button>
          <label
            class="press cursor-pointer focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-signal"
          >
            File
            <input
              type="file"
              name="photo"
              accept="image/jpeg,image/png,image/webp"
              capture="environment"
              class="sr-only"
              @change="choose"
            />
          </label>
        </div>
        <p v-if="noCamera" class="text-[15px]">{{ noCamera }}</p>
        <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
        <div class="flex gap-2 border-t border-rule pt-4">
          <button
            type="button"
            class="press press-first"
            :disabled="!picked || busy"
            @click="picked && emit('taken', picked, conditions)"
          >
            {{ busy ? 'Keeping it' : 'Keep' }}
          </button>
          <button type="button" class="press press-quiet" @click="emit('close')">Leave</button>
        </div>
        <p class="text-sm text-faded">Kept without place, time and camera data, for people of this studio only.</p>
      </div>
    </div></SheetDialog
  >
</template>
