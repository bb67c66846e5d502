import { and, desc, eq, gte, lt, sql } from 'drizzle-orm'
import { CHANGE_WORDS, type RecordedKind } from '../../shared/change-words'
import type { RecordLine, RecordPage, RecordQuery } from '../../shared/schemas/record'
import type { Queryable } from '../db/database'
import { audit, client, staff } from '../db/schema'
import type { InStudio } from './staff'

const PAGE = 100

function wordsOf(kind: string): string {
  return kind in CHANGE_WORDS ? CHANGE_WORDS[kind as RecordedKind] : kind
}

/** A page of the studio's record, the newest first. `day`: the instants between which one of its days lies. */
export async function listRecord(
  db: Queryable,
  who: InStudio,
  { staffId, clientId, kind, before }: Omit<RecordQuery, 'day'>,
  day: { from: string; to: string } | null,
): Promise<Omit<RecordPage, 'end'>> {
  const rows = await db
    .select({
      id: audit.id,
      at: audit.at,
      actor: audit.actor,
      by: staff.name,
      kind: audit.kind,
      clientId: audit.clientId,
      client: client.name,
      checkinId: audit.checkinId,
      subject: sql<string | null>`(select s.name from staff s where s.id = ${audit.subjectId})`,
    })
    .from(audit)
    .leftJoin(staff, eq(staff.id, audit.staffId))
    .leftJoin(client, eq(client.id, audit.clientId))
    .where(
      and(
        eq(audit.studioId, who.studioId),
        staffId ? eq(audit.staffId, staffId) : undefined,
        clientId ? eq(audit.clientId, clientId) : undefined,
        kind ? eq(audit.kind, kind) : undefined,
        day ? and(gte(audit.at, day.from), lt(audit.at, day.to)) : undefined,
        // Ids count up with time: the one a page ended with is where the next begins.
        before ? lt(audit.id, before) : undefined,
      ),
    )
    .orderBy(desc(audit.id))
    .limit(PAGE + 1)
  const lines = rows.slice(0, PAGE).map((row): RecordLine => ({ ...row, words: wordsOf(row.kind) }))
  return { lines, next: rows.length > PAGE ? (lines.at(-1)?.id ?? null) : null }
}
