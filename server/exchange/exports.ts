import { createWriteStream } from 'node:fs'
import { writeFile } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import {
  bundleText,
  personResources,
  visitResources,
  weightResource,
  type Resource,
} from '../../exchange/fhir/bundle-out'
import { csvRow, READINGS_HEADER } from '../../exchange/readings-csv'
import { writeWorkbook } from '../../exchange/workbook'
import { calendarOf } from '../../exchange/calendar'
import { localDay } from '../../core/calendar'
import type { Queryable, Store } from '../db/database'
import { bookingsForCalendar } from '../repositories/bookings'
import { dueDays, dueId } from '../repositories/due-days'
import type { PhotoStore } from '../ports/photo-store'
import { findTimeZone, type SignedIn } from '../repositories/staff'
import { writeArchive } from './archive-out'
import { atStudio, bundleVisits, eachRecord, staffNames, type ExportedRecord } from './records'
import { sheetsOf } from './sheets'
import { UNWATCHED, type Progress } from './progress'

/** Open formats a studio, or one client, leaves in. */
export const EXPORTS = {
  archive: 'oakpinch.zip',
  readings: 'csv',
  workbook: 'xlsx',
  fhir: 'fhir.json',
  calendar: 'ics',
} as const
export type ExportFormat = keyof typeof EXPORTS

/** What exports are made from. */
export interface ExportFrom {
  store: Pick<Store, 'snapshot' | 'browse'>
  photos: Pick<PhotoStore, 'get'>
  who: SignedIn
  /** Null: everybody. */
  clientId: string | null
}

/** Who works in a studio, and on which clocks. */
interface Studio {
  staff: ReadonlyMap<string, string>
  zone: string
}

/** Names as the readings CSV has them: one for each person, so that a table by name alone keeps people apart. */
class Names {
  private readonly taken = new Map<string, string>()
  of({ id, name }: { id: string; name: string }): string {
    for (let n = 1; ; n += 1) {
      const said = n === 1 ? name : `${name} (${n})`
      const owner = this.taken.get(said)
      if (owner === undefined || owner === id) {
        this.taken.set(said, id)
        return said
      }
    }
  }
}

function* readingRows({ history: { client }, record }: ExportedRecord, names: Names, { staff, zone }: Studio) {
  for (const { record: visit } of record.ends) {
    const struck = new Set(visit.strikes.map(({ readingId }) => readingId))
    const notes = new Map(visit.remarks.map(({ readingId, words }) => [readingId, words]))
    for (const { id, site, value, unit, round, method } of visit.readings) {
      yield csvRow([
        names.of(client),
        client.sex,
        client.birthDate,
        client.heightCm,
        atStudio(visit.startedAt, zone),
        visit.protocolId,
        visit.assessorId ? (staff.get(visit.assessorId) ?? '') : '',
        site,
        value,
        unit,
        round,
        struck.has(id) ? 'yes' : '',
        method ?? '',
        notes.get(id) ?? '',
      ])
    }
  }
}

async function* csvText(records: AsyncIterable<ExportedRecord>, studio: Studio) {
  yield csvRow([...READINGS_HEADER])
  const names = new Names()
  for await (const one of records) yield [...readingRows(one, names, studio)].join('')
}

async function* resourcesOf(
  records: AsyncIterable<ExportedRecord>,
  { staff, zone }: Studio,
): AsyncGenerator<Resource[]> {
  for await (const one of records) {
    const { client, weighIns } = one.history
    yield [
      ...personResources(client),
      ...bundleVisits(one, staff, zone).flatMap(visitResources),
      ...weighIns.map(({ id, day, value, unit }) => weightResource({ id, clientId: client.id, day, value, unit })),
    ]
  }
}

/** Every visit ever booked and the days that are due, of everybody or of one client, as one calendar. */
async function calendarText(db: Queryable, { who, clientId }: ExportFrom): Promise<string> {
  const all = await bookingsForCalendar(
    db,
    { studioId: who.studioId, staffId: null, sees: 'all' },
    '1970-01-01T00:00:00Z',
  )
  const own = clientId ? all.filter((one) => one.clientId === clientId) : all
  const zone = await findTimeZone(db, who)
  const due = await dueDays(db, { studioId: who.studioId, staffId: null }, localDay(Date.now(), zone), zone)
  return calendarOf(
    'Visits',
    own.map((one) => ({ ...one, title: one.clientName, cancelled: one.state === 'cancelled' })),
    'oak-pinch',
    clientId ? due.filter(({ id }) => id === dueId(clientId)) : due,
  )
}

/** Writes an export to a file; nothing is held in memory but one client's record. */
export async function writeExport(
  format: ExportFormat,
  path: string,
  from: ExportFrom,
  progress: Progress,
): Promise<void> {
  const { store, photos, who, clientId } = from
  const into = () => createWriteStream(path, { mode: 0o600 })
  if (format === 'archive') return void (await writeArchive(store, photos, into(), progress))
  await store.browse(async (db) => {
    if (format === 'calendar') return writeFile(path, await calendarText(db, from), { mode: 0o600 })
    const staff = await staffNames(db, who)
    const zone = await findTimeZone(db, who)
    if (format === 'workbook') {
      // Each sheet walks over everybody once; the first walk tells how far it is.
      let told = false
      const records = () => {
        const walk = eachRecord(db, who, clientId, told ? { ...UNWATCHED, stopped: progress.stopped } : progress)
        told = true
        return walk
      }
      return writeWorkbook(path, sheetsOf(records, staff))
    }
    const records = eachRecord(db, who, clientId, progress)
    const text =
      format === 'readings' ? csvText(records, { staff, zone }) : bundleText(resourcesOf(records, { staff, zone }))
    await pipeline(Readable.from(text, { objectMode: true }), into())
  })
}
