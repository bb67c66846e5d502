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
import type { GirthSiteId } from '../../../core/sites'
import type { LinkScope } from '../../../shared/schemas/link'
import { withinLimits } from './checks'
import { instant } from './instant'
import { client, staff, studio } from './people'

/** A client's own way in: a secret address with what it opens. A phone that has given its PIN holds a session of it. */
export const clientLink = pgTable(
  'client_link',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    /** SHA-256 of the random token in the address. */
    tokenHash: text('token_hash').notNull(),
    scope: jsonb('scope').$type<LinkScope[]>().notNull(),
    /** Places of the tape asked for; empty: the usual three. */
    sites: jsonb('sites').$type<GirthSiteId[]>().notNull().default([]),
    /** Why it asks for more than the page to take home of somebody who sees no numbers, and the gate's codes it answers. */
    reason: text('reason').notNull().default(''),
    reasonFor: jsonb('reason_for').$type<string[]>().notNull().default([]),
    expiresAt: instant('expires_at').notNull(),
    madeBy: uuid('made_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    firstOpenedAt: instant('first_opened_at'),
    lastOpenedAt: instant('last_opened_at'),
    /** scrypt; null: not chosen yet. */
    pinHash: text('pin_hash'),
    wrongPins: integer('wrong_pins').notNull().default(0),
    revokedAt: instant('revoked_at'),
  },
  (t) => [
    uniqueIndex('client_link_token').on(t.tokenHash),
    index('client_link_client').on(t.clientId, t.at),
    check('client_link_reason', sql`length(${t.reason}) <= 300`),
  ],
)

/** A phone that has given a link's PIN. Its id lies sealed in a cookie of its own. */
export const linkSession = pgTable(
  'link_session',
  {
    id: uuid('id').primaryKey(),
    linkId: uuid('link_id')
      .notNull()
      .references(() => clientLink.id),
    device: text('device').notNull(),
    startedAt: instant('started_at').notNull(),
    endedAt: instant('ended_at'),
  },
  (t) => [index('link_session_link').on(t.linkId), check('link_session_device', sql`length(${t.device}) <= 80`)],
)

/** A week handed in from afar. */
export const handIn = pgTable(
  'hand_in',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    /** Null: it came with an archive, whose links stay out. */
    linkId: uuid('link_id').references(() => clientLink.id),
    day: date('day', { mode: 'string' }).notNull(),
    receivedAt: instant('received_at')
      .notNull()
      .default(sql`now()`),
    /** What differed, by name. */
    conditions: jsonb('conditions').$type<Record<string, string>>().notNull().default({}),
    /** How clothes fit; null: not said. */
    fit: text('fit', { enum: ['looser', 'same', 'tighter'] }),
    words: text('words').notNull().default(''),
    /** When a coach first looked. */
    seenAt: instant('seen_at'),
    seenBy: uuid('seen_by').references(() => staff.id),
  },
  (t) => [
    index('hand_in_client').on(t.clientId, t.day),
    index('hand_in_unseen')
      .on(t.clientId)
      .where(sql`${t.seenAt} is null`),
    check('hand_in_words', sql`length(${t.words}) <= 500`),
    check('hand_in_day', sql`${t.day} >= ${sql.raw(`'${BOUNDS.firstFactDay}'`)}`),
  ],
)

/** A girth taken at home. */
export const homeGirth = pgTable(
  'home_girth',
  {
    id: uuid('id').primaryKey(),
    handInId: uuid('hand_in_id')
      .notNull()
      .references(() => handIn.id),
    site: text('site').notNull(),
    /** 1, 2 or 3. */
    trial: integer('trial').notNull(),
    value: doublePrecision('value').notNull(),
    unit: text('unit', { enum: ['cm', 'in'] }).notNull(),
  },
  (t) => [
    uniqueIndex('home_girth_trial').on(t.handInId, t.site, t.trial),
    check('home_girth_unit', sql`${t.unit} in ('cm', 'in')`),
    check('home_girth_trials', sql`${t.trial} between 1 and 3`),
    check('home_girth_site', sql`${t.site} ~ '^[a-z0-9-]{1,40}$'`),
    check('home_girth_value', withinLimits(t.unit, t.value, ['cm', 'in'])),
  ],
)

/** A photograph taken at home; its bytes lie in the photo storage under its id. */
export const homePhoto = pgTable(
  'home_photo',
  {
    id: uuid('id').primaryKey(),
    handInId: uuid('hand_in_id')
      .notNull()
      .references(() => handIn.id),
    pose: text('pose', { enum: ['front', 'side', 'back'] }).notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    byteLength: integer('byte_length').notNull(),
    digest: text('digest').notNull(),
    takenAt: instant('taken_at').notNull(),
    removedAt: instant('removed_at'),
  },
  (t) => [
    index('home_photo_hand_in').on(t.handInId),
    check('home_photo_pose', sql`${t.pose} in ('front', 'side', 'back')`),
  ],
)

/** A coach's line to a client, about a week handed in or just so. Append-only. */
export const coachLine = pgTable(
  'coach_line',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    handInId: uuid('hand_in_id').references(() => handIn.id),
    words: text('words').notNull(),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    writtenBy: uuid('written_by')
      .notNull()
      .references(() => staff.id),
  },
  (t) => [
    index('coach_line_client').on(t.clientId, t.at),
    check('coach_line_words', sql`length(${t.words}) between 1 and 500`),
  ],
)

/** Where a client is reminded and of what. Append-only: the newest counts. */
export const reminderChoice = pgTable(
  'reminder_choice',
  {
    id: uuid('id').primaryKey(),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    email: text('email'),
    visits: boolean('visits').notNull(),
    handIns: boolean('hand_ins').notNull(),
    /** Weekday of the hand-in: 1 Monday to 7 Sunday. */
    handInWeekday: integer('hand_in_weekday').notNull().default(7),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    /** Null: the client, by the press in a mail or at their link. */
    setBy: uuid('set_by').references(() => staff.id),
  },
  (t) => [
    index('reminder_choice_latest').on(t.clientId, t.at),
    check('reminder_choice_weekday', sql`${t.handInWeekday} between 1 and 7`),
    check('reminder_choice_email', sql`length(${t.email}) <= 200`),
  ],
)

/** A mail to go out or gone out. No figure and no word about a body ever stands in one. */
export const mail = pgTable(
  'mail',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    clientId: uuid('client_id').references(() => client.id),
    toAddress: text('to_address').notNull(),
    subject: text('subject').notNull(),
    words: text('words').notNull(),
    /** What it is about; the same thing is never said twice. */
    about: text('about').notNull(),
    stopTokenHash: text('stop_token_hash'),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    sentAt: instant('sent_at'),
    tries: integer('tries').notNull().default(0),
  },
  (t) => [
    uniqueIndex('mail_about').on(t.about),
    uniqueIndex('mail_stop').on(t.stopTokenHash),
    index('mail_studio').on(t.studioId, t.at),
    index('mail_waiting')
      .on(t.at)
      .where(sql`${t.sentAt} is null`),
  ],
)
