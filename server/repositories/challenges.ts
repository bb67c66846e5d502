import { and, asc, desc, eq, gte, isNull, lte, sql } from 'drizzle-orm'
import { addDays, type Day } from '../../core/calendar'
import { WINDOW_DAYS } from '../../core/challenge'
import type { ChallengeInput, ChallengeRecord, EntryInput } from '../../shared/schemas/challenge'
import type { Queryable, Transaction } from '../db/database'
import { challenge, challengeEntry, client, studio } from '../db/schema'
import { storeOnce } from '../write/same-again'
import { ofRow } from './of-row'
import type { InStudio, SignedIn } from './staff'

const columns = {
  id: challenge.id,
  name: challenge.name,
  startsOn: challenge.startsOn,
  endsOn: challenge.endsOn,
  figure: challenge.figure,
  categories: challenge.categories,
  teams: challenge.teams,
  prizeRule: challenge.prizeRule,
  hasBoard: sql<boolean>`${challenge.boardTokenHash} is not null`,
  closedAt: challenge.closedAt,
  drawSeed: challenge.drawSeed,
  entries: sql<number>`(select count(*)::int from ${challengeEntry} where ${challengeEntry.challengeId} = ${ofRow(challenge.id)} and ${challengeEntry.leftAt} is null)`,
}

/** A challenge with what settles its draw. */
export type StoredChallenge = ChallengeRecord & { drawSeed: string | null }

/** A studio's challenges, the newest first. */
export async function listChallenges(db: Queryable, { studioId }: InStudio): Promise<ChallengeRecord[]> {
  const rows = await db
    .select(columns)
    .from(challenge)
    .where(eq(challenge.studioId, studioId))
    .orderBy(desc(challenge.endsOn), desc(challenge.id))
    .limit(100)
  return rows.map(({ drawSeed: _, ...row }) => row)
}

/** One challenge of this studio, or null. */
export async function findChallenge(db: Queryable, who: InStudio, id: string): Promise<StoredChallenge | null> {
  const [row] = await db
    .select(columns)
    .from(challenge)
    .where(and(eq(challenge.id, id), eq(challenge.studioId, who.studioId)))
  return row ?? null
}

/** Stores a challenge; sending it twice stores one. Throws IdTaken. */
export function addChallenge(
  tx: Transaction,
  who: SignedIn,
  { accepted: _, ...input }: ChallengeInput,
): Promise<number> {
  const row = { ...input, studioId: who.studioId, madeBy: who.staffId }
  return storeOnce(
    tx,
    challenge,
    challenge.id,
    [row],
    ['studioId', 'name', 'startsOn', 'endsOn', 'figure', 'prizeRule'],
  )
}

/** Everybody who was ever entered, those who have left included. */
export async function listEntries(db: Queryable, challengeId: string) {
  return db
    .select({
      id: challengeEntry.id,
      clientId: challengeEntry.clientId,
      clientName: client.name,
      shownAs: challengeEntry.shownAs,
      alias: challengeEntry.alias,
      team: challengeEntry.team,
      consentOn: challengeEntry.consentOn,
      at: challengeEntry.at,
      leftAt: challengeEntry.leftAt,
    })
    .from(challengeEntry)
    .innerJoin(client, eq(client.id, challengeEntry.clientId))
    .where(eq(challengeEntry.challengeId, challengeId))
    .orderBy(asc(sql`lower(${client.name})`), asc(challengeEntry.id))
}

/** Enters somebody; sending it twice enters them once. Throws IdTaken. */
export function addEntry(tx: Transaction, who: SignedIn, challengeId: string, input: EntryInput): Promise<number> {
  const row = { ...input, challengeId, enteredBy: who.staffId }
  return storeOnce(
    tx,
    challengeEntry,
    challengeEntry.id,
    [row],
    ['challengeId', 'clientId', 'shownAs', 'alias', 'team'],
  )
}

/** Whether somebody takes part already. */
export async function isEntered(db: Queryable, challengeId: string, clientId: string): Promise<boolean> {
  const rows = await db
    .select({ id: challengeEntry.id })
    .from(challengeEntry)
    .where(
      and(
        eq(challengeEntry.challengeId, challengeId),
        eq(challengeEntry.clientId, clientId),
        isNull(challengeEntry.leftAt),
      ),
    )
  return rows.length > 0
}

/** Somebody leaves. False when they do not take part. */
export async function leaveChallenge(tx: Transaction, challengeId: string, entryId: string): Promise<boolean> {
  const left = await tx
    .update(challengeEntry)
    .set({ leftAt: new Date().toISOString() })
    .where(
      and(eq(challengeEntry.id, entryId), eq(challengeEntry.challengeId, challengeId), isNull(challengeEntry.leftAt)),
    )
    .returning({ id: challengeEntry.id })
  return left.length > 0
}

/** Keeps a new address of the board; the one before stops working. */
export async function setBoard(tx: Transaction, id: string, boardTokenHash: string | null): Promise<void> {
  await tx.update(challenge).set({ boardTokenHash }).where(eq(challenge.id, id))
}

/** Closes a challenge, with what settles its draw. False when it was closed before. */
export async function closeChallenge(tx: Transaction, id: string, drawSeed: string): Promise<boolean> {
  const closed = await tx
    .update(challenge)
    .set({ closedAt: new Date().toISOString(), drawSeed })
    .where(and(eq(challenge.id, id), isNull(challenge.closedAt)))
    .returning({ id: challenge.id })
  return closed.length > 0
}

/** The challenge a board's token shows, with its studio; null for a token nobody gave out. */
export async function findBoard(db: Queryable, tokenHash: string) {
  const [row] = await db
    .select({ id: challenge.id, studioId: challenge.studioId, studioName: studio.name, timeZone: studio.timeZone })
    .from(challenge)
    .innerJoin(studio, eq(studio.id, challenge.studioId))
    .where(eq(challenge.boardTokenHash, tokenHash))
  return row ?? null
}

/** Whether somebody takes part in a challenge that is measured about now: their log sheet hides what was read before. */
export async function measuresBlind(db: Queryable, clientId: string, today: Day): Promise<boolean> {
  const rows = await db
    .select({ id: challengeEntry.id })
    .from(challengeEntry)
    .innerJoin(challenge, eq(challenge.id, challengeEntry.challengeId))
    .where(
      and(
        eq(challengeEntry.clientId, clientId),
        isNull(challengeEntry.leftAt),
        isNull(challenge.closedAt),
        lte(challenge.startsOn, addDays(today, WINDOW_DAYS)),
        gte(challenge.endsOn, addDays(today, -WINDOW_DAYS)),
      ),
    )
    .limit(1)
  return rows.length > 0
}

/** Challenges under way somebody takes part in. */
export async function challengesOf(db: Queryable, clientId: string): Promise<{ entryId: string; name: string }[]> {
  return db
    .select({ entryId: challengeEntry.id, name: challenge.name })
    .from(challengeEntry)
    .innerJoin(challenge, eq(challenge.id, challengeEntry.challengeId))
    .where(and(eq(challengeEntry.clientId, clientId), isNull(challengeEntry.leftAt), isNull(challenge.closedAt)))
    .orderBy(asc(challenge.endsOn))
}

/** Somebody leaves by themselves. False when this is no entry of theirs. */
export async function leaveOwnChallenge(tx: Transaction, clientId: string, entryId: string): Promise<boolean> {
  const left = await tx
    .update(challengeEntry)
    .set({ leftAt: new Date().toISOString() })
    .where(and(eq(challengeEntry.id, entryId), eq(challengeEntry.clientId, clientId), isNull(challengeEntry.leftAt)))
    .returning({ id: challengeEntry.id })
  return left.length > 0
}
