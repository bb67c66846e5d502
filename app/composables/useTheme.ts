import { useStorage } from '@vueuse/core'
import { watchEffect } from 'vue'

export type Theme = 'light' | 'dim'

/** The theme of this device: chalked paper, or dim for dark rooms. */
export function useTheme() {
  const theme = useStorage<Theme>('oak-pinch-theme', 'light', undefined, { writeDefaults: false })
  watchEffect(() => {
    document.documentElement.dataset.theme = theme.value
  })
  return theme
}
