import { useEventListener, useTimeoutFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { v7 as uuid } from 'uuid'
import { computed, ref, shallowRef } from 'vue'
import { problemOf } from '~/composables/useApi'
import { useMe } from '~/stores/me'
import { noteTouched } from '~/storage/lock-marks'
import { deliver, everythingWaits, isDue } from '~/storage/deliver'
import { useSpare } from '~/storage/spare'
import {
  fromStore,
  mayHold,
  noteHolding,
  openOutbox,
  plain,
  readSpare,
  type PendingStart,
  type StoreAnswer,
  type Waiting,
} from '~/storage/outbox-db'
import { openRows, sealRow } from '~/storage/sealed-rows'
import { checkins } from '~/calls'

const RETRY_MS = 2_000
/** What an earlier visit left is worth a longer wait: without it a session shows less than was read. */
const LOAD_PATIENCE_MS = 4_000
const KEEP_SENT_MS = 3 * 24 * 60 * 60 * 1000

/**
 * Readings and strikes on their way to the server. Each is written to the browser's database before it is sent and
 * leaves it only when the server has confirmed it, so neither a closed tab nor a dead server loses one. Sending a fact
 * twice changes nothing on the server. What it would not take steps aside until somebody decides; the others go on.
 */
export const useOutbox = defineStore('outbox', () => {
  const waiting = shallowRef<Waiting[]>([])
  const starts = shallowRef<PendingStart[]>([])
  const trouble = ref<string | null>(null)
  /** What waits here sealed, and cannot be read with the key of this device. */
  const unread = ref(0)
  /** Check-ins started here that turned out to be under way already, by their new id. */
  const moved = ref<Record<string, string>>({})
  const spare = useSpare()
  let sending: Promise<void> | null = null

  const unsent = computed(() => waiting.value.filter((fact) => !fact.refused && !fact.failedAt))
  /** Facts the server would not take, or failed at: each waits for somebody to decide. */
  const aside = computed(() => waiting.value.filter((fact) => fact.refused || fact.failedAt))
  const refusedStarts = computed(() => starts.value.filter(({ refused }) => refused))

  const retry = useTimeoutFn(() => void sendAll(), RETRY_MS, { immediate: false })
  useEventListener('online', () => void sendAll())

  /** Asks the browser's database; that it failed is shown, that it is late is not. */
  async function stored<Result>(asked: PromiseLike<Result>, patienceMs?: number): Promise<StoreAnswer<Result>> {
    const answer = await fromStore(asked, patienceMs)
    if (answer.kind === 'failed') spare.failed(answer.error)
    return answer
  }

  async function forget(facts: readonly Waiting[], keepAsSent: boolean): Promise<void> {
    const ids = new Set(facts.map(({ id }) => id))
    waiting.value = waiting.value.filter(({ id }) => !ids.has(id))
    spare.leave(facts)
    const sent = keepAsSent ? await Promise.all(facts.map(sealRow)) : []
    await stored(
      openOutbox().then((db) =>
        db.transaction('rw', db.waiting, db.sent, async () => {
          await db.sent.bulkPut(sent)
          await db.waiting.bulkDelete([...ids])
        }),
      ),
    )
    if (waiting.value.length === 0 && starts.value.length === 0) noteHolding(false)
  }

  async function replace(fact: Waiting, by: Waiting): Promise<void> {
    waiting.value = waiting.value.map((other) => (other.id === fact.id ? by : other))
    spare.leave([fact])
    const kept = await sealRow(plain(by))
    await stored(
      openOutbox().then((db) =>
        db.transaction('rw', db.waiting, async () => {
          if (by.id !== fact.id) await db.waiting.delete(fact.id)
          await db.waiting.put(kept)
        }),
      ),
    )
  }

  /** Tells the server of a check-in started without it; facts follow it to the one already open, where there is one. */
  async function sendStart(start: PendingStart): Promise<void> {
    const { id, clientId, body } = start
    try {
      const found = await checkins.start(clientId, body, true)
      if (found.id !== id) {
        for (const fact of waiting.value.filter(({ checkinId }) => checkinId === id)) {
          await replace(fact, { ...fact, checkinId: found.id })
        }
        moved.value = { ...moved.value, [id]: found.id }
      }
      await forgetStart(id)
    } catch (error) {
      if (everythingWaits(problemOf(error).status)) throw error
      await keepStart({ ...start, refused: problemOf(error).message })
    }
  }

  async function forgetStart(id: string): Promise<void> {
    starts.value = starts.value.filter((start) => start.id !== id)
    spare.leaveStart(id)
    await stored(openOutbox().then((db) => db.starts.delete(id)))
  }

  async function sendEverything(): Promise<void> {
    const mine = useMe().me?.staff.id
    const failed = (error: unknown) => {
      const { status, message } = problemOf(error)
      trouble.value = status === 401 ? 'Sign in again to send' : message
      throw error
    }
    for (const start of starts.value.filter(({ staffId, refused }) => staffId === mine && !refused)) {
      await sendStart(start).catch(failed)
    }
    const tried = new Set<string>()
    const next = () =>
      waiting.value.find(
        (fact) =>
          fact.staffId === mine &&
          isDue(fact) &&
          !tried.has(fact.id) &&
          !starts.value.some(({ id }) => id === fact.checkinId),
      )
    for (let first = next(); first; first = next()) {
      const { checkinId } = first
      const facts = waiting.value.filter(
        (fact) => fact.checkinId === checkinId && fact.staffId === mine && isDue(fact) && !tried.has(fact.id),
      )
      for (const { id } of facts) tried.add(id)
      await deliver(checkinId, facts, {
        taken: async (some) => {
          await forget(some, true)
          trouble.value = null
        },
        aside: (fact, why) => replace(fact, { ...fact, ...why }),
      }).catch(failed)
    }
    if (aside.value.some(({ failedAt }) => failedAt)) retry.start()
  }

  /** Sends what waits; on failure tries again by itself. Never throws. */
  function sendAll(): Promise<void> {
    sending ??= load()
      .then(sendEverything)
      .catch(() => retry.start())
      .finally(() => {
        sending = null
      })
    return sending
  }

  let loaded: Promise<void> | null = null
  /** Brings in what an earlier visit left on this device. */
  async function load(): Promise<void> {
    takeIn((await openRows(readSpare())).rows, (await openRows(spare.startsLeft())).rows)
    loaded ??= stored(
      openOutbox().then((db) => Promise.all([db.waiting.toArray(), db.starts.toArray()])),
      LOAD_PATIENCE_MS,
    ).then(async (kept) => {
      if (kept.kind !== 'value') {
        loaded = null
        return
      }
      const [facts, begun] = [await openRows(kept.value[0]), await openRows(kept.value[1])]
      takeIn(facts.rows, begun.rows)
      unread.value = facts.unread + begun.unread
      // What the key has not come for yet may be read at the next look.
      if (unread.value > 0) loaded = null
      if (facts.plain.length + begun.plain.length > 0)
        void stored(openOutbox().then((db) => db.sealAgain(facts.plain, begun.plain)))
      const old = Date.now() - KEEP_SENT_MS
      void stored(openOutbox().then((db) => db.sent.where('savedAt').below(old).delete()))
      void stored(spare.empty())
    })
    return loaded
  }

  /** Facts of an earlier visit join those of this one. */
  function takeIn(facts: readonly Waiting[], begun: readonly PendingStart[]): void {
    const known = new Set(waiting.value.map(({ id }) => id))
    const fresh = facts.filter(({ id }) => !known.has(id))
    if (fresh.length > 0) waiting.value = [...fresh, ...waiting.value]
    const more = begun.filter(({ id }) => !starts.value.some((start) => start.id === id))
    if (more.length > 0) starts.value = [...more, ...starts.value]
  }

  /** Takes a fact in: at once on screen, then in the browser's database, then to the server. */
  async function put(fact: Waiting): Promise<void> {
    noteTouched()
    const own = plain(fact)
    waiting.value = [...waiting.value, own]
    await stored(spare.store(own))
    await sendAll()
    if (unsent.value.some(({ id }) => id === own.id) && !retry.isPending.value) await sendAll()
  }

  /** Facts of a check-in this device has sent lately. */
  async function sentOf(checkinId: string): Promise<Waiting[]> {
    const asked = openOutbox().then((db) => db.sent.where('checkinId').equals(checkinId).toArray())
    const kept = await asked.catch(() => [])
    return (await openRows(kept)).rows
  }

  async function keepStart(start: PendingStart): Promise<void> {
    const own = plain(start)
    starts.value = [...starts.value.filter(({ id }) => id !== own.id), own]
    await stored(spare.storeStart(own))
  }

  /** Keeps a check-in started without the server. */
  async function putStart(start: PendingStart): Promise<void> {
    await keepStart(start)
    void sendAll()
  }

  /** Tries a fact that stepped aside again, as it is. */
  async function tryAgain(fact: Waiting): Promise<void> {
    const { refused: _, failedAt: __, ...again } = fact
    await replace(fact, again)
    await sendAll()
  }

  /** Sends a reading, note or skip that stepped aside as a new one, beside whatever stands under its id. */
  async function sendAsNew(fact: Waiting): Promise<void> {
    const { refused: _, failedAt: __, ...again } = fact
    const id = uuid()
    await replace(fact, {
      ...again,
      id,
      ...(fact.reading ? { reading: { ...fact.reading, id } } : {}),
      ...(fact.skip ? { skip: { ...fact.skip, id } } : {}),
      ...(fact.remark ? { remark: { ...fact.remark, id } } : {}),
    })
    await sendAll()
  }

  /** Tries a check-in the server would not start again. */
  async function startAgain({ refused: _, ...start }: PendingStart): Promise<void> {
    await putStart(start)
  }

  /** Throws away facts that stepped aside, or a check-in the server would not start with all that was read in it. */
  async function discard(what: { fact: Waiting } | { start: PendingStart }): Promise<void> {
    if ('fact' in what) return forget([what.fact], false)
    await forgetStart(what.start.id)
    await forget(
      waiting.value.filter(({ checkinId }) => checkinId === what.start.id),
      false,
    )
  }

  /** Shows nothing of what waits here any more: whoever looks now is not signed in. It stays on the device. */
  function hide(): void {
    waiting.value = []
    starts.value = []
    trouble.value = null
    unread.value = 0
    loaded = null
  }

  return {
    waiting,
    unsent,
    aside,
    starts,
    refusedStarts,
    moved,
    trouble,
    unread,
    storeless: spare.storeless,
    mayHold,
    load,
    put,
    putStart,
    sentOf,
    sendAll,
    tryAgain,
    sendAsNew,
    startAgain,
    discard,
    hide,
  }
})
