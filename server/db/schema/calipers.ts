import { sql } from 'drizzle-orm'
import { boolean, check, date, doublePrecision, index, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { instant } from './instant'
import { staff, studio } from './people'

/** A caliper of the studio. */
export const caliper = pgTable(
  'caliper',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    name: text('name').notNull(),
    /** Distance of its marks, mm: 0.1, 0.2, 0.5 or 1. */
    resolutionMm: doublePrecision('resolution_mm').notNull().default(0.5),
    retired: boolean('retired').notNull().default(false),
    createdAt: instant('created_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    index('caliper_studio').on(t.studioId, t.name),
    check('caliper_resolution', sql`${t.resolutionMm} in (0.1, 0.2, 0.5, 1)`),
    check('caliper_name_length', sql`length(${t.name}) between 1 and 80`),
  ],
)

/** A check of a caliper against its block: what it read more or less, mm. */
export const caliperCheck = pgTable(
  'caliper_check',
  {
    id: uuid('id').primaryKey(),
    caliperId: uuid('caliper_id')
      .notNull()
      .references(() => caliper.id),
    checkedOn: date('checked_on', { mode: 'string' }).notNull(),
    deviationMm: doublePrecision('deviation_mm').notNull(),
    checkedBy: uuid('checked_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [
    index('caliper_check_latest').on(t.caliperId, t.checkedOn),
    check('caliper_check_deviation', sql`${t.deviationMm} between -20 and 20`),
  ],
)
