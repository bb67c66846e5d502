import { computed, ref } from 'vue'
import type { Problem } from '#shared/schemas/problem'
import { problemOf } from './useApi'

/** Problems the server found in a form, by field; what belongs to no shown field is the form's own. */
export function useProblems(shown: readonly string[]) {
  const problem = ref<Problem | null>(null)

  const byField = computed(() => new Map(problem.value?.fields.map(({ field, message }) => [field, message] as const)))
  const ofForm = computed(() =>
    problem.value && !problem.value.fields.some(({ field }) => shown.includes(field)) ? problem.value.message : null,
  )

  /** Sends a form; what the server finds wrong is kept to be shown. Gives whether it worked. */
  async function send(action: () => Promise<unknown>): Promise<boolean> {
    problem.value = null
    try {
      await action()
      return true
    } catch (error) {
      problem.value = problemOf(error)
      return false
    }
  }
  return { problem, byField, ofForm, send }
}

/** The first sentence of a TanStack field's errors, whatever validator they came from. */
export function firstError(errors: readonly unknown[]): string | undefined {
  const [error] = errors.flat()
  if (typeof error === 'string') return error
  if (error && typeof error === 'object' && 'message' in error) return String(error.message)
  return undefined
}
