<script setup lang="ts">
import { conditionChanges } from '#core/composition'
import { photoBarred } from '#core/safety'
import { PHOTO_CONDITIONS, POSES, type Alignment, type Photo, type Pose } from '#shared/schemas/photo'
import type { FollowedEnd } from '#shared/following'
import type { Client } from '#shared/schemas/client'

/** Photographs of the span: then and now side by side or under a slider, and new ones for the later check-in. */
const props = defineProps<{
  client: Client
  photos: readonly Photo[]
  ends: readonly FollowedEnd[]
  /** Places of the two check-ins. */
  from: number
  to: number
  busy: boolean
  /** Both give whether it worked. */
  keep: (pose: Pose, picture: Blob, conditions: Record<string, string>) => Promise<boolean>
  remove: (photo: Photo) => Promise<boolean>
}>()
const emit = defineEmits<{ align: [photo: Photo, alignment: Alignment]; beside: [place: number] }>()
const problem = defineModel<string | null>('problem', { required: true })
/** Under 18 a guardian agrees to photographs on their own. */
const barred = computed(() => photoBarred(props.client, todayHere()))
const then = computed(() => props.ends[props.from] ?? null)
const now = computed(() => props.ends[props.to] ?? null)
const LIMIT_MB = 25
const MODES = [
  { id: 'side', name: 'Side by side' },
  { id: 'slider', name: 'Slider' },
] as const
const VIEWS = POSES.map((of) => ({ id: of, name: of }))

const mode = ref<'side' | 'slider'>('side')
const pose = ref<Pose>('front')
const slider = ref(50)
const lines = ref(false)
const aligning = ref(false)
const taking = ref<Pose | null>(null)
const removing = ref<string | null>(null)

/** The newest photograph of a pose at a check-in. */
function at(checkinId: string | undefined, of: Pose): Photo | null {
  return props.photos.findLast((photo) => photo.checkinId === checkinId && photo.pose === of) ?? null
}
/** The photograph of a pose from the newest check-in before the later jaw. */
function before(of: Pose): Photo | null {
  const earlier = props.ends.slice(0, props.to).reverse()
  return earlier.map(({ record }) => at(record.id, of)).find((photo) => photo !== null) ?? null
}
const pairs = computed(() =>
  POSES.map((of) => ({ pose: of, then: at(then.value?.record.id, of), now: at(now.value?.record.id, of) })),
)
const pair = computed(() => pairs.value.find((one) => one.pose === pose.value) ?? null)
/** Check-ins before the later jaw that hold a photograph, by their place: what can be laid beside it. */
const photographed = computed(() =>
  props.ends.flatMap(({ record }, place) =>
    place < props.to && props.photos.some(({ checkinId }) => checkinId === record.id)
      ? [{ place, day: sayDay(record.day) }]
      : [],
  ),
)
/** Conditions that were not the same in the two photographs. */
const differences = computed(() =>
  pairs.value.flatMap(({ pose: of, then: a, now: b }) =>
    conditionChanges(a?.conditions ?? {}, b?.conditions ?? {}, PHOTO_CONDITIONS).map(
      ({ condition, then: before, now: after }) => `${condition.label}, ${of}: ${before.name} then, ${after.name} now.`,
    ),
  ),
)
const day = (end: typeof now.value) => (end ? sayDay(end.record.day) : '')

async function keepTaken(picture: Blob, conditions: Record<string, string>) {
  if (!taking.value) return
  problem.value =
    picture.size > LIMIT_MB * 1024 * 1024
      ? `A photograph has at most ${LIMIT_MB} MB: please choose a smaller one.`
      : null
  if (!problem.value && (await props.keep(taking.value, picture, conditions))) taking.value = null
}

async function takeAway(photo: Photo) {
  if (await props.remove(photo)) removing.value = null
}

function take(of: Pose) {
  problem.value = null
  taking.value = of
}
</script>

<template>
  <div v-if="now" class="px-4 py-4 sm:px-6" data-photos>
    <p v-if="!client.photoConsentOn" class="max-w-2xl" data-no-consent>
      Consent to photographs is not on record. It is asked for apart from consent to be measured: note it under
      <NuxtLink :to="`/clients/${client.id}/edit`" class="underline">Change</NuxtLink>.
    </p>
    <p v-else-if="barred" class="max-w-2xl" data-no-consent>
      {{ barred }} Note it under <NuxtLink :to="`/clients/${client.id}/edit`" class="underline">Change</NuxtLink>.
    </p>
    <template v-else>
      <div class="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
        <PressGroup v-model="mode" label="How the two are shown" :options="MODES" />
        <label class="flex min-h-9 items-center gap-2"
          ><input v-model="lines" type="checkbox" class="size-5 accent-ink" />Level lines</label
        >
        <label v-if="mode === 'side'" class="flex min-h-9 items-center gap-2">
          <input v-model="aligning" type="checkbox" name="align" class="size-5 accent-ink" />Align by drag and pinch
        </label>
        <PressGroup v-if="mode === 'slider'" v-model="pose" label="View" :options="VIEWS" />
      </div>
      <p v-if="photographed.length > 0" class="mb-2 flex flex-wrap gap-x-4 text-[15px]" data-photographed>
        <span class="py-2 text-faded">Beside {{ day(now) }}:</span>
        <button
          v-for="one in photographed"
          :key="one.place"
          class="min-h-9 underline underline-offset-4"
          :class="{ 'font-bold': one.place === from }"
          @click="emit('beside', one.place)"
        >
          {{ one.day }}
        </button>
      </p>
      <p v-for="difference in differences" :key="difference" class="mb-2 text-[15px] font-semibold text-alert">
        {{ difference }}
      </p>
      <p v-if="problem && !taking" role="alert" class="mb-2 font-semibold text-alert">{{ problem }}</p>

      <div v-if="mode === 'side'" class="grid gap-6 lg:grid-cols-3">
        <section v-for="one in pairs" :key="one.pose" :aria-label="one.pose" :data-pose="one.pose">
          <h3 class="mb-1 font-semibold first-letter:uppercase">{{ one.pose }}</h3>
          <div class="grid grid-cols-2 gap-2">
            <figure v-for="side in ['then', 'now'] as const" :key="side">
              <PhotoFrame
                v-if="one[side]"
                :photo="one[side]"
                :label="`${one.pose}, ${side === 'then' ? day(then) : day(now)}`"
                :aligning="aligning"
                :lines="lines"
                @aligned="one[side] && emit('align', one[side], $event)"
              />
              <div
                v-else
                class="grid aspect-[2/3] place-items-center rounded border border-dashed border-contour p-3 text-center text-[15px] text-faded"
              >
                <button v-if="side === 'now'" class="press" @click="take(one.pose)">Add {{ one.pose }}</button>
                <span v-else>none then</span>
              </div>
              <figcaption class="mt-1 flex items-center justify-between text-[15px]">
                <span>{{ side === 'then' ? day(then) : day(now) }}</span>
                <template v-if="one[side]">
                  <button
                    v-if="removing !== one[side].id"
                    class="min-h-9 text-faded underline underline-offset-4"
                    :aria-label="`Take away ${one.pose}, ${side}`"
                    @click="removing = one[side].id"
                  >
                    take away
                  </button>
                  <button
                    v-else
                    class="min-h-9 font-bold text-alert underline underline-offset-4"
                    @click="takeAway(one[side])"
                  >
                    delete for good
                  </button>
                </template>
              </figcaption>
            </figure>
          </div>
        </section>
      </div>
      <div v-else class="mx-auto grid max-w-md gap-3">
        <template v-if="pair?.then && pair.now">
          <div class="relative">
            <PhotoFrame :photo="pair.then" :label="`${pose}, ${day(then)}`" :aligning="false" :lines="lines" />
            <div class="absolute inset-0" :style="{ clipPath: `inset(0 0 0 ${slider}%)` }">
              <PhotoFrame :photo="pair.now" :label="`${pose}, ${day(now)}`" :aligning="false" :lines="lines" />
            </div>
            <span
              class="pointer-events-none absolute inset-y-0 border-l-2 border-signal"
              :style="{ left: `${slider}%` }"
            />
          </div>
          <label class="grid gap-1">
            <span class="flex justify-between text-[15px]"
              ><span>{{ day(then) }}</span><span>{{ day(now) }}</span></span
            >
            <input
              v-model.number="slider"
              type="range"
              min="0"
              max="100"
              class="w-full accent-signal"
              aria-label="How much of now is shown"
            />
          </label>
        </template>
        <p v-else class="text-faded">Both check-ins need a photograph from the {{ pose }}.</p>
      </div>
      <PhotoTake
        v-if="taking"
        :pose="taking"
        :last="before(taking)"
        :busy="busy"
        :problem="problem"
        @close="taking = null"
        @taken="keepTaken"
      />
    </template>
  </div>
</template>
