import { useSpeechSynthesis, useWakeLock } from '@vueuse/core'
import { onMounted, onUnmounted, ref } from 'vue'
import { sound } from '~/composables/useCount'
import { useMe } from '~/stores/me'

/** What frees the eyes and hands while measuring: the value read back, a sound at each commit, a screen that stays on. */
export function useHands() {
  const store = useMe()
  const words = ref('')
  const speech = useSpeechSynthesis(words, { lang: 'en' })
  const wake = useWakeLock()
  let audio: AudioContext | null = null

  onMounted(() => {
    // Refused in the background or without battery: then the screen dims as it always does.
    if (wake.isSupported.value) wake.request('screen').catch(() => undefined)
  })
  onUnmounted(() => {
    wake.release().catch(() => undefined)
    if (speech.isSupported.value) speech.stop()
  })

  /** Says what was kept, when the coach has switched it on and the browser can speak. */
  function readBack(site: string, figure: string): void {
    const { readback, sounds } = store.me?.habits ?? {}
    if (sounds && typeof AudioContext !== 'undefined') sound((audio ??= new AudioContext()))
    if (!readback || !speech.isSupported.value) return
    words.value = `${site}, ${figure}`
    speech.stop()
    speech.speak()
  }

  return { readBack, canSpeak: speech.isSupported }
}
