import { createHash } from 'node:crypto'
import { and, asc, eq, gt, isNull, sql } from 'drizzle-orm'
import type { RecordCheck } from '../../shared/schemas/record'
import type { Queryable, Transaction } from '../db/database'
import { audit, auditChain } from '../db/schema'
import type { InStudio } from './staff'

const BATCH = 5_000

type RecordRow = typeof audit.$inferSelect

/** What a row of the record adds to the chain, as the database writes it (migration 0016). */
function linkOf(before: string, { id, studioId, at, actor, staffId, kind, clientId, checkinId, subjectId }: RecordRow) {
  const instant = new Date(at).toISOString()
  const row = [id, studioId, instant, actor, staffId, kind, clientId, checkinId, subjectId].map((one) => one ?? '')
  return createHash('sha256')
    .update(`${before}\n${row.join('|')}`)
    .digest('hex')
}

/**
 * Walks a studio's record from its first row and works every hash out anew.
 * @param anchor a place of the chain and its hash as they were noted elsewhere (a backup's log line): whoever can write to
 * the database can also write a chain anew, and only a hash kept elsewhere shows that
 */
export async function checkRecord(
  db: Queryable,
  { studioId }: InStudio,
  anchor: { seq: number; hash: string } | null = null,
): Promise<RecordCheck> {
  let last = { seq: 0, hash: '' }
  const fault = (words: string): RecordCheck => ({ entries: last.seq, last: last.hash || null, fault: words })
  for (;;) {
    const rows = await db
      .select({ seq: auditChain.seq, hash: auditChain.hash, row: audit })
      .from(auditChain)
      .leftJoin(audit, eq(audit.id, auditChain.auditId))
      .where(and(eq(auditChain.studioId, studioId), gt(auditChain.seq, last.seq)))
      .orderBy(asc(auditChain.seq))
      .limit(BATCH)
    for (const { seq, hash, row } of rows) {
      if (seq !== last.seq + 1) return fault(`Entry ${last.seq + 1} is missing.`)
      if (!row) return fault(`Entry ${seq} was removed.`)
      if (linkOf(last.hash, row) !== hash) return fault(`Entry ${seq} is not what was written.`)
      if (anchor?.seq === seq && anchor.hash !== hash)
        return fault(`Entry ${seq} does not have the hash that was noted: the record was written anew.`)
      last = { seq, hash }
    }
    if (rows.length < BATCH) break
  }
  const [{ loose = 0 } = {}] = await db
    .select({ loose: sql<number>`count(*)::int` })
    .from(audit)
    .leftJoin(auditChain, eq(auditChain.auditId, audit.id))
    .where(and(eq(audit.studioId, studioId), isNull(auditChain.auditId)))
  if (loose > 0) return fault(`${loose} entries stand in the record and not in its chain: they were put in by hand.`)
  if (anchor && anchor.seq > last.seq)
    return fault(`Entry ${anchor.seq}, which was noted, is missing: the end of the record was cut off.`)
  return { entries: last.seq, last: last.hash || null, fault: null }
}

/** The newest place of a studio's chain: noted elsewhere, it shows later whether the log was written anew. */
export async function recordEnd(db: Queryable, { studioId }: InStudio): Promise<{ seq: number; hash: string } | null> {
  const [end] = await db
    .select({ seq: auditChain.seq, hash: auditChain.hash })
    .from(auditChain)
    .where(eq(auditChain.studioId, studioId))
    .orderBy(sql`${auditChain.seq} desc`)
    .limit(1)
  return end ?? null
}

/** An entry and its hash as people note them. @example endSaid({ seq: 12, hash: '9f…' }) // '12:9f…' */
export const endSaid = (end: { seq: number; hash: string } | null) => end && `${end.seq}:${end.hash}`

/** Rows that come now bring their own chain with them, until the transaction ends; what has none gets it by `chainLoose`. */
export async function chainComesAlong(tx: Transaction): Promise<void> {
  await tx.execute(sql`select set_config('oak_pinch.restoring', 'on', true)`)
}

/** Chains rows of the record that are in no chain yet, in the order of their ids. */
export async function chainLoose(tx: Transaction): Promise<void> {
  await tx.execute(sql`select set_config('oak_pinch.restoring', '', true)`)
  await tx.execute(sql`select audit_chain_loose()`)
}
