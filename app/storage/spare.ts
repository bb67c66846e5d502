import { ref } from 'vue'
import {
  noteHolding,
  openOutbox,
  plain,
  readSpare,
  readSpareStarts,
  writeSpare,
  writeSpareStarts,
  type PendingStart,
  type Waiting,
} from './outbox-db'
import { sealRow, type Kept } from './sealed-rows'

const STORE_GIVEN_UP_MS = 5_000

/**
 * The plain storage beside the browser's database: every fact lies in it, sealed, from the press of the key until the
 * database has confirmed it.
 */
export function useSpare() {
  /** True while neither the database nor the plain storage takes facts: then only the server holds them. */
  const storeless = ref(false)
  const unstored = new Map<string, Kept<Waiting>>()
  const unstoredStarts = new Map<string, Kept<PendingStart>>()

  const writeAll = () => writeSpare([...unstored.values()])
  const writeStarts = () => writeSpareStarts([...unstoredStarts.values()])

  /** Facts that are safe elsewhere leave the plain storage. */
  function leave(facts: readonly { id: string }[]): void {
    const held = facts.filter(({ id }) => unstored.delete(id))
    if (held.length > 0) writeAll()
  }

  function leaveStart(id: string): void {
    if (unstoredStarts.delete(id)) writeStarts()
  }

  /** Writes to the database; meanwhile and should it fail, whatever the plain storage took is what there is. */
  async function confirmed(spared: boolean, write: () => Promise<unknown>): Promise<void> {
    noteHolding(true)
    const late = setTimeout(() => (storeless.value = !spared), STORE_GIVEN_UP_MS)
    try {
      await write()
      storeless.value = false
    } catch (error) {
      storeless.value = !spared
      throw error
    } finally {
      clearTimeout(late)
    }
  }

  /** Puts a fact into the plain storage at once and into the database as soon as it answers. */
  async function store(fact: Waiting): Promise<void> {
    const kept = await sealRow(plain(fact))
    unstored.set(fact.id, kept)
    await confirmed(writeAll(), async () => (await openOutbox()).waiting.put(kept))
    leave([fact])
  }

  /** The same for a check-in started without the server. */
  async function storeStart(start: PendingStart): Promise<void> {
    const kept = await sealRow(plain(start))
    unstoredStarts.set(start.id, kept)
    await confirmed(writeStarts(), async () => (await openOutbox()).starts.put(kept))
    leaveStart(start.id)
  }

  /** What an earlier visit left in the plain storage goes into the database, and only then leaves it. */
  async function empty(): Promise<void> {
    const [facts, begun] = [readSpare(), readSpareStarts()]
    for (const fact of facts) unstored.set(fact.id, fact)
    for (const start of begun) unstoredStarts.set(start.id, start)
    if (facts.length > 0) await (await openOutbox()).waiting.bulkPut(facts)
    leave(facts)
    if (begun.length > 0) await (await openOutbox()).starts.bulkPut(begun)
    for (const { id } of begun) leaveStart(id)
  }

  /** The database failed outright. Facts still in the plain storage are kept there; without it nothing is. */
  function failed(error: unknown): void {
    console.warn('The browser’s database failed:', error instanceof Error ? error.name : error)
    storeless.value = !writeAll() || !writeStarts()
  }

  return { storeless, leave, leaveStart, store, storeStart, empty, failed, startsLeft: readSpareStarts }
}
