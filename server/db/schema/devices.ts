import { sql } from 'drizzle-orm'
import { check, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { instant } from './instant'
import { staff, studio } from './people'

/** Digits that open a locked device again, on devices where their person has signed in before. */
export const pin = pgTable(
  'pin',
  {
    staffId: uuid('staff_id')
      .primaryKey()
      .references(() => staff.id),
    /** Salt and PBKDF2 of the digits (server/http/pin.ts); sealed where the environment names a key. */
    secret: text('secret').notNull(),
    /** Wrong ones in a row; at five it opens nothing until its person has signed in. */
    tries: integer('tries').notNull().default(0),
    setAt: instant('set_at').notNull(),
  },
  (t) => [check('pin_tries', sql`${t.tries} between 0 and 5`)],
)

/** What a studio's devices seal what waits on them with: only somebody signed in is told. */
export const deviceKey = pgTable('device_key', {
  studioId: uuid('studio_id')
    .primaryKey()
    .references(() => studio.id),
  /** 256 bits in base64; sealed where the environment names a key. */
  secret: text('secret').notNull(),
  madeAt: instant('made_at').notNull(),
})

/** A passkey: what a device or a key of somebody's proves who they are with, instead of a password. */
export const passkey = pgTable(
  'passkey',
  {
    id: uuid('id').primaryKey(),
    staffId: uuid('staff_id')
      .notNull()
      .references(() => staff.id),
    /** As its own device names it, base64url. */
    credentialId: text('credential_id').notNull(),
    /** COSE key in base64url: public. */
    publicKey: text('public_key').notNull(),
    /** Uses as the device counts them; it may not fall. Many count none. */
    counter: integer('counter').notNull().default(0),
    /** How a browser reaches it: "internal", "usb". */
    transports: jsonb('transports').$type<string[]>().notNull().default([]),
    /** What its person calls it. */
    name: text('name').notNull(),
    addedAt: instant('added_at').notNull(),
    usedAt: instant('used_at'),
  },
  (t) => [
    uniqueIndex('passkey_credential').on(t.credentialId),
    index('passkey_staff').on(t.staffId),
    check('passkey_name_length', sql`length(${t.name}) between 1 and 60`),
  ],
)

/** What a passkey is asked to sign, once and soon. */
export const passkeyChallenge = pgTable(
  'passkey_challenge',
  {
    /** SHA-256 of the challenge. */
    hash: text('hash').primaryKey(),
    /** Who is to answer; null: whoever signs in. */
    staffId: uuid('staff_id').references(() => staff.id),
    purpose: text('purpose', { enum: ['add', 'prove', 'sign-in'] }).notNull(),
    expiresAt: instant('expires_at').notNull(),
  },
  (t) => [index('passkey_challenge_expires').on(t.expiresAt)],
)
