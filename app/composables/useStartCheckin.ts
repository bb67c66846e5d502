import { v7 as uuid } from 'uuid'
import { ref } from 'vue'
import { localDay } from '#core/calendar'
import { OWN_POLICIES } from '#core/readings'
import type { CheckinRecord, PrepareFacts, StartCheckinInput } from '#shared/schemas/checkin'
import { studioZone } from '~/composables/useDays'
import { useMe } from '~/stores/me'
import { useOutbox } from '~/stores/outbox'
import { checkins } from '~/calls'

/** Starts a check-in as prepared, or goes to the one already open. */
export function useStartCheckin() {
  const router = useRouter()
  const me = useMe()
  const outbox = useOutbox()
  const problem = ref<string | null>(null)
  const starting = ref(false)

  /** `known` is what a session without the server is shown from. */
  async function start(
    clientId: string,
    prepared: Omit<StartCheckinInput, 'id'>,
    known: PrepareFacts,
    fromPaper = false,
  ): Promise<void> {
    if (starting.value) return
    starting.value = true
    problem.value = null
    const body = { id: uuid(), ...prepared }
    try {
      const { id } = await checkins.start(clientId, body)
      await router.push(`/measure/${id}${fromPaper ? '?paper=1' : ''}`)
    } catch (error) {
      const { status, message } = problemOf(error)
      if (status === 0) await startHere(clientId, body, known, fromPaper)
      else problem.value = message
    } finally {
      starting.value = false
    }
  }

  /** Without the server the session starts on this device and is sent when the server is back. */
  async function startHere(
    clientId: string,
    body: StartCheckinInput,
    known: PrepareFacts,
    fromPaper: boolean,
  ): Promise<void> {
    const staffId = me.me?.staff.id ?? ''
    const checkin: CheckinRecord = {
      id: body.id,
      clientId,
      protocolId: body.protocolId,
      side: known.client.usualSide,
      assessorId: body.assessorId ?? staffId,
      recorderId: body.recorderId ?? null,
      recorder: known.staff.find(({ id }) => id === body.recorderId)?.name ?? null,
      caliperId: body.caliperId ?? null,
      conditions: body.conditions ?? {},
      policies: body.policies ?? OWN_POLICIES,
      withHeight: body.withHeight ?? false,
      startedAt: body.startedAt,
      day: localDay(body.startedAt, studioZone()),
      finishedAt: null,
      startedBy: me.me?.staff.name ?? '',
      note: '',
      keptWords: null,
      readings: [],
      strikes: [],
      skips: [],
      remarks: [],
    }
    const caliper = known.calipers.find(({ id }) => id === body.caliperId) ?? null
    const facts = {
      client: known.client,
      checkin,
      last: known.last,
      choices: known.choices,
      caliper,
      landmarks: known.landmarks ?? {},
      blind: known.blind ?? false,
    }
    await outbox.putStart({ id: body.id, clientId, staffId, body, facts })
    await router.push(`/measure/${body.id}${fromPaper ? '?paper=1' : ''}`)
  }

  return { start, problem, starting }
}
