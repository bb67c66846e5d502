import { useRafFn } from '@vueuse/core'
import { ref, type Ref } from 'vue'

const TONE_HZ = 880
const TONE_SECONDS = 0.18

/** One short tone. */
export function sound(context: AudioContext): void {
  const tone = context.createOscillator()
  const level = context.createGain()
  tone.frequency.value = TONE_HZ
  level.gain.setValueAtTime(0.25, context.currentTime)
  level.gain.exponentialRampToValueAtTime(0.001, context.currentTime + TONE_SECONDS)
  tone.connect(level).connect(context.destination)
  tone.start()
  tone.stop(context.currentTime + TONE_SECONDS)
}

/**
 * The count from full pressure of the jaws to the reading: a share from 0 to 1 that fills, then one tone: read now.
 * @param seconds as the school reads (core/sites SCHOOLS)
 */
export function useCount(seconds: Ref<number>) {
  const share = ref(0)
  const done = ref(false)
  let startedAt = 0
  let audio: AudioContext | null = null

  const frame = useRafFn(
    ({ timestamp }) => {
      share.value = Math.min(1, (timestamp - startedAt) / (seconds.value * 1000))
      if (share.value < 1) return
      frame.pause()
      done.value = true
      if (audio) sound(audio)
    },
    { immediate: false },
  )

  function start(): void {
    // A press is what browsers allow sound after; where there is none the ring alone counts.
    audio ??= typeof AudioContext === 'undefined' ? null : new AudioContext()
    startedAt = performance.now()
    share.value = 0
    done.value = false
    frame.resume()
  }

  function reset(): void {
    frame.pause()
    share.value = 0
    done.value = false
  }

  return { share, done, start, reset }
}
