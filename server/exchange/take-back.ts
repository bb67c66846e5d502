import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { ImportLine } from '../../shared/schemas/data'
import type { Queryable, Transaction } from '../db/database'
import { checkin, client, dataImport, importedItem, reading, remark, staff, strike, weighIn } from '../db/schema'
import type { InStudio, SignedIn } from '../repositories/staff'

/** Something was built on an import: it stays, and why. */
export class CannotTakeBack extends Error {}

/** What was brought into a studio, the newest first. */
export async function listImports(db: Queryable, { studioId }: InStudio): Promise<ImportLine[]> {
  return db
    .select({
      id: dataImport.id,
      kind: dataImport.kind,
      fileName: dataImport.fileName,
      by: staff.name,
      at: dataImport.at,
      clients: dataImport.clients,
      checkins: dataImport.checkins,
      readings: dataImport.readings,
      weighIns: dataImport.weighIns,
      takenBackAt: dataImport.takenBackAt,
    })
    .from(dataImport)
    .innerJoin(staff, eq(staff.id, dataImport.broughtBy))
    .where(eq(dataImport.studioId, studioId))
    .orderBy(desc(dataImport.at))
    .limit(50)
}

/** Ids an import made, of one kind, as a question within a question. */
const made = (importId: string, kind: 'client' | 'checkin' | 'weigh-in') =>
  sql`(select item_id from imported_item where import_id = ${importId} and kind = ${kind})`

/** What was done to an import's check-ins since: anything of it keeps the import where it is. */
async function builtOn(db: Queryable, importId: string): Promise<string | null> {
  const [more] = await db
    .select({ name: client.name, day: checkin.day })
    .from(importedItem)
    .innerJoin(checkin, eq(checkin.id, importedItem.itemId))
    .innerJoin(client, eq(client.id, checkin.clientId))
    .where(
      and(
        eq(importedItem.importId, importId),
        sql`((select count(*) from ${reading} where ${reading.checkinId} = ${checkin.id}) <> ${importedItem.facts}
          or ${checkin.keptWords} is not null or ${checkin.voidedAt} is not null
          or exists (select 1 from skip where skip.checkin_id = ${checkin.id}))`,
      ),
    )
    .limit(1)
  return more ? `The check-in of ${more.name} on ${more.day} was worked on since: the import stays.` : null
}

/**
 * Takes a whole import back: its check-ins, weights and clients go, as if it had never been. All or nothing.
 * @throws CannotTakeBack with what was built on it
 */
export async function takeBack(tx: Transaction, who: SignedIn, importId: string): Promise<void> {
  const [found] = await tx
    .update(dataImport)
    .set({ takenBackAt: new Date().toISOString(), takenBackBy: who.staffId })
    .where(and(eq(dataImport.id, importId), eq(dataImport.studioId, who.studioId), isNull(dataImport.takenBackAt)))
    .returning({ id: dataImport.id, kind: dataImport.kind })
  if (!found) throw new CannotTakeBack('There is no such import here, or it was taken back already.')
  if (found.kind === 'archive') throw new CannotTakeBack('An archive is merged for good: restore a backup instead.')
  const built = await builtOn(tx, importId)
  if (built) throw new CannotTakeBack(built)
  const own = sql`(select id from reading where checkin_id in ${made(importId, 'checkin')})`
  try {
    // Whose lists change: those who were here before.
    await tx
      .update(client)
      .set({ touchedAt: sql`clock_timestamp()` })
      .where(sql`${client.id} in (select client_id from checkin where id in ${made(importId, 'checkin')})`)
    await tx.delete(remark).where(sql`${remark.readingId} in ${own}`)
    await tx.delete(strike).where(sql`${strike.readingId} in ${own}`)
    await tx.delete(reading).where(sql`${reading.checkinId} in ${made(importId, 'checkin')}`)
    await tx.delete(checkin).where(sql`${checkin.id} in ${made(importId, 'checkin')}`)
    await tx.delete(weighIn).where(sql`${weighIn.id} in ${made(importId, 'weigh-in')}`)
    await tx.delete(client).where(sql`${client.id} in ${made(importId, 'client')}`)
  } catch (error) {
    const { code } = ((error as { cause?: unknown }).cause ?? error) as { code?: string }
    // Something names a row that was to go (PostgreSQL: foreign_key_violation).
    if (code === '23503')
      throw new CannotTakeBack(
        'Something was built on this import since (a photograph, a plan, a booking, a later check-in): it stays.',
      )
    throw error
  }
  await tx.delete(importedItem).where(inArray(importedItem.importId, [importId]))
}
