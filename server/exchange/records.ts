import { and, asc, eq, gt } from 'drizzle-orm'
import { sayInZone } from '../../core/calendar'
import { endFigures } from '../../core/following'
import { findProtocol } from '../../core/protocols'
import type { BundleVisit } from '../../exchange/fhir/bundle-out'
import { followRecord, type FollowedRecord } from '../../shared/followed-record'
import type { ClientHistory } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { client, staff } from '../db/schema'
import { findClient } from '../repositories/clients'
import { findHistory } from '../repositories/history'
import type { SignedIn } from '../repositories/staff'
import type { Progress } from './progress'

/** A client with their history put together. */
export interface ExportedRecord {
  history: ClientHistory
  record: FollowedRecord
}

/** Names of everybody of the staff, by id. */
export async function staffNames(db: Queryable, { studioId }: SignedIn): Promise<Map<string, string>> {
  const rows = await db.select({ id: staff.id, name: staff.name }).from(staff).where(eq(staff.studioId, studioId))
  return new Map(rows.map(({ id, name }) => [id, name]))
}

const PAGE = 200

/** Ids of a studio's clients, or the one that is wanted. */
async function idsOf(db: Queryable, { studioId }: SignedIn, clientId: string | null): Promise<string[]> {
  if (clientId) return [clientId]
  const ids: string[] = []
  for (let last = ''; ; last = ids.at(-1) ?? '') {
    const page = await db
      .select({ id: client.id })
      .from(client)
      .where(and(eq(client.studioId, studioId), ...(last ? [gt(client.id, last)] : [])))
      .orderBy(asc(client.id))
      .limit(PAGE)
    ids.push(...page.map(({ id }) => id))
    if (page.length < PAGE) return ids
  }
}

/** Every client's record, one after another: only one is held at a time. */
export async function* eachRecord(
  db: Queryable,
  who: SignedIn,
  clientId: string | null,
  { tell, stopped }: Progress,
): AsyncGenerator<ExportedRecord> {
  const ids = await idsOf(db, who, clientId)
  for (const [i, id] of ids.entries()) {
    stopped()
    const found = await findClient(db, who, id)
    if (found) {
      const history = await findHistory(db, who, found)
      yield { history, record: followRecord(history) }
    }
    tell({ done: i + 1, total: ids.length, of: 'clients' })
  }
}

/**
 * An instant on the studio's own clocks (ISO 8601 with their offset), so that the day it is written with is the day it was.
 * @example atStudio('2026-11-26T23:30:00.000Z', 'Europe/Oslo') // '2026-11-27T00:30:00.000+01:00'
 */
export const atStudio = (instant: string, zone: string) => sayInZone(instant, zone, "yyyy-MM-dd'T'HH:mm:ss.SSSxxx")

/** Check-ins of a record as a bundle has them. */
export function bundleVisits(
  { history, record }: ExportedRecord,
  names: ReadonlyMap<string, string>,
  zone: string,
): BundleVisit[] {
  return record.ends.map((end) => {
    const { record: visit, result } = end
    const { percent } = endFigures(end)
    const struck = new Set(visit.strikes.map(({ readingId }) => readingId))
    const values = { ...result.values }
    const notes = new Map(visit.remarks.map(({ readingId, words }) => [readingId, words]))
    return {
      id: visit.id,
      clientId: history.client.id,
      at: atStudio(visit.startedAt, zone),
      setId: visit.protocolId,
      setName: findProtocol(visit.protocolId)?.name ?? visit.protocolId,
      assessor: visit.assessorId ? (names.get(visit.assessorId) ?? null) : null,
      side: visit.side,
      note: visit.note,
      readings: visit.readings.map((one) => ({
        ...one,
        method: one.method ?? null,
        struck: struck.has(one.id),
        note: notes.get(one.id) ?? '',
      })),
      values: {
        ...values,
        ...(result.weightKg === null ? {} : { weight: result.weightKg }),
        ...(visit.withHeight && result.heightCm !== null ? { height: result.heightCm } : {}),
      },
      bmi: result.indexes.bmi,
      percent: percent && result.estimate ? { value: percent.value, equation: result.estimate.equation.label } : null,
    }
  })
}
