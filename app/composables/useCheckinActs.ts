import type { SiteId } from '#core/sites'
import type { ProtocolId } from '#core/protocols'
import type { useMeasuring } from '~/composables/useMeasuring'
import { useTelling } from '~/composables/useTelling'
import { useMe } from '~/stores/me'
import { useOutbox } from '~/stores/outbox'
import { checkins, clients } from '~/calls'

/** What is done to a check-in as a whole: notes, landmarks, finishing it, leaving it. */
export function useCheckinActs(id: string, session: ReturnType<typeof useMeasuring>) {
  const router = useRouter()
  const outbox = useOutbox()
  const { problem, tell } = useTelling()
  const { facts, record } = session

  /** Where a check-in was begun: the client's page, or the study it is a turn of. */
  const back = () =>
    record.value?.studyId ? `/bench/studies/${record.value.studyId}` : `/clients/${facts.value?.client.id}`

  function saveNote(note: string): Promise<boolean> {
    return tell(async () => {
      const checkin = await checkins.change(id, { note })
      if (facts.value) facts.value = { ...facts.value, checkin }
    })
  }

  function saveLandmark(site: SiteId, note: string): Promise<boolean> {
    return tell(async () => {
      const landmarks = await clients.setLandmark(facts.value?.client.id ?? '', site, note)
      if (facts.value) facts.value = { ...facts.value, landmarks }
    })
  }

  /** Writes a note at the picked or the newest reading. */
  function remark(words: string): void {
    if (session.strikable.value) session.remark(session.strikable.value.id, words)
  }

  function finish(): Promise<boolean> {
    return tell(async () => {
      await outbox.sendAll()
      if (outbox.unsent.some(({ checkinId }) => checkinId === id)) {
        problem.value = 'Not everything has reached the server yet. The readings are kept here; finish when it is back.'
        return
      }
      await checkins.change(id, { finished: true })
      await router.push(back())
    })
  }

  /** Leaves the sheet; a session nothing was read in goes away with it. */
  async function leave(): Promise<void> {
    const empty = session.live.value.length === 0 && !record.value?.finishedAt && !useMe().isRecorder
    if (empty) await checkins.discard(id).catch(() => undefined)
    await router.push(useMe().isRecorder ? '/' : back())
  }

  /** Goes over to another set of sites in this check-in: what has been read stays. */
  function goOver(protocolId: ProtocolId): Promise<boolean> {
    return tell(async () => {
      await outbox.sendAll()
      const checkin = await checkins.change(id, { protocolId })
      if (facts.value) facts.value = { ...facts.value, checkin }
      await session.load()
    })
  }

  return { problem, goOver, tell, saveNote, saveLandmark, remark, finish, leave }
}
