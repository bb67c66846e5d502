import { ref, type Ref } from 'vue'
import { problemOf } from './useApi'

/** Does something with the server and says in a sentence what went wrong, if anything did. */
export function useTelling(): {
  /** What went wrong last; null once something else is tried. */
  problem: Ref<string | null>
  busy: Ref<boolean>
  /** @returns whether it worked */
  tell: (action: () => Promise<unknown>) => Promise<boolean>
} {
  const problem = ref<string | null>(null)
  const busy = ref(false)
  async function tell(action: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    problem.value = null
    try {
      await action()
      return true
    } catch (error) {
      problem.value = problemOf(error).message
      return false
    } finally {
      busy.value = false
    }
  }
  return { problem, busy, tell }
}
