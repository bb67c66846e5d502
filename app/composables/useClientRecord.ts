import { computed, ref, shallowRef } from 'vue'
import { DEFAULT_CHOICES, endFigures } from '#core/composition'
import { composeSpan, spanLines, type Span } from '#core/following'
import { priorErrors } from '#core/error'
import { followedEnds, lookupErrors, type FollowedEnd } from '#shared/following'
import type { CheckinRecord } from '#shared/schemas/checkin'
import { isNeutral } from '#shared/neutral'
import type { ClientHistory } from '#shared/schemas/following'
import { historyOf } from '~/composables/ahead'
import { useMe } from '~/stores/me'

/**
 * A client's record in the page: the facts once from the server, everything else computed from them here, so that the
 * jaws answer at once.
 */
export function useClientRecord(clientId: string) {
  const me = useMe()
  const history = shallowRef<ClientHistory | null>(null)
  const fromId = ref<string | null>(null)
  const toId = ref<string | null>(null)
  const neutral = ref(false)

  const client = computed(() => history.value?.client ?? null)
  const records = computed(() =>
    [...(history.value?.checkins ?? [])].sort((a, b) => (a.startedAt < b.startedAt ? -1 : 1)),
  )
  const open = computed(() => records.value.find(({ finishedAt }) => finishedAt === null) ?? null)
  /** Finished check-ins composed, oldest first: what the jaws can stand on. */
  const ends = computed<FollowedEnd[]>(() => {
    const facts = history.value
    return facts
      ? followedEnds(
          records.value.filter(({ finishedAt }) => finishedAt !== null),
          facts,
        )
      : []
  })
  const errors = computed(() => (history.value ? lookupErrors(history.value.errors) : priorErrors))
  const choices = computed(() => history.value?.choices[0]?.choices ?? DEFAULT_CHOICES)

  const toIndex = computed(() => {
    const found = ends.value.findIndex(({ record }) => record.id === toId.value)
    return found >= 0 ? found : ends.value.length - 1
  })
  const fromIndex = computed(() => {
    const found = ends.value.findIndex(({ record }) => record.id === fromId.value)
    return found >= 0 && found < toIndex.value ? found : toIndex.value - 1
  })
  const now = computed(() => ends.value[toIndex.value] ?? null)
  const then = computed(() => ends.value[fromIndex.value] ?? null)
  const span = computed<Span | null>(() =>
    now.value && then.value ? composeSpan(then.value, now.value, errors.value, me.units.mass) : null,
  )
  /** What the later end says, weighed as the span weighs it. */
  const figures = computed(() => span.value?.now ?? (now.value ? endFigures(now.value, errors.value) : null))
  const between = computed(() => ends.value.slice(Math.max(0, fromIndex.value), toIndex.value + 1))
  const lines = computed(() => (between.value.length >= 3 ? spanLines(between.value, errors.value) : null))

  async function load(): Promise<void> {
    history.value = await historyOf(clientId)
    neutral.value = isNeutral(history.value.client)
  }

  /** Puts the jaws on two check-ins by their place, the earlier one first. */
  function setJaws(from: number, to: number): void {
    const [a, b] = [ends.value[from], ends.value[to]]
    if (!a || !b || from >= to) return
    fromId.value = a.record.id
    toId.value = b.record.id
  }

  /** Replaces part of the facts after the server has stored a change. */
  function take(change: Partial<ClientHistory>): void {
    if (history.value) history.value = { ...history.value, ...change }
  }

  function takeRecord(record: CheckinRecord): void {
    take({ checkins: (history.value?.checkins ?? []).map((one) => (one.id === record.id ? record : one)) })
  }

  return {
    history,
    client,
    records,
    open,
    ends,
    errors,
    choices,
    fromIndex,
    toIndex,
    then,
    now,
    span,
    figures,
    between,
    lines,
    neutral,
    load,
    setJaws,
    take,
    takeRecord,
  }
}

export type ClientRecord = ReturnType<typeof useClientRecord>
