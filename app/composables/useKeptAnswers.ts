import { ref, type Ref } from 'vue'
import { fetcher, heedRefusal } from '~/calls'

/** The header the service worker puts on an answer out of the device's store: when the server gave it. */
const KEPT_SINCE = 'x-kept-since'

/**
 * Asks the server and notes whether the answer came from it or, the server being out of reach, from the device's store.
 * `keptSince` is null for a fresh answer, otherwise the instant in ms the kept one was given.
 */
export function useKeptAnswers(): {
  keptSince: Ref<number | null>
  ask: <T>(path: string, query?: Record<string, string | number | boolean>) => Promise<T>
} {
  const keptSince = ref<number | null>(null)
  async function ask<T>(path: string, query: Record<string, string | number | boolean> = {}): Promise<T> {
    const answer = await fetcher()
      .raw<unknown>(path, { query })
      .catch((error: unknown) => {
        heedRefusal(error, 'GET')
        throw error
      })
    const since = answer.headers.get(KEPT_SINCE)
    keptSince.value = since === null ? null : Date.parse(since)
    return answer._data as T
  }
  return { keptSince, ask }
}
