import { followRecord, spanOfRecord, type FollowedSpan } from '#shared/followed-record'
import type { CheckinRecord } from '#shared/schemas/checkin'
import type { ClientHistory } from '#shared/schemas/following'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

/**
 * What has changed with a check-in whose last reading has just been taken: judged here, from the client's history and what
 * this device has read.
 * @param record the check-in with everything read so far; null while something is still to be read
 */
export function useResultChange(record: Ref<CheckinRecord | null>) {
  const me = useMe()
  const history = shallowRef<ClientHistory | null>(null)
  /** The history could not be fetched: the change waits for the client's page. */
  const isMissing = ref(false)
  watch(
    () => record.value?.clientId,
    async (clientId) => {
      if (!clientId || history.value) return
      try {
        history.value = await clients.history(clientId)
      } catch {
        isMissing.value = true
      }
    },
    { immediate: true },
  )
  const spanned = computed<FollowedSpan | null>(() => {
    const [facts, own] = [history.value, record.value]
    if (!facts || !own) return null
    const ended = { ...own, finishedAt: own.finishedAt ?? new Date().toISOString() }
    const others = facts.checkins.filter(({ id }) => id !== own.id)
    const { opening: _, ...rest } = facts
    const joined = followRecord({ ...rest, checkins: [...others, ended] })
    if (joined.ends.at(-1)?.record.id !== own.id) return null
    return spanOfRecord(joined, {}, { massUnit: me.units.mass })
  })
  return { spanned, history, isMissing }
}
