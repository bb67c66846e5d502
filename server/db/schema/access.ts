import { sql } from 'drizzle-orm'
import { boolean, check, index, integer, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { staff, studio } from './people'
import { instant } from './instant'

/** A time somebody is signed in: its id lies sealed in their cookie, and it ends here, everywhere at once. */
export const session = pgTable(
  'session',
  {
    id: uuid('id').primaryKey(),
    staffId: uuid('staff_id')
      .notNull()
      .references(() => staff.id),
    /** The browser, in a few words. */
    device: text('device').notNull(),
    startedAt: instant('started_at').notNull(),
    /** Last used, to some minutes. */
    seenAt: instant('seen_at').notNull(),
    /** When its person last gave a password, or another proof: what is guarded asks for one that is fresh. */
    confirmedAt: instant('confirmed_at')
      .notNull()
      .default(sql`'2000-01-01T00:00:00Z'`),
    endedAt: instant('ended_at'),
    /** Its device is locked since: nothing answers but a PIN, or a new sign-in. */
    lockedAt: instant('locked_at'),
    /** It began on a device its person had not signed in on before, and nobody has said yet that this was they. */
    strange: boolean('strange').notNull().default(false),
  },
  (t) => [
    index('session_staff').on(t.staffId, t.startedAt),
    check('session_device_length', sql`length(${t.device}) <= 80`),
  ],
)

/** A browser somebody has signed in on: a stranger's wrong passwords elsewhere do not keep it waiting. */
export const knownDevice = pgTable(
  'known_device',
  {
    id: uuid('id').primaryKey(),
    staffId: uuid('staff_id')
      .notNull()
      .references(() => staff.id),
    /** SHA-256 of the random token in its cookie. */
    tokenHash: text('token_hash').notNull(),
    /** Their last sign-in on it with a password or a passkey. */
    at: instant('at').notNull(),
  },
  (t) => [uniqueIndex('known_device_token').on(t.staffId, t.tokenHash)],
)

/** A link by which somebody chooses a new password, once. */
export const passwordLink = pgTable(
  'password_link',
  {
    id: uuid('id').primaryKey(),
    staffId: uuid('staff_id')
      .notNull()
      .references(() => staff.id),
    /** SHA-256 of the random token in the link. */
    tokenHash: text('token_hash').notNull(),
    madeBy: uuid('made_by')
      .notNull()
      .references(() => staff.id),
    expiresAt: instant('expires_at').notNull(),
    usedAt: instant('used_at'),
  },
  (t) => [uniqueIndex('password_link_token').on(t.tokenHash), index('password_link_staff').on(t.staffId)],
)

/**
 * Who did what, to whom, when: a row a change, ids only. No foreign keys: the record stays when what it speaks of goes.
 */
export const audit = pgTable(
  'audit',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    at: instant('at').notNull(),
    actor: text('actor', { enum: ['staff', 'link', 'system'] }).notNull(),
    staffId: uuid('staff_id'),
    kind: text('kind').notNull(),
    clientId: uuid('client_id'),
    checkinId: uuid('checkin_id'),
    subjectId: uuid('subject_id'),
  },
  (t) => [
    index('audit_newest').on(t.studioId, t.id),
    index('audit_client').on(t.clientId, t.at),
    check('audit_actor', sql`${t.actor} in ('staff', 'link', 'system')`),
    check('audit_kind', sql`${t.kind} ~ '^[a-z.-]{1,40}$'`),
  ],
)

/**
 * The record's chain: every row of it in the order it came, with a hash over the row and the hash before. A row changed,
 * taken out or put in between shows (server/repositories/record-chain.ts). Written by the database itself whenever a row
 * of the record is (migration 0016), which also lets nobody change or remove either.
 */
export const auditChain = pgTable(
  'audit_chain',
  {
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    seq: integer('seq').notNull(),
    auditId: uuid('audit_id')
      .notNull()
      .references(() => audit.id),
    /** SHA-256, hexadecimal. */
    hash: text('hash').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.studioId, t.seq] }),
    uniqueIndex('audit_chain_row').on(t.auditId),
    check('audit_chain_hash', sql`${t.hash} ~ '^[0-9a-f]{64}$'`),
  ],
)

/** A second proof beside the password: the secret an application on somebody's phone makes codes from (RFC 6238). */
export const secondFactor = pgTable('second_factor', {
  staffId: uuid('staff_id')
    .primaryKey()
    .references(() => staff.id),
  /** Base32; sealed where the environment names a key. */
  secret: text('secret').notNull(),
  /** The first code was right; null: it does not count yet. */
  confirmedAt: instant('confirmed_at'),
  /** The step of the newest code that was taken: none is taken twice. */
  lastStep: integer('last_step').notNull().default(0),
})

/** Codes on paper for whoever has lost that phone: each works once. */
export const recoveryCode = pgTable(
  'recovery_code',
  {
    id: uuid('id').primaryKey(),
    staffId: uuid('staff_id')
      .notNull()
      .references(() => staff.id),
    /** SHA-256. */
    codeHash: text('code_hash').notNull(),
    usedAt: instant('used_at'),
  },
  (t) => [uniqueIndex('recovery_code_of').on(t.staffId, t.codeHash)],
)
