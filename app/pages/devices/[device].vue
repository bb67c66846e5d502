<script setup lang="ts">
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { BLOCK_STEPS_MM, writeLine, type DeviceMessage } from '#core/devices'
import { caliperShows, scaleShows, seededRandom } from '#core/simulate'
import { asSite, isFold, SITES } from '#core/sites'
import { formatNumber } from '#core/units'
import { DEVICE_CHANNEL } from '~/composables/useDevices'

definePageMeta({ layout: 'bare' })

const route = useRoute()
const device = route.params.device === 'scale' ? ('scale' as const) : ('caliper' as const)
useHead({ title: device === 'scale' ? 'Stand-in scale' : 'Stand-in caliper' })

/** An invented client: folds in mm by site, so that the stand-in shows what belongs to the site being measured. */
const FOLDS_MM: Record<string, number> = {
  triceps: 15,
  subscapular: 11.5,
  chest: 8,
  midaxillary: 10,
  suprailiac: 14,
  abdominal: 18,
  thigh: 22,
}
const TICK_MS = 100

const random = seededRandom(Date.now())
const site = ref('triceps')
const truth = ref(device === 'scale' ? 72.4 : (FOLDS_MM.triceps ?? 12))
const zeroError = ref(0)
const noise = ref(0.1)
/** The jaws are on a step of the stand-in block, which gives no way; null: on a fold. */
const block = ref<number | null>(null)
const connected = ref(true)
const since = ref<number | null>(null)
const shown = ref(0)
const settled = ref(true)
const lastLine = ref('')
const channel = new BroadcastChannel(DEVICE_CHANNEL)

function send(message: DeviceMessage) {
  if (!connected.value) return
  const line = writeLine(message)
  if (message.type === 'press') lastLine.value = line
  channel.postMessage(line)
}

useEventListener(channel, 'message', (event: MessageEvent) => {
  const found = /"type":"site","site":"([a-z0-9-]+)"/.exec(String(event.data))?.[1]
  const known = asSite(found ?? '')
  if (device !== 'caliper' || !known || !isFold(known)) return
  site.value = known
  truth.value = FOLDS_MM[known] ?? 12
})

useIntervalFn(() => {
  if (since.value === null) return
  const seconds = (performance.now() - since.value) / 1000
  if (device === 'scale') {
    const now = scaleShows(truth.value, seconds, random)
    shown.value = now.kg
    settled.value = now.settled
  } else if (block.value !== null) {
    shown.value = Math.max(0, block.value + zeroError.value + noise.value * random.normal())
  } else {
    shown.value = caliperShows(truth.value, seconds, { zeroErrorMm: zeroError.value, noiseMm: noise.value }, random)
  }
  send({ type: 'value', device, value: shown.value, settled: settled.value })
}, TICK_MS)

function begin() {
  send({ type: 'hello', device, name: `stand-in ${device}` })
  since.value = performance.now()
}

/** The button: the value shown now, a caliper's read to the half millimetre. */
function press() {
  if (since.value === null) begin()
  const least = block.value === null ? 1.5 : 0
  const value = device === 'scale' ? truth.value : Math.max(least, Math.round(shown.value * 2) / 2 || truth.value)
  send({ type: 'press', device, value, id: crypto.randomUUID() })
  since.value = null
}

onUnmounted(() => channel.close())
</script>

<template>
  <section class="grid gap-4">
    <h1 class="text-2xl font-bold">Stand-in {{ device }}</h1>
    <p class="text-faded">
      A simulated {{ device }}: leave it open in a window beside the log sheet. It speaks the lines of docs/devices.md.
    </p>
    <p class="figure text-6xl font-bold" data-shown>
      {{ formatNumber(shown, 1) }} <span class="text-xl text-faded">{{ device === 'scale' ? 'kg' : 'mm' }}</span>
    </p>
    <p v-if="device === 'caliper'" class="text-faded" data-site>
      at {{ SITES[asSite(site) ?? 'triceps'].name.toLowerCase() }}
    </p>
    <div class="flex gap-2">
      <button class="press min-h-14 flex-1" @click="begin">{{ device === 'scale' ? 'Step on' : 'Pinch' }}</button>
      <button class="press press-first min-h-14 flex-1" @click="press">Press</button>
    </div>
    <div class="grid grid-cols-3 gap-3">
      <label class="grid gap-1">
        <span class="text-sm font-semibold">True value</span>
        <input v-model.number="truth" name="truth" type="number" step="0.1" class="field figure" />
      </label>
      <label v-if="device === 'caliper'" class="grid gap-1">
        <span class="text-sm font-semibold">Zero error</span>
        <input v-model.number="zeroError" name="zero" type="number" step="0.1" class="field figure" />
      </label>
      <label v-if="device === 'caliper'" class="grid gap-1">
        <span class="text-sm font-semibold">Noise</span>
        <input v-model.number="noise" name="noise" type="number" step="0.1" min="0" class="field figure" />
      </label>
    </div>
    <fieldset v-if="device === 'caliper'" class="grid gap-2 border-l-4 border-rule pl-4">
      <legend class="font-semibold">Stand-in block</legend>
      <p class="text-sm text-faded">
        A step of steel gives no way: what it shows beyond the step is the caliper’s own.
      </p>
      <div class="flex flex-wrap gap-2">
        <button
          v-for="mm in BLOCK_STEPS_MM"
          :key="mm"
          type="button"
          class="press"
          :class="block === mm ? 'press-first' : 'press-quiet'"
          :aria-pressed="block === mm"
          :data-step="mm"
          @click="((block = mm), begin())"
        >
          {{ mm }} mm
        </button>
        <button
          type="button"
          class="press press-quiet"
          :disabled="block === null"
          @click="((block = null), (since = null))"
        >
          on a fold again
        </button>
      </div>
    </fieldset>
    <fieldset class="grid gap-2 border-l-4 border-rule pl-4">
      <legend class="font-semibold">Faults to try</legend>
      <label class="flex min-h-9 items-center gap-2">
        <input v-model="connected" type="checkbox" class="size-5 accent-ink" /> connected
      </label>
      <div class="flex flex-wrap gap-2">
        <button class="press press-quiet" :disabled="!lastLine" @click="channel.postMessage(lastLine)">
          Repeat the last line
        </button>
        <button
          class="press press-quiet"
          @click="
            channel.postMessage(
              '{&quot;type&quot;:&quot;press&quot;,&quot;device&quot;:&quot;caliper&quot;,&quot;mm&quot;:&quot;often&quot;}\n%%%',
            )
          "
        >
          Send nonsense
        </button>
      </div>
    </fieldset>
  </section>
</template>
