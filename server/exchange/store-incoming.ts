import { findProtocol } from '../../core/protocols'
import { siteInSet } from '../../core/sites'
import { setImmediate } from 'node:timers/promises'
import { getTableColumns, inArray, sql } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'
import { v7 as uuid } from 'uuid'
import { sameName, type CellProblem, type IncomingRow } from '../../exchange/incoming'
import type { ImportKind } from '../../shared/schemas/data'
import type { Transaction } from '../db/database'
import { checkin, client, dataImport, importedItem, reading, remark, staff, strike, weighIn } from '../db/schema'
import type { LookedAt } from '../../shared/schemas/data'
import type { SignedIn } from '../repositories/staff'
import { TableRefused } from '../../exchange/table/cells'
import { clash } from './archive-in'
import type { BringIn, Known } from './bring-in'
import type { Matched } from './people'
import type { Progress } from './progress'

const BATCH = 1_000

/** The file has changed since it was looked through, or holds something wrong: nothing of it is stored. */
export class NotClean extends Error {
  /** `looked`: what was found, where the whole file was looked through. */
  constructor(readonly looked: LookedAt | null = null) {
    super('Something in this file is still wrong: nothing was stored. Look at its problems first.')
  }
}

/** The order in which tables are stored: what others name comes before them. */
const ORDER = [dataImport, client, checkin, reading, strike, remark, weighIn, importedItem] as const

/** Rows gathered to be stored together. */
class Gathered {
  private readonly tables = new Map<unknown, Record<string, unknown>[]>(ORDER.map((table) => [table, []]))
  constructor(private readonly tx: Transaction) {}

  async add<Table extends Parameters<Transaction['insert']>[0]>(
    table: Table,
    row: Table['$inferInsert'],
  ): Promise<void> {
    const rows = this.tables.get(table) ?? []
    rows.push(row as Record<string, unknown>)
    if (rows.length >= BATCH) await this.flush()
  }

  async flush(): Promise<void> {
    for (const [table, rows] of this.tables) {
      const [first] = rows
      if (!first) continue
      if (rows.some((row) => Object.keys(row).length !== Object.keys(first).length))
        throw new Error('Rows stored together name the same columns.')
      const known = getTableColumns(table as typeof checkin) as Record<string, PgColumn>
      const names = Object.keys(first).map((key) => sql.identifier(known[key]?.name ?? key))
      const columns = sql.join(names, sql`, `)
      const values = rows.map((row) =>
        Object.fromEntries(Object.entries(row).map(([key, value]) => [known[key]?.name ?? key, value])),
      )
      // One value instead of thousands: several times faster on either database.
      const stored = this.tx.execute(
        sql`insert into ${table as typeof checkin} (${columns}) select ${columns} from json_populate_recordset(null::${table as typeof checkin}, ${JSON.stringify(values)}::json)`,
      )
      await stored.catch((error: unknown) => {
        const what = clash(error)
        throw what ? new TableRefused(`A value of this file cannot be kept: ${what} Nothing was stored.`) : error
      })
      rows.length = 0
      // The embedded database computes on this thread: whoever asks how far this is, or gives it up, gets a turn.
      await setImmediate()
    }
  }
}

interface Storing {
  who: SignedIn
  importId: string
  /** Staff by name. */
  staff: Map<string, string>
}

async function addVisit(
  out: Gathered,
  { who, importId, staff: known }: Storing,
  row: IncomingRow,
  visit: Known,
  one: Matched,
) {
  const assessorId = known.get(sameName(row.assessor)) ?? null
  // Who measured and is nobody of the staff stays readable.
  const words = [row.note, row.assessor && !assessorId ? `Measured by ${row.assessor}.` : ''].filter(Boolean).join(' ')
  const end = new Date(Date.parse(row.at) + visit.readings * 1000).toISOString()
  await out.add(checkin, {
    id: visit.id,
    clientId: one.id,
    protocolId: row.protocolId ?? '',
    side: row.side,
    startedBy: who.staffId,
    assessorId,
    startedAt: row.at,
    day: row.day,
    finishedAt: end,
    withHeight: row.readings.some(({ site }) => site === 'height'),
    note: words.slice(0, 4_000),
  })
  await out.add(importedItem, { importId, kind: 'checkin', itemId: visit.id, facts: visit.readings })
}

async function addReadings(
  out: Gathered,
  { who }: Storing,
  row: IncomingRow,
  visit: Known,
  from: number,
): Promise<number> {
  let place = from
  const sites = (row.protocolId ? findProtocol(row.protocolId) : null)?.sites ?? []
  for (const { struck, note, site: named, ...plain } of row.readings) {
    const id = uuid()
    const fact = { ...plain, site: named === 'weight' || named === 'height' ? named : siteInSet(sites, named) }
    const takenAt = new Date(Date.parse(row.at) + place * 1000).toISOString()
    await out.add(reading, { ...fact, id, checkinId: visit.id, takenAt, takenBy: who.staffId, source: 'import' })
    if (struck) await out.add(strike, { readingId: id, struckAt: takenAt, struckBy: who.staffId })
    if (note) await out.add(remark, { id: uuid(), readingId: id, words: note, at: takenAt, madeBy: who.staffId })
    place += 1
  }
  return place
}

async function addWeight(
  out: Gathered,
  { who, importId }: Storing,
  { day, readings: [weight] }: IncomingRow,
  one: Matched,
) {
  if (!weight || (weight.unit !== 'kg' && weight.unit !== 'lb')) return
  const id = uuid()
  const { value, unit } = weight
  await out.add(weighIn, {
    id,
    clientId: one.id,
    day,
    value,
    unit,
    dry: true,
    source: 'pasted',
    enteredBy: who.staffId,
  })
  await out.add(importedItem, { importId, kind: 'weigh-in', itemId: id, facts: 0 })
}

/**
 * Stores what a file says that is not here yet, all or nothing: to be called in the transaction of the door, with the
 * file's rows once more.
 * @throws NotClean when a row is wrong after all
 */
export async function storeIncoming(
  tx: Transaction,
  who: SignedIn,
  { id: importId, kind, fileName }: { id: string; kind: ImportKind; fileName: string },
  found: BringIn,
  rows: (tell: (problem: CellProblem) => void) => AsyncIterable<IncomingRow>,
  { tell, stopped }: Progress,
): Promise<void> {
  if (found.problemCount > 0) throw new NotClean()
  const { newClients, checkins, readings, weighIns } = found.said()
  const named = await tx.select({ id: staff.id, name: staff.name }).from(staff)
  const storing: Storing = { who, importId, staff: new Map(named.map((one) => [sameName(one.name), one.id])) }
  const out = new Gathered(tx)
  // Tried again after a lost connection: nothing of the first time is stored.
  for (const visit of found.visits.values()) visit.stored = false
  await out.add(dataImport, {
    id: importId,
    studioId: who.studioId,
    kind,
    fileName,
    broughtBy: who.staffId,
    clients: newClients,
    checkins,
    readings,
    weighIns,
  })
  for (const { isNew, line: _, ...one } of found.people.all()) {
    if (!isNew) continue
    await out.add(client, { ...one, studioId: who.studioId })
    await out.add(importedItem, { importId, kind: 'client', itemId: one.id, facts: 0 })
  }
  const places = new Map<string, number>()
  let done = 0
  const isWrong = (): never => {
    throw new NotClean()
  }
  for await (const row of rows(isWrong)) {
    const visit = found.visitOf(row)
    done += 1
    if (done % 200 === 0) {
      stopped()
      tell({ done, total: 0, of: 'rows' })
    }
    if (!visit) continue
    const { known, client: one } = visit
    if (row.protocolId === null) await addWeight(out, storing, row, one)
    else {
      if (!known.stored) await addVisit(out, storing, row, known, one)
      known.stored = true
      places.set(known.id, await addReadings(out, storing, row, known, places.get(known.id) ?? 1))
    }
  }
  await out.flush()
  const matched = found.people.all().flatMap(({ id, isNew }) => (isNew ? [] : [id]))
  if (matched.length > 0)
    await tx
      .update(client)
      .set({ touchedAt: sql`clock_timestamp()` })
      .where(inArray(client.id, matched))
}
