import { BOUNDS } from '../../../core/units/bounds'
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
import type { Choices } from '../../../core/composition/facts'
import type { ClientSchedule } from '../../../core/schedule/dates'
import type { PlanEnergy } from '../../../core/plan/dynamic-course'
import type { Alignment } from '../../../shared/schemas/photo'
import { withinLimits } from './checks'
import { instant } from './instant'
import { checkin } from './measuring'
import { client, staff } from './people'

/** Equation and conversion chosen for a client. Append-only: the newest counts, the older ones stay on record. */
export const clientChoice = pgTable(
  'client_choice',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    choices: jsonb('choices').$type<Choices>().notNull(),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    chosenBy: uuid('chosen_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [index('client_choice_latest').on(t.clientId, t.at)],
)

/** A client's cadence, pause and days that do not move. Append-only: the newest counts, the older ones stay on record. */
export const clientSchedule = pgTable(
  'client_schedule',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    schedule: jsonb('schedule').$type<ClientSchedule>().notNull(),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    setBy: uuid('set_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [index('client_schedule_latest').on(t.clientId, t.at)],
)

/**
 * The check-in a client is followed from; without one, the first that begins after this was set. Append-only: the newest
 * that was set before its check-in's first reading counts, the others stay on record.
 */
export const pinnedStart = pgTable(
  'pinned_start',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    checkinId: uuid('checkin_id').references(() => checkin.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    pinnedBy: uuid('pinned_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [index('pinned_start_latest').on(t.clientId, t.at)],
)

/** A weigh-in of the diary: one a day that counts. A wrong one is struck, never edited. */
export const weighIn = pgTable(
  'weigh_in',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    day: date('day', { mode: 'string' }).notNull(),
    /** As entered, in `unit`. */
    value: doublePrecision('value').notNull(),
    unit: text('unit', { enum: ['kg', 'lb'] }).notNull(),
    /** Morning, before food and drink, after the toilet, least clothing. */
    dry: boolean('dry').notNull().default(true),
    source: text('source', { enum: ['typed', 'pasted', 'scale', 'link'] }).notNull(),
    /** Null: the client, through their own link. */
    enteredBy: uuid('entered_by').references(() => staff.id),
    enteredAt: instant('entered_at')
      .notNull()
      .default(sql`now()`),
    struckAt: instant('struck_at'),
    /** A further one of its day, from afar: kept, never counted. */
    further: boolean('further').notNull().default(false),
  },
  (t) => [
    uniqueIndex('weigh_in_one_a_day')
      .on(t.clientId, t.day)
      .where(sql`${t.struckAt} is null`),
    check('weigh_in_unit', sql`${t.unit} in ('kg', 'lb')`),
    check('weigh_in_value', withinLimits(t.unit, t.value, ['kg', 'lb'])),
    check('weigh_in_day', sql`${t.day} >= ${sql.raw(`'${BOUNDS.firstFactDay}'`)}`),
  ],
)

/** What was eaten on a day, kcal: one a day that counts. A wrong one is struck, never edited. */
export const intake = pgTable(
  'intake',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    day: date('day', { mode: 'string' }).notNull(),
    kcal: integer('kcal').notNull(),
    source: text('source', { enum: ['typed', 'pasted', 'link'] }).notNull(),
    /** Null: the client, through their own link. */
    enteredBy: uuid('entered_by').references(() => staff.id),
    enteredAt: instant('entered_at')
      .notNull()
      .default(sql`now()`),
    struckAt: instant('struck_at'),
  },
  (t) => [
    uniqueIndex('intake_one_a_day')
      .on(t.clientId, t.day)
      .where(sql`${t.struckAt} is null`),
    check('intake_kcal', sql`${t.kcal} between 500 and 10000`),
    check('intake_day', sql`${t.day} >= ${sql.raw(`'${BOUNDS.firstFactDay}'`)}`),
  ],
)

/** A photograph at a check-in; its bytes lie in the photo storage under its id. */
export const photo = pgTable(
  'photo',
  {
    id: uuid('id').primaryKey(),
    checkinId: uuid('checkin_id')
      .notNull()
      .references(() => checkin.id),
    pose: text('pose', { enum: ['front', 'side', 'back'] }).notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    byteLength: integer('byte_length').notNull(),
    /** SHA-256 of the bytes as kept. Null: kept by an earlier version. */
    digest: text('digest'),
    /** Clothes, place, light and distance as said when it was taken. */
    conditions: jsonb('conditions').$type<Record<string, string>>().notNull().default({}),
    /** How it lies over the others, by hand. */
    alignment: jsonb('alignment').$type<Alignment>().notNull().default({ x: 0, y: 0, scale: 1 }),
    takenAt: instant('taken_at').notNull(),
    takenBy: uuid('taken_by')
      .notNull()
      .references(() => staff.id),
    /** Taken away: the bytes are gone, the fact stays. */
    removedAt: instant('removed_at'),
  },
  (t) => [
    index('photo_checkin').on(t.checkinId, t.pose),
    check('photo_pose', sql`${t.pose} in ('front', 'side', 'back')`),
    check('photo_size', sql`${t.width} between 1 and 4000 and ${t.height} between 1 and 4000`),
  ],
)

/** Somebody looked past a client's neutral mode, and why. Append-only. */
export const neutralLeave = pgTable(
  'neutral_leave',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    reason: text('reason').notNull(),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    leftBy: uuid('left_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [
    index('neutral_leave_client').on(t.clientId, t.at),
    check('neutral_leave_reason', sql`length(${t.reason}) between 1 and 300`),
  ],
)

/**
 * A target for a client and its pace, as entered. The newest that has not ended counts; none is edited: another takes
 * its place.
 */
export const plan = pgTable(
  'plan',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    /** The check-in it starts from. */
    checkinId: uuid('checkin_id')
      .notNull()
      .references(() => checkin.id),
    kind: text('kind', { enum: ['percent', 'fat', 'weight', 'sum'] }).notNull(),
    /** In `unit`. */
    value: doublePrecision('value').notNull(),
    /** In `unit` a week. */
    perWeek: doublePrecision('per_week').notNull(),
    unit: text('unit', { enum: ['%', 'kg', 'lb', 'mm'] }).notNull(),
    /** A day it is wanted by: a race, a show. */
    byDay: date('by_day', { mode: 'string' }),
    /** What it was set with, where its course is the dynamic one; null: a straight pace. */
    energy: jsonb('energy').$type<PlanEnergy>(),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    setBy: uuid('set_by')
      .notNull()
      .references(() => staff.id),
    endedAt: instant('ended_at'),
  },
  (t) => [
    index('plan_latest').on(t.clientId, t.at),
    check('plan_kind', sql`${t.kind} in ('percent', 'fat', 'weight', 'sum')`),
    check(
      'plan_unit',
      sql`case ${t.kind} when 'percent' then ${t.unit} = '%' when 'sum' then ${t.unit} = 'mm' else ${t.unit} in ('kg', 'lb') end`,
    ),
    check('plan_pace', sql`${t.perWeek} > 0 and ${t.value} > 0`),
  ],
)

/** A coach lets a plan go on in spite of what has come up since, and why. Append-only. */
export const planDecision = pgTable(
  'plan_decision',
  {
    id: uuid('id').primaryKey(),
    planId: uuid('plan_id')
      .notNull()
      .references(() => plan.id),
    /** The gate's codes it answers. */
    codes: jsonb('codes').$type<string[]>().notNull(),
    reason: text('reason').notNull(),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    decidedBy: uuid('decided_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [
    index('plan_decision_plan').on(t.planId, t.at),
    check('plan_decision_reason', sql`length(${t.reason}) between 1 and 300`),
  ],
)
