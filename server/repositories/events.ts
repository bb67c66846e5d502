import { inArray } from 'drizzle-orm'
import type { EventsInput } from '../../shared/schemas/checkin'
import type { Transaction } from '../db/database'
import { reading, remark, skip, strike } from '../db/schema'
import { storeOnce } from '../write/same-again'
import type { SignedIn } from './staff'

/** Facts that cannot be stored, because their ids say they belong elsewhere. */
export class EventsRefused extends Error {}

async function refuseStrangers(tx: Transaction, checkinId: string, readingIds: string[]): Promise<void> {
  if (readingIds.length === 0) return
  const stored = await tx
    .select({ id: reading.id, checkinId: reading.checkinId })
    .from(reading)
    .where(inArray(reading.id, readingIds))
  if (stored.some((row) => row.checkinId !== checkinId)) {
    throw new EventsRefused('A reading with this id belongs to another check-in.')
  }
  if (stored.length < readingIds.length)
    throw new EventsRefused('A strike or note names a reading that was never taken.')
}

/**
 * Stores readings, strikes, skips and notes as a set union: sending any of them again changes nothing. All or nothing.
 * @returns how many were new
 * @throws EventsRefused when a strike or note names a reading nobody sent, IdTaken when an id holds another fact
 */
export async function storeEvents(
  tx: Transaction,
  who: SignedIn,
  checkinId: string,
  events: EventsInput,
): Promise<number> {
  const { readings, strikes, skips, remarks } = events
  const named = [...new Set([...strikes, ...remarks].map(({ readingId }) => readingId))]
  const added = [
    await storeOnce(
      tx,
      reading,
      reading.id,
      readings.map((fact) => ({ ...fact, checkinId, takenBy: who.staffId })),
      ['checkinId', 'site', 'round', 'value', 'unit', 'takenAt', 'source', 'method'],
    ),
  ]
  await refuseStrangers(tx, checkinId, named)
  added.push(
    // One strike is enough, whoever was first.
    await storeOnce(
      tx,
      strike,
      strike.readingId,
      strikes.map((fact) => ({ ...fact, struckBy: who.staffId })),
      [],
    ),
    await storeOnce(
      tx,
      skip,
      skip.id,
      skips.map((fact) => ({ ...fact, checkinId, skippedBy: who.staffId })),
      ['checkinId', 'site', 'reason', 'words', 'at'],
    ),
    await storeOnce(
      tx,
      remark,
      remark.id,
      remarks.map((fact) => ({ ...fact, madeBy: who.staffId })),
      ['readingId', 'words', 'at'],
    ),
  )
  return added.reduce((sum, count) => sum + count, 0)
}
