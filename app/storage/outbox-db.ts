import type { OutboxDatabase } from './outbox-database'
import type { Kept } from './sealed-rows'
import type { Reading, Remark, Strike } from '#core/readings'
import type { MeasuringFacts, SkipFact, StartCheckinInput } from '#shared/schemas/checkin'

/** A fact on this device that the server has not confirmed yet. */
export interface Waiting {
  /** Reading id, or "strike-" and the reading's id. */
  id: string
  checkinId: string
  /** Whose it is: where it shows when it cannot be sent. */
  clientId: string
  /** Who took it: facts go out only under the person who took them. */
  staffId: string
  savedAt: number
  reading?: Reading
  strike?: Strike
  skip?: SkipFact
  remark?: Remark
  /** The server's sentence when it would not take this fact. It stays here until somebody decides. */
  refused?: string
  /** The server failed at this fact while others went through: it is tried again now and then. */
  failedAt?: number
}

/** A check-in started on this device while the server was away, with what its screen needs. */
export interface PendingStart {
  id: string
  clientId: string
  staffId: string
  body: StartCheckinInput
  facts: MeasuringFacts
  /** The server's sentence when it would not take it: its readings wait with it. */
  refused?: string
}

let opened: Promise<OutboxDatabase> | null = null

/** Opens the browser's database of what is still to be sent; its code loads when it is first asked for. */
export function openOutbox(): Promise<OutboxDatabase> {
  opened ??= import('./outbox-database').then(({ outboxDatabase }) => outboxDatabase)
  opened.catch(() => (opened = null))
  return opened
}

const HOLDS = 'oak-pinch-holds'

/** Whether the database may hold facts that have not been sent: told without opening it. */
export function mayHold(): boolean {
  try {
    return [HOLDS, SPARE, SPARE_STARTS].some((key) => localStorage.getItem(key) !== null)
  } catch {
    return true
  }
}

/** Notes whether the database holds facts that have not been sent. */
export function noteHolding(holds: boolean): void {
  try {
    if (holds) localStorage.setItem(HOLDS, '1')
    else localStorage.removeItem(HOLDS)
  } catch {
    // Without plain storage the database is always asked.
  }
}

const PATIENCE_MS = 1_000

/** What came of asking the browser's store. */
export type StoreAnswer<Result> =
  | { kind: 'value'; value: Result }
  | { kind: 'late' }
  | { kind: 'failed'; error: unknown }

/**
 * What the browser's store answers: its value, that it failed (full, forbidden, what was given cannot be kept), or that it
 * takes longer than a second (or `patienceMs`). A store that is stuck must hold up neither measuring nor sending.
 */
export async function fromStore<Result>(
  asked: PromiseLike<Result>,
  patienceMs = PATIENCE_MS,
): Promise<StoreAnswer<Result>> {
  const late = new Promise<StoreAnswer<Result>>((give) => setTimeout(() => give({ kind: 'late' }), patienceMs))
  const answer = Promise.resolve(asked).then(
    (value): StoreAnswer<Result> => ({ kind: 'value', value }),
    (error: unknown): StoreAnswer<Result> => ({ kind: 'failed', error }),
  )
  return Promise.race([answer, late])
}

/** A plain copy of facts: what a page watches cannot be kept in the browser's database as it is. */
export function plain<Facts>(facts: Facts): Facts {
  return JSON.parse(JSON.stringify(facts)) as Facts
}

const SPARE = 'oak-pinch-waiting'

const SPARE_STARTS = 'oak-pinch-starts'

/** Check-ins started without the server that the database has not confirmed. */
export function readSpareStarts(): Kept<PendingStart>[] {
  return readList<Kept<PendingStart>>(SPARE_STARTS)
}

/** Puts those into the plain storage, replacing what lies there. False when it takes nothing. */
export function writeSpareStarts(starts: readonly Kept<PendingStart>[]): boolean {
  return writeList(SPARE_STARTS, starts)
}

/** Facts laid into the browser's plain storage while its database was stuck. */
export function readSpare(): Kept<Waiting>[] {
  return readList<Kept<Waiting>>(SPARE)
}

/** Puts facts into the plain storage, replacing what lies there. False when it takes nothing either. */
export function writeSpare(facts: readonly Kept<Waiting>[]): boolean {
  return writeList(SPARE, facts)
}

function readList<One>(key: string): One[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? '[]')
    return Array.isArray(kept) ? (kept as One[]) : []
  } catch {
    return []
  }
}

function writeList(key: string, list: readonly unknown[]): boolean {
  try {
    if (list.length === 0) localStorage.removeItem(key)
    else localStorage.setItem(key, JSON.stringify(list))
    return true
  } catch {
    return false
  }
}

/** Forgets what has reached the server: it was kept so that a session shows whole without it. */
export async function forgetSent(): Promise<void> {
  await fromStore(openOutbox().then((db) => db.sent.clear()))
}
