import { sql } from 'drizzle-orm'
import { check, date, doublePrecision, index, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { DRILL_IDS } from '../../../core/drills/drills'
import { OTHER_METHODS } from '../../../core/study/methods'
import { oneOf } from './checks'
import { instant } from './instant'
import { checkin } from './measuring'
import { client, staff, studio } from './people'
import { study, studyPen, studyPerson } from './studies'

/** A check-in that is a turn of a study, not a visit of the client's. */
export const studyTurn = pgTable(
  'study_turn',
  {
    checkinId: uuid('checkin_id')
      .primaryKey()
      .references(() => checkin.id),
    studyId: uuid('study_id')
      .notNull()
      .references(() => study.id),
    personId: uuid('person_id')
      .notNull()
      .references(() => studyPerson.id),
    penId: uuid('pen_id')
      .notNull()
      .references(() => studyPen.id),
    trial: integer('trial').$type<1 | 2>().notNull(),
  },
  (t) => [index('study_turn_study').on(t.studyId, t.personId), check('study_turn_trial', sql`${t.trial} in (1, 2)`)],
)

/** What another method said of a client: a line of its own, never one with the folds. */
export const otherMeasurement = pgTable(
  'other_measurement',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    method: text('method', { enum: OTHER_METHODS }).notNull(),
    device: text('device').notNull(),
    day: date('day', { mode: 'string' }).notNull(),
    percent: doublePrecision('percent').notNull(),
    /** The maker's own numbers, kept as told: segments, visceral figure, water. */
    told: jsonb('told').$type<Record<string, number>>().notNull().default({}),
    conditions: jsonb('conditions').$type<Record<string, string>>().notNull().default({}),
    note: text('note').notNull().default(''),
    enteredBy: uuid('entered_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    struckAt: instant('struck_at'),
  },
  (t) => [
    index('other_measurement_client').on(t.clientId, t.day),
    check('other_measurement_method', oneOf(t.method, OTHER_METHODS)),
    check('other_measurement_percent', sql`${t.percent} between 1 and 75`),
    check('other_measurement_words', sql`length(${t.device}) between 1 and 80 and length(${t.note}) <= 500`),
  ],
)

/** One round of a drill. Append-only. */
export const drillRound = pgTable(
  'drill_round',
  {
    id: uuid('id').primaryKey(),
    staffId: uuid('staff_id')
      .notNull()
      .references(() => staff.id),
    drill: text('drill', { enum: DRILL_IDS }).notNull(),
    level: integer('level').notNull(),
    /** In the drill's own unit: cm, mm, s or a share. */
    score: doublePrecision('score').notNull(),
    detail: jsonb('detail').$type<Record<string, number | string>>().notNull().default({}),
    at: instant('at').notNull(),
  },
  (t) => [
    index('drill_round_staff').on(t.staffId, t.drill, t.at),
    check('drill_round_drill', oneOf(t.drill, DRILL_IDS)),
    check('drill_round_level', sql`${t.level} between 1 and 5`),
    check('drill_round_score', sql`${t.score} between 0 and 1000`),
  ],
)

/** What a lead wants an assessor to have measured by a day. The newest counts. */
export const trainingPlan = pgTable(
  'training_plan',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    staffId: uuid('staff_id')
      .notNull()
      .references(() => staff.id),
    people: integer('people').notNull(),
    byDay: date('by_day', { mode: 'string' }).notNull(),
    fromDay: date('from_day', { mode: 'string' }).notNull(),
    note: text('note').notNull().default(''),
    setBy: uuid('set_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    index('training_plan_staff').on(t.staffId, t.at),
    check('training_plan_people', sql`${t.people} between 1 and 500`),
    check('training_plan_days', sql`${t.byDay} > ${t.fromDay}`),
    check('training_plan_note', sql`length(${t.note}) <= 500`),
  ],
)
