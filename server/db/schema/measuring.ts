import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { SOURCES } from '../../../core/readings/reading'
import { OWN_POLICIES, type ChosenPolicies } from '../../../core/readings/variants'
import { SKIP_REASON_IDS, type SkipReason } from '../../../core/readings/skip-reasons'
import { WAY_IDS } from '../../../core/sites/ways'
import { caliper } from './calipers'
import { oneOf, withinLimits } from './checks'
import { instant } from './instant'
import { client, staff } from './people'
import { study } from './studies'

/** One visit of one client: the frame its readings hang in. */
export const checkin = pgTable(
  'checkin',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    protocolId: text('protocol_id').notNull(),
    side: text('side', { enum: ['right', 'left'] }).notNull(),
    startedBy: uuid('started_by')
      .notNull()
      .references(() => staff.id),
    /** Who pinches. */
    assessorId: uuid('assessor_id').references(() => staff.id),
    /** Who writes, when somebody else does. */
    recorderId: uuid('recorder_id').references(() => staff.id),
    caliperId: uuid('caliper_id').references(() => caliper.id),
    /** A turn of a study: none of the client's visits. */
    studyId: uuid('study_id').references(() => study.id),
    /** Conditions of the visit by name. */
    conditions: jsonb('conditions').$type<Record<string, string>>().notNull().default({}),
    /** Reading policies where they are not the protocol's own. */
    policies: jsonb('policies').$type<ChosenPolicies>().notNull().default(OWN_POLICIES),
    /** Height is measured at this visit, in three trials. */
    withHeight: boolean('with_height').notNull().default(false),
    startedAt: instant('started_at').notNull(),
    /** The calendar day it was where the studio is. */
    day: date('day', { mode: 'string' }).notNull(),
    finishedAt: instant('finished_at'),
    note: text('note').notNull().default(''),
    /** The reading of this check-in in words, as the coach kept it. Null: not kept. */
    keptWords: text('kept_words'),
    /** Counts for nothing any more, and why: its facts stay on record. */
    voidedAt: instant('voided_at'),
    voidReason: text('void_reason'),
    voidedBy: uuid('voided_by').references(() => staff.id),
  },
  (t) => [
    index('checkin_open')
      .on(t.clientId)
      .where(sql`${t.finishedAt} is null`),
    index('checkin_day').on(t.day),
    index('checkin_client').on(t.clientId, t.startedAt),
    index('checkin_recent').on(t.startedAt),
    // Two coaches pressing Measure at once end up in the same session.
    uniqueIndex('checkin_one_open')
      .on(t.clientId)
      .where(sql`${t.finishedAt} is null and ${t.studyId} is null`),
    index('checkin_study').on(t.studyId),
    check('checkin_side', sql`${t.side} in ('right', 'left')`),
    check('checkin_order', sql`${t.finishedAt} >= ${t.startedAt}`),
    check('checkin_note_length', sql`length(${t.note}) <= 4000`),
    check('checkin_void', sql`(${t.voidedAt} is null) = (${t.voidReason} is null) and length(${t.voidReason}) <= 300`),
    check('checkin_kept_words_length', sql`length(${t.keptWords}) <= 4000`),
  ],
)

/** One value read once. Append-only; its id is made by the device that took it. */
export const reading = pgTable(
  'reading',
  {
    id: uuid('id').primaryKey(),
    checkinId: uuid('checkin_id')
      .notNull()
      .references(() => checkin.id),
    site: text('site').notNull(),
    round: integer('round').notNull(),
    /** As entered, in `unit`. */
    value: doublePrecision('value').notNull(),
    unit: text('unit', { enum: ['mm', 'kg', 'lb', 'cm', 'in'] }).notNull(),
    takenAt: instant('taken_at').notNull(),
    takenBy: uuid('taken_by')
      .notNull()
      .references(() => staff.id),
    source: text('source', { enum: [...SOURCES] }).notNull(),
    /** How the fold was lifted, where a site has several ways. */
    method: text('method', { enum: WAY_IDS }),
    receivedAt: instant('received_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    index('reading_checkin').on(t.checkinId, t.takenAt),
    check('reading_round', sql`${t.round} between 1 and 20`),
    check('reading_unit', sql`${t.unit} in ('mm', 'kg', 'lb', 'cm', 'in')`),
    check('reading_value', withinLimits(t.unit, t.value, ['mm', 'cm', 'in', 'kg', 'lb'])),
    // Readings leave the database as lines of columns (server/repositories/reading-lines.ts): no column holds free text.
    check('reading_site', sql`${t.site} ~ '^[a-z0-9-]{1,40}$'`),
    check('reading_method', oneOf(t.method, WAY_IDS)),
    check('reading_source', oneOf(t.source, SOURCES)),
  ],
)

/** A reading crossed out. A fact of its own: the reading stays. */
export const strike = pgTable('strike', {
  readingId: uuid('reading_id')
    .primaryKey()
    .references(() => reading.id),
  struckAt: instant('struck_at').notNull(),
  struckBy: uuid('struck_by')
    .notNull()
    .references(() => staff.id),
})

/** A site left out of a check-in, with why. A reading of it later overrules it. */
export const skip = pgTable(
  'skip',
  {
    id: uuid('id').primaryKey(),
    checkinId: uuid('checkin_id')
      .notNull()
      .references(() => checkin.id),
    site: text('site').notNull(),
    reason: text('reason').$type<SkipReason>().notNull(),
    words: text('words').notNull().default(''),
    at: instant('at').notNull(),
    skippedBy: uuid('skipped_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [
    index('skip_checkin').on(t.checkinId),
    check('skip_reason', oneOf(t.reason, SKIP_REASON_IDS)),
    check('skip_words', sql`(${t.reason} = 'other') = (${t.words} <> '') and length(${t.words}) <= 300`),
  ],
)

/** A note at one reading. */
export const remark = pgTable(
  'remark',
  {
    id: uuid('id').primaryKey(),
    readingId: uuid('reading_id')
      .notNull()
      .references(() => reading.id),
    words: text('words').notNull(),
    at: instant('at').notNull(),
    madeBy: uuid('made_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [index('remark_reading').on(t.readingId), check('remark_length', sql`length(${t.words}) between 1 and 500`)],
)
