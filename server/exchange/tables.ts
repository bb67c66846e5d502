import { getTableColumns, is } from 'drizzle-orm'
import { getTableConfig, PgTable, type PgColumn } from 'drizzle-orm/pg-core'
import { z } from 'zod'
import * as schema from '../db/schema'

/** A table as the archive carries it. */
export interface ArchivedTable {
  name: string
  table: PgTable
  /** Columns of its primary key: rows stand in their order. */
  key: PgColumn[]
  columns: PgColumn[]
  /** A row as a line holds it, by column names. */
  row: z.ZodType<Record<string, unknown>>
}

/**
 * What stays behind: who is signed in where, and what is waiting to be used once. After a move everybody signs in again.
 */
const LEFT_BEHIND: ReadonlySet<string> = new Set([
  'session',
  'known_device',
  'password_link',
  'passkey_challenge',
  'link_session',
  'attempt',
  'deleted_rows',
])

/** Columns that say nothing of their own: a mark of the last change, under which answers are kept. */
const LEFT_OUT: ReadonlySet<string> = new Set(['client.touched_at'])

const day = z.iso.date()
const moment = z.iso.datetime({ offset: true })

/** JSON as the database may hold it: not so deep that reading it ends the process. */
function jsonWithin(depth: number): z.ZodType {
  const leaf = z.union([z.string().max(20_000), z.number(), z.boolean(), z.null()])
  if (depth === 0) return leaf
  const inner = jsonWithin(depth - 1)
  return z.union([leaf, z.array(inner).max(5_000), z.record(z.string().max(200), inner)])
}
const json = jsonWithin(6)

function valueOf(column: PgColumn): z.ZodType {
  const kind = column.getSQLType()
  const type =
    kind === 'uuid'
      ? z.guid()
      : kind === 'text'
        ? z.string().max(20_000)
        : kind === 'integer'
          ? z.int32()
          : kind === 'double precision'
            ? z.number()
            : kind === 'boolean'
              ? z.boolean()
              : kind === 'date'
                ? day
                : kind === 'timestamp with time zone'
                  ? moment
                  : kind === 'jsonb'
                    ? json
                    : null
  if (!type) throw new Error(`No way to read a column of ${kind} from an archive.`)
  const one = column.enumValues?.length ? z.enum(column.enumValues as [string, ...string[]]) : type
  const value = column.notNull ? one : one.nullable()
  // What an older archive does not have yet takes its default.
  return column.hasDefault || !column.notNull ? value.optional() : value
}

function describe(table: PgTable): ArchivedTable {
  const { name, primaryKeys } = getTableConfig(table)
  const all = Object.values(getTableColumns(table)) as PgColumn[]
  const columns = all.filter((column) => !LEFT_OUT.has(`${name}.${column.name}`))
  const key = primaryKeys[0]?.columns ?? all.filter((column) => column.primary)
  return {
    name,
    table,
    key,
    columns,
    row: z.strictObject(Object.fromEntries(columns.map((one) => [one.name, valueOf(one)]))),
  }
}

/** Names of the tables a table's rows name. */
function namedBy(table: PgTable): string[] {
  const { name, foreignKeys } = getTableConfig(table)
  return foreignKeys.map((one) => getTableConfig(one.reference().foreignTable).name).filter((other) => other !== name)
}

function inOrder(): ArchivedTable[] {
  const left = (Object.values(schema) as unknown[]).filter((one): one is PgTable => is(one, PgTable))
  const kept = left.filter((table) => !LEFT_BEHIND.has(getTableConfig(table).name))
  kept.sort((a, b) => (getTableConfig(a).name < getTableConfig(b).name ? -1 : 1))
  const done = new Set<string>()
  const order: ArchivedTable[] = []
  while (order.length < kept.length) {
    const next = kept.find(
      (table) => !done.has(getTableConfig(table).name) && namedBy(table).every((name) => done.has(name)),
    )
    if (!next) throw new Error('Tables name each other in a circle: an archive cannot put them in order.')
    done.add(getTableConfig(next).name)
    order.push(describe(next))
  }
  return order
}

let order: readonly ArchivedTable[] | null = null

/** Every table an archive carries, those that others name before them; put in order when first asked for. */
export const archivedTables = (): readonly ArchivedTable[] => (order ??= inOrder())
