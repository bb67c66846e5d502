import { sql } from 'drizzle-orm'
import { bigint, check, index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import { IMPORT_KINDS, ITEM_KINDS } from '../../../shared/schemas/data'
import { oneOf } from './checks'
import { instant } from './instant'
import { staff, studio } from './people'

/** Attempts to get in, where several processes count them together. Keys are hashes: no address, no name. */
export const attempt = pgTable(
  'attempt',
  {
    keyHash: text('key_hash').primaryKey(),
    made: integer('made').notNull(),
    nextAt: instant('next_at').notNull(),
  },
  (t) => [index('attempt_next').on(t.nextAt)],
)

/**
 * How many rows were ever deleted, by table: counted by the database itself (migration 0021). A backup with fewer rows
 * than the one before is damaged unless this explains it.
 */
export const deletedRows = pgTable('deleted_rows', {
  tableName: text('table_name').primaryKey(),
  rows: bigint('rows', { mode: 'number' }).notNull(),
})

/** A file that was brought in: what it made, and whether it was taken back. */
export const dataImport = pgTable(
  'data_import',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    kind: text('kind', { enum: IMPORT_KINDS }).notNull(),
    fileName: text('file_name').notNull(),
    broughtBy: uuid('brought_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    clients: integer('clients').notNull(),
    checkins: integer('checkins').notNull(),
    readings: integer('readings').notNull(),
    weighIns: integer('weigh_ins').notNull(),
    takenBackAt: instant('taken_back_at'),
    takenBackBy: uuid('taken_back_by').references(() => staff.id),
  },
  (t) => [
    index('data_import_studio').on(t.studioId, t.at),
    check('data_import_kind', oneOf(t.kind, IMPORT_KINDS)),
    check('data_import_file', sql`length(${t.fileName}) between 1 and 200`),
    check('data_import_taken_back', sql`(${t.takenBackAt} is null) = (${t.takenBackBy} is null)`),
  ],
)

/** A row an import made: every client, check-in and weigh-in, and other rows that hang on nothing it made. */
export const importedItem = pgTable(
  'imported_item',
  {
    importId: uuid('import_id')
      .notNull()
      .references(() => dataImport.id),
    kind: text('kind', { enum: ITEM_KINDS }).notNull(),
    itemId: uuid('item_id').notNull(),
    /** Readings it had when it was made: more now means that something was built on it. */
    facts: integer('facts').notNull().default(0),
  },
  (t) => [
    primaryKey({ columns: [t.importId, t.itemId] }),
    index('imported_item_item').on(t.itemId),
    check('imported_item_kind', oneOf(t.kind, ITEM_KINDS)),
  ],
)

/** What a column's heading means in this studio's files, as somebody said once. */
export const columnName = pgTable(
  'column_name',
  {
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    /** The heading in small letters, without its unit. */
    heading: text('heading').notNull(),
    means: text('means').notNull(),
    unit: text('unit'),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    primaryKey({ columns: [t.studioId, t.heading] }),
    check('column_name_length', sql`length(${t.heading}) between 1 and 120 and length(${t.means}) <= 60`),
  ],
)
