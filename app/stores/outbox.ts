import { useEventListener, useTimeoutFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { problemOf } from '~/composables/useApi'
import { useMe } from '~/stores/me'
import {
  fromStore,
  mayHold,
  noteHolding,
  openOutbox,
  readSpare,
  writeSpare,
  type PendingStart,
  type Waiting,
} from '~/storage/outbox-db'

const RETRY_MS = 2_000
const STORE_GIVEN_UP_MS = 5_000
/** What an earlier visit left is worth a longer wait: without it a session shows less than was read. */
const LOAD_PATIENCE_MS = 4_000
const KEEP_SENT_MS = 3 * 24 * 60 * 60 * 1000

/** Statuses after which the same facts may go through later: no network, signed out, too busy, server trouble. */
function mayPassLater(status: number): boolean {
  return status === 0 || status === 401 || status === 408 || status === 429 || status >= 500
}

/**
 * Readings and strikes on their way to the server. Each is written to the browser's database before it is sent and
 * leaves it only when the server has confirmed it, so neither a closed tab nor a dead server loses one. Sending a fact
 * twice changes nothing on the server.
 */
export const useOutbox = defineStore('outbox', () => {
  const waiting = shallowRef<Waiting[]>([])
  const trouble = ref<string | null>(null)
  /** True while neither the browser's database nor its plain storage takes facts: then only the server holds them. */
  const storeless = ref(false)
  /** Facts the database has not confirmed yet: they lie in the plain storage from the press of the key on. */
  const unstored = new Map<string, Waiting>()
  const starts = shallowRef<PendingStart[]>([])
  /** Check-ins started here that turned out to be under way already, by their new id. */
  const moved = ref<Record<string, string>>({})
  let sending: Promise<void> | null = null

  const unsent = computed(() => waiting.value.filter((fact) => !fact.refused))
  const refused = computed(() => waiting.value.filter((fact) => fact.refused))

  const retry = useTimeoutFn(() => void sendAll(), RETRY_MS, { immediate: false })
  useEventListener('online', () => void sendAll())

  async function forget(facts: readonly Waiting[]): Promise<void> {
    const ids = new Set(facts.map(({ id }) => id))
    waiting.value = waiting.value.filter(({ id }) => !ids.has(id))
    leaveSpare(facts)
    await fromStore(
      openOutbox().then((db) =>
        db.transaction('rw', db.waiting, db.sent, async () => {
          await db.sent.bulkPut([...facts])
          await db.waiting.bulkDelete([...ids])
        }),
      ),
    )
    if (waiting.value.length === 0 && starts.value.length === 0) noteHolding(false)
  }

  async function markRefused(fact: Waiting, sentence: string): Promise<void> {
    const marked = { ...fact, refused: sentence }
    waiting.value = waiting.value.map((other) => (other.id === fact.id ? marked : other))
    await fromStore(openOutbox().then((db) => db.waiting.put(marked)))
  }

  async function send(checkinId: string, facts: Waiting[]): Promise<void> {
    try {
      await $fetch(`/api/checkins/${checkinId}/events`, {
        method: 'POST',
        retry: 0,
        body: {
          readings: facts.flatMap(({ reading }) => reading ?? []),
          strikes: facts.flatMap(({ strike }) => strike ?? []),
          skips: facts.flatMap(({ skip }) => skip ?? []),
          remarks: facts.flatMap(({ remark }) => remark ?? []),
        },
      })
      await forget(facts)
      trouble.value = null
    } catch (error) {
      const problem = problemOf(error)
      const [only] = facts
      if (mayPassLater(problem.status)) {
        trouble.value = problem.status === 401 ? 'Sign in again to send' : problem.message
        throw error
      }
      // One bad fact must not hold up the good ones: send them alone, and set the bad one aside with its sentence.
      if (facts.length === 1 && only) await markRefused(only, problem.message)
      else for (const fact of facts) await send(checkinId, [fact])
    }
  }

  /** Tells the server of a check-in started without it; facts follow it to the one already open, where there is one. */
  async function sendStart({ id, clientId, body }: PendingStart): Promise<void> {
    const found = await $fetch<{ id: string }>(`/api/clients/${clientId}/checkins`, { method: 'POST', retry: 0, body })
    if (found.id !== id) {
      const facts = waiting.value.filter(({ checkinId }) => checkinId === id)
      const followed = facts.map((fact) => ({ ...fact, checkinId: found.id }))
      waiting.value = waiting.value.map((fact) => (fact.checkinId === id ? { ...fact, checkinId: found.id } : fact))
      await fromStore(openOutbox().then((db) => db.waiting.bulkPut(followed)))
      moved.value = { ...moved.value, [id]: found.id }
    }
    starts.value = starts.value.filter((start) => start.id !== id)
    await fromStore(openOutbox().then((db) => db.starts.delete(id)))
  }

  async function sendStarts(): Promise<void> {
    for (const start of starts.value.filter(({ staffId }) => staffId === useMe().me?.staff.id)) {
      try {
        await sendStart(start)
      } catch (error) {
        trouble.value = problemOf(error).message
        throw error
      }
    }
  }

  async function sendEverything(): Promise<void> {
    await sendStarts()
    const own = () => unsent.value.filter(({ staffId }) => staffId === useMe().me?.staff.id)
    for (let facts = own(); facts.length > 0; facts = own()) {
      const checkinId = facts[0]?.checkinId ?? ''
      await send(
        checkinId,
        facts.filter((fact) => fact.checkinId === checkinId),
      )
    }
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
  function load(): Promise<void> {
    takeIn(readSpare())
    loaded ??= fromStore(
      openOutbox().then((db) => Promise.all([db.waiting.toArray(), db.starts.toArray()])),
      LOAD_PATIENCE_MS,
    ).then((kept) => {
      if (!kept) {
        loaded = null
        return
      }
      const [facts, begun] = kept.value
      void fromStore(
        openOutbox().then((db) =>
          db.sent
            .where('savedAt')
            .below(Date.now() - KEEP_SENT_MS)
            .delete(),
        ),
      )
      takeIn(facts)
      void emptySpare()
      starts.value = [...begun.filter(({ id }) => !starts.value.some((start) => start.id === id)), ...starts.value]
    })
    return loaded
  }

  /** Facts of an earlier visit join those of this one. */
  function takeIn(facts: readonly Waiting[]): void {
    const known = new Set(waiting.value.map(({ id }) => id))
    const fresh = facts.filter(({ id }) => !known.has(id))
    if (fresh.length > 0) waiting.value = [...fresh, ...waiting.value]
  }

  /** Facts that are safe elsewhere leave the plain storage. */
  function leaveSpare(facts: readonly Waiting[]): void {
    const held = facts.filter(({ id }) => unstored.delete(id))
    if (held.length > 0) writeSpare([...unstored.values()])
  }

  /** What an earlier visit left in the plain storage goes into the database, and only then leaves it. */
  async function emptySpare(): Promise<void> {
    const left = readSpare()
    for (const fact of left) unstored.set(fact.id, fact)
    if (left.length === 0) return
    await (await openOutbox()).waiting.bulkPut(left)
    leaveSpare(left)
  }

  /** Puts a fact into the plain storage at once and into the database as soon as it answers. */
  async function store(fact: Waiting): Promise<void> {
    unstored.set(fact.id, fact)
    noteHolding(true)
    const spared = writeSpare([...unstored.values()])
    const late = setTimeout(() => (storeless.value = !spared), STORE_GIVEN_UP_MS)
    try {
      await (await openOutbox()).waiting.put(fact)
      leaveSpare([fact])
      storeless.value = false
    } catch {
      storeless.value = !spared
    } finally {
      clearTimeout(late)
    }
  }

  /** Takes a fact in: at once on screen, then in the browser's database, then to the server. */
  async function put(fact: Waiting): Promise<void> {
    waiting.value = [...waiting.value, fact]
    await fromStore(store(fact))
    await sendAll()
    if (unsent.value.some(({ id }) => id === fact.id) && !retry.isPending.value) await sendAll()
  }

  /** Facts of a check-in this device has sent lately. */
  async function sentOf(checkinId: string): Promise<Waiting[]> {
    const asked = openOutbox().then((db) => db.sent.where('checkinId').equals(checkinId).toArray())
    return asked.catch(() => [])
  }

  /** Keeps a check-in started without the server. */
  async function putStart(start: PendingStart): Promise<void> {
    starts.value = [...starts.value, start]
    noteHolding(true)
    await fromStore(openOutbox().then((db) => db.starts.put(start)))
    void sendAll()
  }

  return { starts, moved, putStart, sentOf, waiting, unsent, refused, trouble, storeless, mayHold, load, put, sendAll }
})
