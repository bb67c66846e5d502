import { inArray } from 'drizzle-orm'
import type { EventsInput } from '../../shared/schemas/checkin'
import type { Database } from '../db/database'
import { reading, remark, skip, strike } from '../db/schema'
import type { SignedIn } from './staff'
import { touchByCheckin } from './touch'

/** Facts that cannot be stored, because their ids say they belong elsewhere. */
export class EventsRefused extends Error {}

type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0]

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
 * @throws EventsRefused when an id belongs to another check-in, or a strike or note names a reading nobody sent
 */
export async function storeEvents(db: Database, who: SignedIn, checkinId: string, events: EventsInput): Promise<void> {
  const { readings, strikes, skips, remarks } = events
  const readingIds = [
    ...new Set([...readings.map(({ id }) => id), ...[...strikes, ...remarks].map(({ readingId }) => readingId)]),
  ]
  await db.transaction(async (tx) => {
    if (readings.length > 0) {
      const rows = readings.map((fact) => ({ ...fact, checkinId, takenBy: who.staffId }))
      await tx.insert(reading).values(rows).onConflictDoNothing({ target: reading.id })
    }
    await refuseStrangers(tx, checkinId, readingIds)
    if (strikes.length > 0) {
      const rows = strikes.map((fact) => ({ ...fact, struckBy: who.staffId }))
      await tx.insert(strike).values(rows).onConflictDoNothing({ target: strike.readingId })
    }
    if (skips.length > 0) {
      const rows = skips.map((fact) => ({ ...fact, checkinId, skippedBy: who.staffId }))
      await tx.insert(skip).values(rows).onConflictDoNothing({ target: skip.id })
    }
    if (remarks.length > 0) {
      const rows = remarks.map((fact) => ({ ...fact, madeBy: who.staffId }))
      await tx.insert(remark).values(rows).onConflictDoNothing({ target: remark.id })
    }
    await touchByCheckin(tx, checkinId)
  })
}
