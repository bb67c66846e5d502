import type { OutboxDatabase } from './outbox-database'
import type { Reading, Remark, Strike } from '#core/readings'
import type { MeasuringFacts, SkipFact, StartCheckinInput } from '#shared/schemas/checkin'

/** A fact on this device that the server has not confirmed yet. */
export interface Waiting {
  /** Reading id, or "strike-" and the reading's id. */
  id: string
  checkinId: string
  /** Who took it: facts go out only under the person who took them. */
  staffId: string
  savedAt: number
  reading?: Reading
  strike?: Strike
  skip?: SkipFact
  remark?: Remark
  /** The server's sentence when it would not take this fact. It stays here until somebody decides. */
  refused?: string
}

/** A check-in started on this device while the server was away, with what its screen needs. */
export interface PendingStart {
  id: string
  clientId: string
  staffId: string
  body: StartCheckinInput
  facts: MeasuringFacts
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
    return localStorage.getItem(HOLDS) !== null || localStorage.getItem(SPARE) !== null
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

/**
 * What the browser's store answers, or null when it fails or takes longer than a second (or `patienceMs`): a store that is full, forbidden
 * or stuck must hold up neither measuring nor sending.
 */
export async function fromStore<Result>(
  asked: PromiseLike<Result>,
  patienceMs = PATIENCE_MS,
): Promise<{ value: Result } | null> {
  const late = new Promise<null>((give) => setTimeout(() => give(null), patienceMs))
  const answer = Promise.resolve(asked).then(
    (value) => ({ value }),
    () => null,
  )
  return Promise.race([answer, late])
}

const SPARE = 'oak-pinch-waiting'

/** Facts laid into the browser's plain storage while its database was stuck. */
export function readSpare(): Waiting[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(SPARE) ?? '[]')
    return Array.isArray(kept) ? (kept as Waiting[]) : []
  } catch {
    return []
  }
}

/** Lays facts into the plain storage, replacing what lies there. False when it takes nothing either. */
export function writeSpare(facts: readonly Waiting[]): boolean {
  try {
    if (facts.length === 0) localStorage.removeItem(SPARE)
    else localStorage.setItem(SPARE, JSON.stringify(facts))
    return true
  } catch {
    return false
  }
}
