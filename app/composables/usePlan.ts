import { arrivalOf, againstPlan, planLine, reachedBy, type Against } from '#core/plan'
import { noisesAt } from '#shared/followed-record'
import { currentPlan, planBarred, planContext, targetOf } from '#shared/plan'
import { todayHere } from '~/composables/useDays'
import { useMe } from '~/stores/me'
import type { ClientRecord } from '~/composables/useClientRecord'

/** The plan that counts for a client, put on its start, with every later check-in held against it. */
export function usePlan({ history, record, ends, neutral }: ClientRecord) {
  const me = useMe()
  const plan = computed(() => history.value && currentPlan(history.value))
  const startIndex = computed(() => ends.value.findIndex((end) => end.record.id === plan.value?.checkinId))
  const start = computed(() => ends.value[startIndex.value] ?? null)
  const line = computed(() =>
    plan.value && start.value && record.value ? planLine(targetOf(plan.value), start.value, plan.value.energy) : null,
  )
  /** Later check-ins, oldest first; `against` is null where one cannot be compared with the start. */
  const held = computed(() => {
    const [own, facts] = [line.value, record.value]
    if (!own || !facts) return []
    const since = ends.value.slice(startIndex.value)
    return since.slice(1).map((end, i) => ({
      end,
      against: againstPlan(own, since.slice(0, i + 2), { noises: noisesAt(facts, end) }),
    }))
  })
  const latest = computed<Against | null>(() => held.value.findLast(({ against }) => against)?.against ?? null)
  const arrival = computed(() => line.value && latest.value && arrivalOf(line.value, latest.value))
  const reached = computed(() => (line.value && latest.value ? reachedBy(line.value, latest.value) : 'no'))
  /** A caution noted since the plan was set allows none to lose: why. */
  const suspension = computed(
    () =>
      history.value?.suspensions?.find(({ about, subjectId }) => about === 'plan' && subjectId === plan.value?.id) ??
      null,
  )
  const barred = computed(
    () =>
      suspension.value?.sentence ??
      (line.value && start.value && history.value
        ? planBarred(line.value, planContext(start.value, history.value, me.units, todayHere()))
        : null),
  )
  /** A loss that is planned and allowed: only there a loss is spoken well of. */
  const losing = computed(() => line.value !== null && line.value.to < line.value.from && barred.value === null)
  /** Neutral mode shows no percent, masses or weight, so only a plan in folds. */
  const hidden = computed(
    () => barred.value !== null || (neutral.value && plan.value !== null && plan.value.kind !== 'sum'),
  )

  return { plan, start, startIndex, line, held, latest, arrival, reached, hidden, barred, suspension, losing }
}
