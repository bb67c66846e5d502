import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import type { BroughtIn } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { checkin, client, dataImport, importedItem, reading, staff } from '../db/schema'

/**
 * What of a client was brought in by files: the client (`checkinId` null), whole check-ins, and readings added to
 * check-ins that were here. The newest import first.
 */
export async function listBroughtIn(db: Queryable, clientId: string): Promise<BroughtIn[]> {
  const items = db
    .select({ importId: importedItem.importId, checkinId: sql<string | null>`null::uuid`.as('checkin_id') })
    .from(importedItem)
    .innerJoin(client, eq(client.id, importedItem.itemId))
    .where(eq(client.id, clientId))
    .unionAll(
      db
        .select({ importId: importedItem.importId, checkinId: sql<string | null>`${checkin.id}`.as('checkin_id') })
        .from(importedItem)
        .innerJoin(checkin, eq(checkin.id, importedItem.itemId))
        .where(eq(checkin.clientId, clientId)),
    )
    .unionAll(
      db
        .select({ importId: importedItem.importId, checkinId: sql<string | null>`${checkin.id}`.as('checkin_id') })
        .from(importedItem)
        .innerJoin(reading, eq(reading.id, importedItem.itemId))
        .innerJoin(checkin, eq(checkin.id, reading.checkinId))
        .where(eq(checkin.clientId, clientId)),
    )
    .as('items')
  return db
    .select({ checkinId: items.checkinId, fileName: dataImport.fileName, by: staff.name, at: dataImport.at })
    .from(items)
    .innerJoin(dataImport, and(eq(dataImport.id, items.importId), isNull(dataImport.takenBackAt)))
    .innerJoin(staff, eq(staff.id, dataImport.broughtBy))
    .groupBy(items.checkinId, dataImport.fileName, staff.name, dataImport.at)
    .orderBy(desc(dataImport.at))
}
