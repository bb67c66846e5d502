import { sql } from 'drizzle-orm'
import { check, date, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import type { PolicyId } from '../../../core/readings/policies'
import type { SiteId } from '../../../core/sites'
import { BOOKING_MINUTES, BOOKING_STATES } from '../../../core/schedule/bookings'
import { instant } from './instant'
import { client, staff, studio } from './people'

/** A visit agreed on. Moved and marked in place: `sequence` counts the changes, the record says who made them. */
export const booking = pgTable(
  'booking',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    /** Who measures; null: whoever is there. */
    assessorId: uuid('assessor_id').references(() => staff.id),
    /** A room or a corner; empty: not said. */
    place: text('place').notNull().default(''),
    /** The set of sites; null: the one of last time. */
    protocolId: text('protocol_id'),
    startsAt: instant('starts_at').notNull(),
    minutes: integer('minutes').notNull(),
    state: text('state', { enum: [...BOOKING_STATES] })
      .notNull()
      .default('booked'),
    /** When it was first to be, once it has been moved. */
    movedFrom: instant('moved_from'),
    sequence: integer('sequence').notNull().default(0),
    bookedBy: uuid('booked_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    changedAt: instant('changed_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    index('booking_when').on(t.studioId, t.startsAt),
    index('booking_client').on(t.clientId, t.startsAt),
    check('booking_state', sql`${t.state} in ('booked', 'no-show', 'cancelled')`),
    check(
      'booking_minutes',
      sql`${t.minutes} between ${sql.raw(String(BOOKING_MINUTES.low))} and ${sql.raw(String(BOOKING_MINUTES.high))}`,
    ),
    check('booking_place_length', sql`length(${t.place}) <= 60`),
  ],
)

/** A secret address calendars read bookings from: one person's, or the whole studio's. */
export const calendarLink = pgTable(
  'calendar_link',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    /** Null: everybody's bookings. */
    staffId: uuid('staff_id').references(() => staff.id),
    /** SHA-256 of the random token in the address. */
    tokenHash: text('token_hash').notNull(),
    madeBy: uuid('made_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    revokedAt: instant('revoked_at'),
  },
  (t) => [uniqueIndex('calendar_link_token').on(t.tokenHash), index('calendar_link_studio').on(t.studioId)],
)

/** Days a coach is away, and who sees their clients meanwhile. */
export const away = pgTable(
  'away',
  {
    id: uuid('id').primaryKey(),
    staffId: uuid('staff_id')
      .notNull()
      .references(() => staff.id),
    standInId: uuid('stand_in_id').references(() => staff.id),
    fromDay: date('from_day', { mode: 'string' }).notNull(),
    toDay: date('to_day', { mode: 'string' }).notNull(),
    setBy: uuid('set_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    endedAt: instant('ended_at'),
  },
  (t) => [
    index('away_staff').on(t.staffId, t.toDay),
    check('away_order', sql`${t.toDay} >= ${t.fromDay}`),
    check('away_other', sql`${t.standInId} <> ${t.staffId}`),
  ],
)

/** A version of a set of sites a studio has made. A check-in names the version it was measured by. */
export const studioSet = pgTable(
  'studio_set',
  {
    id: uuid('id').primaryKey(),
    /** The same for every version of a set. */
    setId: uuid('set_id').notNull(),
    version: integer('version').notNull(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    name: text('name').notNull(),
    sites: jsonb('sites').$type<SiteId[]>().notNull(),
    policy: text('policy').$type<PolicyId>().notNull(),
    girthPolicy: text('girth_policy').$type<PolicyId>().notNull(),
    madeBy: uuid('made_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    /** Not offered any more. */
    retiredAt: instant('retired_at'),
  },
  (t) => [
    uniqueIndex('studio_set_version').on(t.setId, t.version),
    index('studio_set_studio').on(t.studioId),
    check('studio_set_name', sql`length(${t.name}) between 1 and 60`),
  ],
)
