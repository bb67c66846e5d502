import { sql } from 'drizzle-orm'
import { boolean, check, date, doublePrecision, index, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { CALIPER_KINDS, type BlockStep } from '../../../core/devices/block'
import { oneOf } from './checks'
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
    kind: text('kind', { enum: CALIPER_KINDS }).notNull().default('spring'),
    /** What its jaws press with as made, g/mm^2; null: not known. */
    jawPressure: doublePrecision('jaw_pressure'),
    /** How far it opens, mm; null: not known. */
    openingMm: doublePrecision('opening_mm'),
    retired: boolean('retired').notNull().default(false),
    createdAt: instant('created_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    index('caliper_studio').on(t.studioId, t.name),
    check('caliper_resolution', sql`${t.resolutionMm} in (0.1, 0.2, 0.5, 1)`),
    check('caliper_kind', oneOf(t.kind, CALIPER_KINDS)),
    check('caliper_pressure', sql`${t.jawPressure} between 1 and 40`),
    check('caliper_opening', sql`${t.openingMm} between 20 and 200`),
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
    /** What it read at each step of the block, mm; empty where only the deviation was noted. */
    steps: jsonb('steps').$type<BlockStep[]>().notNull().default([]),
    /** Pressure of its jaws, g/mm^2, where it was measured. */
    pressure: doublePrecision('pressure'),
    checkedBy: uuid('checked_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [
    index('caliper_check_latest').on(t.caliperId, t.checkedOn),
    check('caliper_check_pressure', sql`${t.pressure} between 1 and 40`),
    check('caliper_check_deviation', sql`${t.deviationMm} between -20 and 20`),
  ],
)

/** A correction for what a caliper reads too much, taken on or given up. Append-only: the newest of a caliper counts. */
export const caliperCorrection = pgTable(
  'caliper_correction',
  {
    id: uuid('id').primaryKey(),
    caliperId: uuid('caliper_id')
      .notNull()
      .references(() => caliper.id),
    /** From this day on. */
    fromDay: date('from_day', { mode: 'string' }).notNull(),
    /** What it reads is offset + gain x what is there; null both: not corrected from that day on. */
    offsetMm: doublePrecision('offset_mm'),
    gain: doublePrecision('gain'),
    setBy: uuid('set_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    index('caliper_correction_caliper').on(t.caliperId, t.fromDay),
    check('caliper_correction_both', sql`(${t.offsetMm} is null) = (${t.gain} is null)`),
    check('caliper_correction_size', sql`${t.offsetMm} between -10 and 10 and ${t.gain} between 0.7 and 1.3`),
  ],
)
