import { sql } from 'drizzle-orm'
import {
  boolean,
  check,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  pgTable,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { SOURCES } from '../../core/readings/reading'

/** timestamptz read back as ISO 8601 with milliseconds, so that instants compare as text everywhere. */
const instant = customType<{ data: string; driverData: string | Date }>({
  dataType: () => 'timestamp with time zone',
  fromDriver: (value) => new Date(value).toISOString(),
})

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
    createdAt: instant('created_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    check('studio_name_length', sql`length(${t.name}) between 1 and 120`),
    check('studio_mass_unit', sql`${t.massUnit} in ('kg', 'lb')`),
    check('studio_length_unit', sql`${t.lengthUnit} in ('cm', 'in')`),
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
    role: text('role', { enum: ['lead', 'coach'] }).notNull(),
    /** Null: the studio's unit. */
    massUnit: text('mass_unit', { enum: ['kg', 'lb'] }),
    lengthUnit: text('length_unit', { enum: ['cm', 'in'] }),
    active: boolean('active').notNull().default(true),
    createdAt: instant('created_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    uniqueIndex('staff_email').on(t.email),
    index('staff_studio').on(t.studioId, t.name),
    check('staff_name_length', sql`length(${t.name}) between 1 and 120`),
    check('staff_email_lower', sql`${t.email} = lower(${t.email}) and length(${t.email}) <= 200`),
    check('staff_role', sql`${t.role} in ('lead', 'coach')`),
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
    archivedAt: instant('archived_at'),
    createdAt: instant('created_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    index('client_list').on(t.studioId, t.archivedAt, sql`lower(${t.name})`, t.id),
    check('client_name_length', sql`length(${t.name}) between 1 and 120`),
    check('client_sex', sql`${t.sex} in ('female', 'male')`),
    check('client_birth_date', sql`${t.birthDate} >= '1900-01-01'`),
    check('client_height', sql`${t.heightCm} between 90 and 250`),
    check('client_usual_side', sql`${t.usualSide} in ('right', 'left')`),
    check('client_notes_length', sql`length(${t.notes}) <= 4000`),
  ],
)

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
    startedAt: instant('started_at').notNull(),
    finishedAt: instant('finished_at'),
    note: text('note').notNull().default(''),
  },
  (t) => [
    index('checkin_client').on(t.clientId, t.startedAt),
    index('checkin_recent').on(t.startedAt),
    // Two coaches pressing Measure at once end up in the same session.
    uniqueIndex('checkin_one_open')
      .on(t.clientId)
      .where(sql`${t.finishedAt} is null`),
    check('checkin_side', sql`${t.side} in ('right', 'left')`),
    check('checkin_order', sql`${t.finishedAt} >= ${t.startedAt}`),
    check('checkin_note_length', sql`length(${t.note}) <= 4000`),
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
    receivedAt: instant('received_at')
      .notNull()
      .default(sql`now()`),
  },
  (t) => [
    index('reading_checkin').on(t.checkinId, t.takenAt),
    check('reading_round', sql`${t.round} between 1 and 20`),
    check('reading_unit', sql`${t.unit} in ('mm', 'kg', 'lb', 'cm', 'in')`),
    check(
      'reading_value',
      sql`case ${t.unit} when 'mm' then ${t.value} between 1.5 and 80 when 'kg' then ${t.value} between 20 and 350 when 'lb' then ${t.value} between 44 and 772 when 'cm' then ${t.value} between 10 and 250 else ${t.value} between 4 and 99 end`,
    ),
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
