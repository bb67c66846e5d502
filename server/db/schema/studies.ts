import { sql } from 'drizzle-orm'
import { boolean, check, date, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { STUDY_KINDS } from '../../../core/study/study'
import type { SiteId } from '../../../core/sites'
import { caliper } from './calipers'
import { oneOf } from './checks'
import { instant } from './instant'
import { client, staff, studio } from './people'

/** A study of assessors or calipers: people measured again and again. */
export const study = pgTable(
  'study',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    name: text('name').notNull(),
    kind: text('kind', { enum: STUDY_KINDS }).notNull(),
    protocolId: text('protocol_id').notNull(),
    /** Which sites of the set, in its order. */
    sites: jsonb('sites').$type<SiteId[]>().notNull(),
    /** The pen the others are held against. */
    referencePenId: uuid('reference_pen_id').notNull(),
    /** Several assessors at once, from their own tablets: what was measured is shown once all are done. */
    group: boolean('group').notNull().default(false),
    madeBy: uuid('made_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    /** Closed: what it says stands, and feeds the error model. */
    closedAt: instant('closed_at'),
    closedOn: date('closed_on', { mode: 'string' }),
    /** Left out of the error model, and why. */
    leftOutAt: instant('left_out_at'),
    leftOutReason: text('left_out_reason'),
  },
  (t) => [
    index('study_studio').on(t.studioId, t.at),
    check('study_name', sql`length(${t.name}) between 1 and 80`),
    check('study_kind', oneOf(t.kind, STUDY_KINDS)),
    check('study_closed', sql`(${t.closedAt} is null) = (${t.closedOn} is null)`),
    check('study_left_out', sql`(${t.leftOutAt} is null) = (${t.leftOutReason} is null)`),
    check('study_reason', sql`length(${t.leftOutReason}) between 1 and 300`),
  ],
)

/** Who or what measures in a study: an assessor who agreed to be compared, or a caliper. */
export const studyPen = pgTable(
  'study_pen',
  {
    id: uuid('id').primaryKey(),
    studyId: uuid('study_id')
      .notNull()
      .references(() => study.id),
    place: integer('place').notNull(),
    staffId: uuid('staff_id').references(() => staff.id),
    caliperId: uuid('caliper_id').references(() => caliper.id),
    /** The day the assessor agreed to be measured against others; null: not on record. */
    agreedOn: date('agreed_on', { mode: 'string' }),
  },
  (t) => [
    uniqueIndex('study_pen_place').on(t.studyId, t.place),
    check('study_pen_one', sql`(${t.staffId} is null) <> (${t.caliperId} is null)`),
  ],
)

/** Who is measured in a study, in the order they come. */
export const studyPerson = pgTable(
  'study_person',
  {
    id: uuid('id').primaryKey(),
    studyId: uuid('study_id')
      .notNull()
      .references(() => study.id),
    place: integer('place').notNull(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
  },
  (t) => [
    uniqueIndex('study_person_once').on(t.studyId, t.clientId),
    uniqueIndex('study_person_place').on(t.studyId, t.place),
  ],
)
