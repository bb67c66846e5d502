import { problemOf } from '~/composables/useApi'
import type { Waiting } from './outbox-db'
import { checkins } from '~/calls'

/** A fact the server failed at is tried again after this long. */
const AGAIN_AFTER_MS = 60_000

/** Statuses after which everything waits: no network, signed out, locked, too busy, the server or what stands before it down. */
export function everythingWaits(status: number): boolean {
  return [0, 401, 408, 423, 429, 502, 503, 504].includes(status)
}

/** Whether a fact goes out now: it has not been refused, and the server has not failed at it a moment ago. */
export function isDue({ refused, failedAt }: Waiting, now = Date.now()): boolean {
  return !refused && (failedAt === undefined || now - failedAt > AGAIN_AFTER_MS)
}

/** What becomes of facts. */
export interface Outcome {
  taken: (facts: Waiting[]) => Promise<void>
  aside: (fact: Waiting, why: { refused: string } | { failedAt: number }) => Promise<void>
}

async function send(checkinId: string, facts: readonly Waiting[]): Promise<void> {
  await checkins.send(checkinId, {
    readings: facts.flatMap(({ reading }) => reading ?? []),
    strikes: facts.flatMap(({ strike }) => strike ?? []),
    skips: facts.flatMap(({ skip }) => skip ?? []),
    remarks: facts.flatMap(({ remark }) => remark ?? []),
  })
}

/**
 * Sends facts of one check-in together. One the server refuses or fails at must not hold up the others: they are then
 * sent one by one, and that one steps aside with why.
 * @throws what the request threw when it is everything that has to wait
 */
export async function deliver(checkinId: string, facts: Waiting[], outcome: Outcome): Promise<void> {
  try {
    await send(checkinId, facts)
    await outcome.taken(facts)
  } catch (error) {
    const { status, message } = problemOf(error)
    if (everythingWaits(status)) throw error
    const [only, ...others] = facts
    if (!only) return
    if (others.length > 0) {
      for (const fact of facts) await deliver(checkinId, [fact], outcome)
    } else {
      await outcome.aside(only, status >= 500 ? { failedAt: Date.now() } : { refused: message })
    }
  }
}
