import { sql } from 'drizzle-orm'
import { check, date, index, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { instant } from './instant'
import { client, staff, studio } from './people'

/** A challenge of some weeks. */
export const challenge = pgTable(
  'challenge',
  {
    id: uuid('id').primaryKey(),
    studioId: uuid('studio_id')
      .notNull()
      .references(() => studio.id),
    name: text('name').notNull(),
    startsOn: date('starts_on', { mode: 'string' }).notNull(),
    endsOn: date('ends_on', { mode: 'string' }).notNull(),
    figure: text('figure', { enum: ['sum', 'fat'] }).notNull(),
    categories: text('categories', { enum: ['none', 'sex', 'start'] }).notNull(),
    teams: jsonb('teams').$type<string[]>().notNull().default([]),
    prizeRule: text('prize_rule', { enum: ['share', 'draw'] }).notNull(),
    /** SHA-256 of the token in the board's address; null: no board. */
    boardTokenHash: text('board_token_hash'),
    madeBy: uuid('made_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    closedAt: instant('closed_at'),
    /** Settles draws when it is closed. */
    drawSeed: text('draw_seed'),
  },
  (t) => [
    index('challenge_studio').on(t.studioId, t.endsOn),
    uniqueIndex('challenge_board').on(t.boardTokenHash),
    check('challenge_name', sql`length(${t.name}) between 1 and 80`),
    check('challenge_days', sql`${t.endsOn} > ${t.startsOn}`),
    check('challenge_figure', sql`${t.figure} in ('sum', 'fat')`),
  ],
)

/** Somebody who takes part, with how they are shown and when they agreed to that. */
export const challengeEntry = pgTable(
  'challenge_entry',
  {
    id: uuid('id').primaryKey(),
    challengeId: uuid('challenge_id')
      .notNull()
      .references(() => challenge.id),
    clientId: uuid('client_id')
      .notNull()
      .references(() => client.id),
    shownAs: text('shown_as', { enum: ['name', 'alias', 'hidden'] }).notNull(),
    alias: text('alias').notNull().default(''),
    team: text('team'),
    consentOn: date('consent_on', { mode: 'string' }).notNull(),
    enteredBy: uuid('entered_by')
      .notNull()
      .references(() => staff.id),
    at: instant('at')
      .notNull()
      .default(sql`now()`),
    leftAt: instant('left_at'),
  },
  (t) => [
    uniqueIndex('challenge_entry_once')
      .on(t.challengeId, t.clientId)
      .where(sql`${t.leftAt} is null`),
    check('challenge_entry_alias', sql`length(${t.alias}) <= 40 and (${t.shownAs} <> 'alias' or ${t.alias} <> '')`),
  ],
)
