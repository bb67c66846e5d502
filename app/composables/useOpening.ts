import { onMounted } from 'vue'
import { problemOf } from './useApi'

/** Fetches what a page stands on once it is there; where that fails the page says why instead. */
export function useOpening(open: () => Promise<unknown>): void {
  onMounted(async () => {
    try {
      await open()
    } catch (error) {
      showWhy(error)
    }
  })
}

/** Puts the reason of a failure in the page's place. */
export function showWhy(error: unknown): void {
  const { status, message } = problemOf(error)
  showError({ statusCode: status || 503, message })
}
