import { useDebounceFn } from '@vueuse/core'
import { computed, inject, provide, ref, shallowRef, type InjectionKey } from 'vue'
import { ASSUMED_NOISES } from '#core/following'
import { assessorSaid } from '#shared/assessor-said'
import { followRecord, SHOWN_AT_ONCE } from '#shared/followed-record'
import { isNeutral } from '#shared/neutral'
import type { CheckinRecord } from '#shared/schemas/checkin'
import type { ClientHistory } from '#shared/schemas/following'
import { historyOf } from '~/composables/ahead'
import { spansSeen } from '~/composables/spans-seen'
import { usePlan } from '~/composables/usePlan'
import { useMe } from '~/stores/me'

const RECORD: InjectionKey<FollowedClient> = Symbol('client record')

/** Milliseconds after which it is judged even where no chart has been drawn. */
const CHART_COMES_WITHIN = 2000

/**
 * A client's record in the page: the facts once from the server, everything else computed from them here, so that the
 * jaws answer at once.
 */
export function useClientRecord(clientId: string) {
  const me = useMe()
  const history = shallowRef<ClientHistory | null>(null)
  const fromId = ref<string | null>(null)
  const toId = ref<string | null>(null)
  /** What of the body the page shows: nothing (neutral), folds and girths, or everything. */
  const shown = ref<'nothing' | 'folds' | 'all'>('all')
  const neutral = computed(() => shown.value !== 'all')
  const bare = computed(() => shown.value === 'nothing')
  /** A jaw is under way: what takes long and is read at rest waits until it stands. */
  const moving = ref(false)
  const settle = useDebounceFn(() => (moving.value = false), 160)
  /** The change is still to be judged: the chart of a long history is drawn before that. */
  const judging = ref(false)

  const record = computed(() => history.value && followRecord(history.value))
  const client = computed(() => record.value?.client ?? null)
  const records = computed(() => record.value?.records ?? [])
  const open = computed(() => record.value?.open ?? null)
  /** Finished check-ins composed, oldest first: what the jaws can stand on. */
  const ends = computed(() => record.value?.ends ?? [])
  const spanOf = spansSeen()
  const spanned = computed(
    () =>
      record.value &&
      spanOf(
        record.value,
        { fromId: fromId.value, toId: toId.value },
        { massUnit: me.units.mass, running: !moving.value, judged: !judging.value },
      ),
  )
  const fromIndex = computed(() => spanned.value?.fromIndex ?? -1)
  const toIndex = computed(() => spanned.value?.toIndex ?? -1)
  const now = computed(() => spanned.value?.now ?? null)
  const then = computed(() => spanned.value?.then ?? null)
  const span = computed(() => spanned.value?.span ?? null)
  const figures = computed(() => spanned.value?.figures ?? null)
  /** Place of the start chosen beforehand; the left jaw stands there unless it is moved. */
  const pinnedIndex = computed(() => record.value?.pinned ?? -1)
  const searched = computed(() => spanned.value?.searched ?? false)
  /** Share of the budget the start of the span has. */
  const share = computed(() => spanned.value?.share ?? 1)
  const unasked = useUnasked(record, judging)
  const comparability = computed(() => spanned.value?.comparability ?? null)
  const between = computed(() => spanned.value?.between ?? [])
  const noises = computed(() => spanned.value?.noises ?? ASSUMED_NOISES)
  /** Who measured the later check-in. */
  const assessor = computed(() => (now.value && history.value ? assessorSaid(now.value.record, history.value) : ''))

  /** @param chartFirst a chart is about to be drawn from it and says so (`judge`) */
  async function load({ chartFirst = false } = {}): Promise<void> {
    moving.value = true
    const found = await historyOf(clientId)
    judging.value = chartFirst && found.checkins.length > SHOWN_AT_ONCE
    if (judging.value) setTimeout(judge, CHART_COMES_WITHIN)
    shown.value = isNeutral(found.client, todayHere()) ? 'nothing' : 'all'
    history.value = found
    void settle()
  }

  /** Judges what waited for the chart. */
  function judge(): void {
    judging.value = false
  }

  /** Puts the jaws on two check-ins by their place, the earlier one first. */
  function setJaws(from: number, to: number): void {
    const [a, b] = [ends.value[from], ends.value[to]]
    if (!a || !b || from >= to) return
    moving.value = true
    fromId.value = a.record.id
    toId.value = b.record.id
    void settle()
  }

  /** Replaces part of the facts after the server has stored a change. */
  function take(change: Partial<ClientHistory>): void {
    if (!history.value) return
    // What was put together beforehand is of the facts as they were.
    const { opening: _, ...facts } = history.value
    history.value = { ...facts, ...change }
  }

  /** Takes the pins after one was set: the left jaw goes back to the start that counts. */
  function takePins(pins: ClientHistory['pins']): void {
    fromId.value = null
    take({ pins })
  }

  function takeRecord(changed: CheckinRecord): void {
    take({ checkins: (history.value?.checkins ?? []).map((one) => (one.id === changed.id ? changed : one)) })
  }

  return {
    clientId,
    history,
    record,
    client,
    records,
    open,
    ends,
    fromIndex,
    toIndex,
    then,
    now,
    span,
    figures,
    pinnedIndex,
    searched,
    unasked,
    share,
    comparability,
    between,
    noises,
    assessor,
    shown,
    neutral,
    bare,
    judging,
    judge,
    load,
    setJaws,
    take,
    takeRecord,
    takePins,
  }
}

export type ClientRecord = ReturnType<typeof useClientRecord>

/** A client's record with the plan held against it. */
export interface FollowedClient {
  followed: ClientRecord
  planned: ReturnType<typeof usePlan>
}

/** Opens a client's record for a page and the views under it. */
export function provideClientRecord(clientId: string): FollowedClient {
  const followed = useClientRecord(clientId)
  const own = { followed, planned: usePlan(followed) }
  provide(RECORD, own)
  return own
}

/**
 * The record of the client page this view lies under.
 * @throws Error outside such a page
 */
export function useFollowed(): FollowedClient {
  const own = inject(RECORD)
  if (!own) throw new Error('This view stands under no client page.')
  return own
}
