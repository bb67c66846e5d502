import { getTableConfig } from 'drizzle-orm/pg-core'
import { linesIn } from '../../exchange/archive/lines'
import { ArchiveRefused, tablePath } from '../../exchange/archive/manifest'
import type { OpenArchive } from './archive-read'
import { archivedTables, type ArchivedTable } from './tables'
import type { Progress } from './progress'

/** The database holds less than it should, or a part of it cannot be read. The message names tables and counts only. */
export class DamageFound extends Error {}

/** PostgreSQL's codes for a page or an index that cannot be read: class XX, and what reading a broken file gives. */
const UNREADABLE = /^(XX00[012]|58030)$/

/** A failed reading of the database as damage; null for any other failure. */
export function asDamage(error: unknown): DamageFound | null {
  for (let one = error; one instanceof Error; one = one.cause) {
    if (one instanceof DamageFound) return one
    const { code } = one as { code?: unknown }
    if (typeof code === 'string' && UNREADABLE.test(code))
      return new DamageFound('A part of the database cannot be read: its file on the disk is damaged.')
  }
  return null
}

type Row = Record<string, unknown>

async function* rowsOf(archive: OpenArchive, { name }: ArchivedTable, { stopped }: Progress): AsyncGenerator<Row> {
  if (!archive.manifest.tables.some(({ table }) => table === name)) return
  let count = 0
  for await (const line of linesIn(await archive.zip.read(tablePath(name)))) {
    if ((count += 1) % 1_000 === 0) stopped()
    yield JSON.parse(line) as Row
  }
}

/** Columns of a table that name rows of others by their id, with the tables they name. */
function references({ table }: ArchivedTable): [column: string, to: string][] {
  return getTableConfig(table).foreignKeys.flatMap((key): [string, string][] => {
    const { columns, foreignTable } = key.reference()
    const [column] = columns
    return column && columns.length === 1 ? [[column.name, getTableConfig(foreignTable).name]] : []
  })
}

/** Has a row for each row of the audit log: a restore checks it. */
const CHECKED_ELSEWHERE = 'audit_chain'

/**
 * Checks that every row an archive's rows name is in it. Tables are read from those that name others to those that are
 * named, so that only the ids that are named are held.
 * @throws ArchiveRefused
 */
export async function checkReferences(archive: OpenArchive, progress: Progress): Promise<void> {
  const wanted = new Map<string, Set<unknown>>()
  for (const table of [...archivedTables()].reverse()) {
    const waiting = wanted.get(table.name) ?? new Set()
    const named = table.name === CHECKED_ELSEWHERE ? [] : references(table)
    for await (const row of rowsOf(archive, table, progress)) {
      waiting.delete(row.id)
      for (const [column, to] of named) {
        const value = row[column]
        if (value === null || value === undefined) continue
        const ids = wanted.get(to) ?? new Set()
        wanted.set(to, ids.add(value))
      }
    }
    // A row that names one of its own table may stand before it.
    if (waiting.size > 0 && !named.some(([, to]) => to === table.name))
      throw new ArchiveRefused(
        `This archive is not whole: ${waiting.size} rows of ${table.name} are named and missing.`,
      )
  }
}

const keyOf = ({ key }: ArchivedTable, row: Row) => key.map(({ name }) => String(row[name])).join(' ')

/**
 * Compares a new backup with the one before: every row that was there is there, or was deleted.
 * @param deleted rows deleted between the two, by table, as the database counted them
 * @throws DamageFound
 */
export async function checkNothingLost(
  before: OpenArchive,
  now: OpenArchive,
  deleted: (table: string) => number,
  progress: Progress,
): Promise<void> {
  for (const table of archivedTables()) {
    const keys = new Set<string>()
    for await (const row of rowsOf(now, table, progress)) keys.add(keyOf(table, row))
    let missing = 0
    for await (const row of rowsOf(before, table, progress)) if (!keys.has(keyOf(table, row))) missing += 1
    const lost = missing - deleted(table.name)
    if (lost > 0)
      throw new DamageFound(
        `Rows of the table “${table.name.replaceAll('_', ' ')}” are gone that nobody deleted: ${lost} of those in the last backup.`,
      )
  }
}
