import { isInSet, siteInSet } from '../../core/sites'
import { open } from 'node:fs/promises'
import { and, eq, sql } from 'drizzle-orm'
import { clockIn } from '../../core/calendar'
import { PROTOCOLS, findProtocol } from '../../core/protocols'
import { SITES, type SiteId } from '../../core/sites'
import { READINGS_HEADER } from '../../exchange/readings-csv'
import type { CellProblem, IncomingClient, IncomingRow, Tell } from '../../exchange/incoming'
import { TableRefused } from '../../exchange/table/cells'
import { readHeading, type Means, type Remembered } from '../../exchange/table/headings'
import { readCsv } from '../../exchange/table/read-csv'
import { openQuestions, type TableFile } from '../../exchange/table/source'
import type { TablePlan } from '../../exchange/table/visits'
import { openZipIn } from '../../exchange/archive/zip-in'
import type { FileLook, ImportKind, TableLook, TablePlanInput } from '../../shared/schemas/data'
import type { Queryable, Transaction } from '../db/database'
import { client, columnName, studio } from '../db/schema'
import { listSets } from '../repositories/sets'
import type { InStudio, SignedIn } from '../repositories/staff'
import { BringIn, type Terms } from './bring-in'
import { readHere, type FileReader } from './file-reader'
import { isSealed } from '../sealed/sealed-file'
import type { Progress } from './progress'

/** A file somebody brought. */
export interface BroughtFile {
  path: string
  name: string
}

interface Kind {
  type: ImportKind
  form: 'csv' | 'xlsx' | 'json' | 'zip'
}

/** What a file is, by its first bytes and its headings, never by its name. */
export async function kindOf({ path }: BroughtFile): Promise<Kind> {
  const handle = await open(path)
  const { buffer, bytesRead } = await handle.read(Buffer.alloc(512), 0, 512, 0).finally(() => handle.close())
  const start = buffer.subarray(0, bytesRead)
  if (bytesRead === 0) throw new TableRefused('This file is empty.')
  if (await isSealed(path)) return { type: 'archive', form: 'zip' }
  if (start.subarray(0, 2).toString('latin1') === 'PK') {
    const zip = await openZipIn(path, { parts: 1_000_300, partBytes: 2 ** 40, allBytes: 2 ** 42, ratio: 1_000 })
    zip.close()
    return zip.paths.includes('manifest.json') ? { type: 'archive', form: 'zip' } : { type: 'table', form: 'xlsx' }
  }
  if (/^\s*\{/.test(start.toString('utf8').replace(/^\uFEFF/, ''))) return { type: 'fhir', form: 'json' }
  for await (const { cells } of readCsv(path)) {
    const names = new Set(
      cells.map((cell) =>
        String(cell ?? '')
          .trim()
          .toLowerCase(),
      ),
    )
    const isReadings = READINGS_HEADER.slice(0, 9).every((name) => names.has(name))
    return { type: isReadings ? 'readings' : 'table', form: 'csv' }
  }
  throw new TableRefused('This file is empty.')
}

async function remembered(db: Queryable, { studioId }: InStudio): Promise<Remembered> {
  const rows = await db
    .select({ heading: columnName.heading, means: columnName.means, unit: columnName.unit })
    .from(columnName)
    .where(eq(columnName.studioId, studioId))
  return new Map(rows.map(({ heading, means, unit }) => [heading, { means: means as Means, unit: unit as never }]))
}

/** Keeps what somebody said of a table's headings, for the next one. */
export async function rememberHeadings(
  tx: Transaction,
  { studioId }: SignedIn,
  headings: readonly string[],
  plan: TablePlanInput,
): Promise<void> {
  const rows = plan.columns.flatMap(({ means, unit }, i) => {
    const { bare } = readHeading(headings[i] ?? '')
    return means && bare ? [{ studioId, heading: bare.slice(0, 120), means, unit }] : []
  })
  const once = [...new Map(rows.map((row) => [row.heading, row])).values()]
  if (once.length === 0) return
  await tx
    .insert(columnName)
    .values(once)
    .onConflictDoUpdate({
      target: [columnName.studioId, columnName.heading],
      set: { means: sql`excluded.means`, unit: sql`excluded.unit`, at: sql`now()` },
    })
}

/** Sets a table's sites can be of: those that hold all of them and little more come first. */
async function setsFor(db: Queryable, who: InStudio, sites: readonly SiteId[]): Promise<TableLook['sets']> {
  const own = (await listSets(db, who)).filter(({ offered }) => offered)
  const all = [...Object.values(PROTOCOLS), ...own.flatMap(({ id }) => findProtocol(id) ?? [])]
  return all
    .map(({ id, name, sites: has }) => ({
      id,
      name,
      lacks: sites.filter((site) => !isInSet(has, siteInSet(has, site))),
      more: has.filter((site) => !sites.some((one) => siteInSet(has, one) === site)).length,
    }))
    .sort((a, b) => a.lacks.length - b.lacks.length || a.more - b.more)
}

async function clientOf(db: Queryable, { studioId }: InStudio, id: string | null): Promise<IncomingClient | null> {
  if (!id) return null
  const [found] = await db
    .select({ name: client.name, sex: client.sex, birthDate: client.birthDate })
    .from(client)
    .where(and(eq(client.id, id), eq(client.studioId, studioId)))
  return found ? { ...found, heightCm: null } : null
}

/** A file ready to be looked through: its rows, and how they are compared with what is here. */
interface Readable {
  terms: Terms
  rows: (tell: Tell) => AsyncIterable<IncomingRow>
  table: TableLook | null
  questions: CellProblem[]
}

async function readableTable(
  db: Queryable,
  who: InStudio,
  file: BroughtFile,
  form: 'csv' | 'xlsx',
  given: TablePlanInput | null,
  reader: FileReader,
): Promise<Readable> {
  const sheets = form === 'xlsx' ? await reader.sheets(file.path) : []
  const sheet = given?.sheet ?? sheets[0] ?? null
  const said = given?.columns ?? []
  const shape = await reader.shape({ path: file.path, kind: form, sheet }, await remembered(db, who), {
    ...(given ? { layout: given.layout, headingLine: given.headingLine, dateOrder: given.dateOrder } : {}),
    ...(said.length > 0 ? { columns: said } : {}),
  })
  const sites = [...new Set(shape.columns.flatMap(({ means }) => (means && means in SITES ? [means as SiteId] : [])))]
  const sets = await setsFor(db, who, sites)
  const one = await clientOf(db, who, given?.clientId ?? null)
  const protocolId = given?.protocolId ?? sets[0]?.id ?? null
  const { layout, headingLine, headings, samples, columns, dateOrder, asksOrder, rows } = shape
  const plan: TablePlanInput = {
    sheet,
    layout,
    headingLine,
    columns,
    dateOrder,
    clientId: one ? (given?.clientId ?? null) : null,
    protocolId,
  }
  const [own] = await db.select({ zone: studio.timeZone }).from(studio).where(eq(studio.id, who.studioId))
  const zone = own?.zone ?? 'UTC'
  const reading: TablePlan = {
    columns,
    headingLine,
    dateOrder,
    client: one,
    protocolId: protocolId ?? '',
    timeZone: zone,
    today: clockIn(new Date(), zone).day,
  }
  const place = (means: Means) => columns.findIndex((column) => column.means === means)
  const places = Object.fromEntries(
    (['client', 'sex', 'birth-date'] as const)
      .map((means) => [means, place(means)])
      .filter(([, at]) => Number(at) >= 0),
  )
  const whole: TableFile = { path: file.path, kind: form, sheet, layout }
  return {
    terms: { studioId: who.studioId, byDay: place('time') < 0, rowIsWhole: true, places },
    rows: (tell) => reader.rows({ type: 'table', file: whole, plan: reading }, tell),
    table: { sheets, plan, headings, samples, asksOrder, order: dateOrder, rows, sets: sets.slice(0, 40) },
    questions: openQuestions(shape, one !== null),
  }
}

/** Opens a file of check-ins for reading. @throws TableRefused, HeaderProblem, FhirRefused with a sentence */
async function readable(
  db: Queryable,
  who: InStudio,
  file: BroughtFile,
  { type, form }: Kind,
  plan: TablePlanInput | null,
  reader: FileReader,
): Promise<Readable> {
  const terms: Terms = { studioId: who.studioId, byDay: false, rowIsWhole: false }
  const plain = { terms, table: null, questions: [] }
  if (type === 'readings' || type === 'fhir')
    return { ...plain, rows: (tell) => reader.rows({ type, path: file.path }, tell) }
  return readableTable(db, who, file, form === 'xlsx' ? 'xlsx' : 'csv', plan, reader)
}

/** Looks a file of check-ins through: nothing is stored. @param reader where it is read */
export async function lookAt(
  db: Queryable,
  who: InStudio,
  file: BroughtFile,
  kind: Kind,
  plan: TablePlanInput | null,
  progress: Progress,
  reader: FileReader = readHere,
): Promise<{ look: FileLook; found: BringIn | null; rows: Readable['rows'] }> {
  const { terms, rows, table, questions } = await readable(db, who, file, kind, plan, reader)
  const base = { type: kind.type, table, archive: null }
  // Until every question is answered, reading on would tell the same of every row.
  if (questions.length > 0) {
    const none = { clients: [], newClients: 0, matchedClients: 0, checkins: 0, readings: 0, weighIns: 0, here: 0 }
    return {
      look: { ...base, looked: { ...none, problems: questions, problemCount: questions.length } },
      found: null,
      rows,
    }
  }
  const found = await BringIn.look(db, terms, rows, progress)
  return { look: { ...base, looked: found.said() }, found, rows }
}
