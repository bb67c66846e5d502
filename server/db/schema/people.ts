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
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import type { Preparation } from '../../../core/safety/preparation'
import { FLAGS, type Flag } from '../../../core/cautions/flags'
import { ANCESTRIES } from '../../../core/composition/ancestry'
import { NO_ZONE } from '../../../core/calendar'
import { WORTHWHILE } from '../../../core/following/worthwhile'
import { ROLES, type Habits } from '../../../shared/schemas/account'
import { KEEP_ALL, type RetentionRules } from '../../../shared/schemas/data'
import { instant } from './instant'

/** One installation's studio: its name and the units its people see unless they choose their own. */
export const studio = pgTable(
  'studio',
  {
    id: uuid('id').primaryKey(),
    name: text('name').notNull(),
    massUnit: text('mass_unit', { enum: ['kg', 'lb'] })
      .notNull()
      .default('kg'),
    lengthUnit: text('length_unit', { enum: ['cm', 'in'] })
      .notNull()
      .default('cm'),
    /** IANA name of the zone its days are counted in. */
    timeZone: text('time_zone').notNull().default(NO_ZONE),
    /** Smallest change worth acting on: fat in kg, sum of folds in percent. */
    worthwhileFatKg: doublePrecision('worthwhile_fat_kg').notNull().default(WORTHWHILE.fatKg),
    worthwhileSumPercent: doublePrecision('worthwhile_sum_percent').notNull().default(WORTHWHILE.sumPercent),
    /** When a lead read and accepted the page on scope of practice; null: energy and macros are not offered. */
    energyAcceptedAt: instant('energy_accepted_at'),
    /** Whose clients a coach sees: everybody's, or their own and those of nobody. */
    coachesSee: text('coaches_see', { enum: ['all', 'own'] })
      .notNull()
      .default('all'),
    /** Where the studio is reached from outside, as a lead has confirmed it; null: mails carry no links. */
    address: text('address'),
    /** No mail leaves from this hour to that one, where the studio is; the same twice: at any hour. */
    quietFrom: integer('quiet_from').notNull().default(20),
    quietTo: integer('quiet_to').notNull().default(8),
    /** Somebody signed in is signed out after so many hours without a request, and after so many days in any case. */
    sessionIdleHours: integer('session_idle_hours').notNull().default(72),
    sessionDays: integer('session_days').notNull().default(14),
    /** A device nobody touches locks after so many minutes; 0: it does not. */
    lockMinutes: integer('lock_minutes').notNull().default(0),
    /** Everybody signs in with a second proof: a code or a passkey. */
    secondRequired: boolean('second_required').notNull().default(false),
    /** How long what it has is kept. */
    retention: jsonb('retention').$type<RetentionRules>().notNull().default(KEEP_ALL),
    createdAt: instant('created_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    check('studio_name_length', sql`length(${t.name}) between 1 and 120`),
    check('studio_address', sql`${t.address} ~ '^https?://[^/\\s]{1,200}$'`),
    check('studio_mass_unit', sql`${t.massUnit} in ('kg', 'lb')`),
    check('studio_length_unit', sql`${t.lengthUnit} in ('cm', 'in')`),
    check('studio_session', sql`${t.sessionIdleHours} between 1 and 720 and ${t.sessionDays} between 1 and 30`),
    check('studio_lock', sql`${t.lockMinutes} between 0 and 60`),
    check('studio_coaches_see', sql`${t.coachesSee} in ('all', 'own')`),
    check('studio_quiet', sql`${t.quietFrom} between 0 and 23 and ${t.quietTo} between 0 and 23`),
  ],
)

/** People who sign in. Passwords are scrypt hashes. */
export const staff = pgTable(
  'staff',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    name: text('name').notNull(),
    /** Lower case, unique in the installation. */
    email: text('email').notNull(),
    passwordHash: text('password_hash').notNull(),
    role: text('role', { enum: [...ROLES] }).notNull(),
    /** Null: the studio's unit. */
    massUnit: text('mass_unit', { enum: ['kg', 'lb'] }),
    lengthUnit: text('length_unit', { enum: ['cm', 'in'] }),
    active: boolean('active').notNull().default(true),
    /** How this person works: marking left out, readback, sounds. */
    habits: jsonb('habits').$type<Habits>().notNull().default({}),
    createdAt: instant('created_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    uniqueIndex('staff_email').on(t.email),
    index('staff_studio').on(t.studioId, t.name),
    check('staff_name_length', sql`length(${t.name}) between 1 and 120`),
    check('staff_email_lower', sql`${t.email} = lower(${t.email}) and length(${t.email}) <= 200`),
    check('staff_role', sql`${t.role} in ('lead', 'coach', 'recorder')`),
    check('staff_mass_unit', sql`${t.massUnit} in ('kg', 'lb')`),
    check('staff_length_unit', sql`${t.lengthUnit} in ('cm', 'in')`),
  ],
)

/** People who are measured. */
export const client = pgTable(
  'client',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    name: text('name').notNull(),
    sex: text('sex', { enum: ['female', 'male'] }).notNull(),
    birthDate: date('birth_date', { mode: 'string' }).notNull(),
    heightCm: doublePrecision('height_cm'),
    usualSide: text('usual_side', { enum: ['right', 'left'] })
      .notNull()
      .default('right'),
    notes: text('notes').notNull().default(''),
    /** Day the client agreed to be touched, measured and kept on record. Null: not agreed yet. */
    consentOn: date('consent_on', { mode: 'string' }),
    guardianConsent: boolean('guardian_consent').notNull().default(false),
    /** Who agreed for a minor, and when. */
    guardianName: text('guardian_name').notNull().default(''),
    guardianConsentOn: date('guardian_consent_on', { mode: 'string' }),
    /** Day a guardian agreed to photographs: another consent than the one to measuring. */
    guardianPhotoConsentOn: date('guardian_photo_consent_on', { mode: 'string' }),
    /** A preparation for a day that does not move, with its medical clearance; null: none. */
    preparation: jsonb('preparation').$type<Preparation>(),
    /** Trains as an athlete. Null: not on record. */
    athlete: boolean('athlete'),
    /** Population group, only where the client wanted it on record. */
    ancestry: text('ancestry', { enum: [...ANCESTRIES] }),
    /** Day the client agreed to be photographed. Null: not agreed. */
    photoConsentOn: date('photo_consent_on', { mode: 'string' }),
    /** This client's own smallest changes worth acting on; null: the studio's. */
    worthwhileFatKg: doublePrecision('worthwhile_fat_kg'),
    worthwhileSumPercent: doublePrecision('worthwhile_sum_percent'),
    /** Whose client they are; null: everybody's. */
    coachId: uuid('coach_id').references(() => staff.id),
    archivedAt: instant('archived_at'),
    /** Counts changes of the record itself: a form that was opened on an older one is not laid over a newer one. */
    version: integer('version').notNull().default(1),
    /** Last change of any fact about this client: what computed lines are kept under. */
    touchedAt: instant('touched_at')
      .notNull()
      .default(sql`now()`),
    createdAt: instant('created_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    index('client_list').on(t.studioId, t.archivedAt, sql`lower(${t.name})`, t.id),
    check('client_name_length', sql`length(${t.name}) between 1 and 120`),
    check('client_sex', sql`${t.sex} in ('female', 'male')`),
    check('client_birth_date', sql`${t.birthDate} >= ${sql.raw(`'${BOUNDS.firstBirthDay}'`)}`),
    check('client_height', sql`${t.heightCm} between 90 and 250`),
    check('client_usual_side', sql`${t.usualSide} in ('right', 'left')`),
    check('client_notes_length', sql`length(${t.notes}) <= 4000`),
    check('client_guardian_name', sql`length(${t.guardianName}) <= 120`),
  ],
)

/** What a coach has to mind about a client (core/cautions). */
export const cautionFlag = pgTable(
  'caution_flag',
  {
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    flag: text('flag', { enum: Object.keys(FLAGS) as [Flag, ...Flag[]] }).notNull(),
    since: instant('since')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [primaryKey({ columns: [t.clientId, t.flag] })],
)

/** A client's own landmark at a site: a mole, a freckle. */
export const landmarkNote = pgTable(
  'landmark_note',
  {
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    site: text('site').notNull(),
    note: text('note').notNull(),
    changedAt: instant('changed_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    primaryKey({ columns: [t.clientId, t.site] }),
    check('landmark_note_length', sql`length(${t.note}) between 1 and 300`),
  ],
)
