import { arrivalOf, againstPlan, planLine, reachedBy, type Against } from '#core/plan'
import { currentPlan, targetOf } from '#shared/plan'
import type { ClientRecord } from '~/composables/useClientRecord'

/** The plan that counts for a client, put on its start, with every later check-in held against it. */
export function usePlan({ history, record, ends, neutral }: ClientRecord) {
  const plan = computed(() => history.value && currentPlan(history.value))
  const startIndex = computed(() => ends.value.findIndex((end) => end.record.id === plan.value?.checkinId))
  const start = computed(() => ends.value[startIndex.value] ?? null)
  const line = computed(() =>
    plan.value && start.value && record.value ? planLine(targetOf(plan.value), start.value, record.value.errors) : null,
  )
  /** Later check-ins, oldest first; `against` is null where one cannot be compared with the start. */
  const held = computed(() => {
    const [from, own, errors] = [start.value, line.value, record.value?.errors]
    if (!from || !own || !errors) return []
    const later = ends.value.slice(startIndex.value + 1)
    return later.map((end) => ({ end, against: againstPlan(own, from, end, errors) }))
  })
  const latest = computed<Against | null>(() => held.value.findLast(({ against }) => against)?.against ?? null)
  const arrival = computed(() => line.value && latest.value && arrivalOf(line.value, latest.value))
  const reached = computed(() => (line.value && latest.value ? reachedBy(line.value, latest.value) : 'no'))
  /** Neutral mode shows no percent, masses or weight, so only a plan in folds. */
  const hidden = computed(() => neutral.value && plan.value !== null && plan.value.kind !== 'sum')

  return { plan, start, startIndex, line, held, latest, arrival, reached, hidden }
}
