import { computed, ref } from 'vue'
import type { Problem } from '#shared/schemas/problem'

/** Problems the server found in a form, by field; what belongs to no shown field is the form's own. */
export function useProblems(shown: readonly string[]) {
  const problem = ref<Problem | null>(null)

  const byField = computed(() => new Map(problem.value?.fields.map(({ field, message }) => [field, message] as const)))
  const ofForm = computed(() =>
    problem.value && !problem.value.fields.some(({ field }) => shown.includes(field)) ? problem.value.message : null,
  )

  function clear(): void {
    problem.value = null
  }
  return { problem, byField, ofForm, clear }
}

/** The first sentence of a TanStack field's errors, whatever validator they came from. */
export function firstError(errors: readonly unknown[]): string | undefined {
  const [error] = errors.flat()
  if (typeof error === 'string') return error
  if (error && typeof error === 'object' && 'message' in error) return String(error.message)
  return undefined
}
