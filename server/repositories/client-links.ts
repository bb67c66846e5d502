import { and, desc, eq, gt, isNotNull, isNull, lt, sql } from 'drizzle-orm'
import type { GirthSiteId } from '../../core/sites'
import type { LinkChange, LinkInput, LinkRecord, LinkScope } from '../../shared/schemas/link'
import type { Queryable, Transaction } from '../db/database'
import { client, clientLink, linkSession, staff, studio } from '../db/schema'
import type { SignedIn } from './staff'

/** Wrong PINs in a row after which a link is locked. */
export const MOST_WRONG_PINS = 5

/** Whether a link works, and if not, why. */
export type LinkState = 'works' | 'expired' | 'revoked' | 'locked'

/** A link with whose it is. */
export interface FoundLink {
  id: string
  clientId: string
  clientName: string
  studioId: string
  studioName: string
  scope: LinkScope[]
  reasonFor: string[]
  sites: GirthSiteId[]
  expiresAt: string
  pinHash: string | null
  state: LinkState
}

/** A client at their own link. */
export interface AtLink {
  linkId: string
  sessionId: string
  clientId: string
  studioId: string
  /** What counts of what it was made for. */
  scope: LinkScope[]
  sites: GirthSiteId[]
}

const found = {
  id: clientLink.id,
  clientId: clientLink.clientId,
  clientName: client.name,
  studioId: client.studioId,
  studioName: studio.name,
  scope: clientLink.scope,
  reasonFor: clientLink.reasonFor,
  sites: clientLink.sites,
  expiresAt: clientLink.expiresAt,
  pinHash: clientLink.pinHash,
  wrongPins: clientLink.wrongPins,
  revokedAt: clientLink.revokedAt,
  archivedAt: client.archivedAt,
}

type Row = Omit<FoundLink, 'state'> & { wrongPins: number; revokedAt: string | null; archivedAt: string | null }

function withState({ wrongPins, revokedAt, archivedAt, ...link }: Row, now: Date): FoundLink {
  const state: LinkState =
    revokedAt !== null || archivedAt !== null
      ? 'revoked'
      : wrongPins >= MOST_WRONG_PINS
        ? 'locked'
        : Date.parse(link.expiresAt) <= +now
          ? 'expired'
          : 'works'
  return { ...link, state }
}

/** The link a token opens, whatever its state; null for a token nobody gave out. */
export async function findLink(db: Queryable, tokenHash: string, now = new Date()): Promise<FoundLink | null> {
  const [row] = await db
    .select(found)
    .from(clientLink)
    .innerJoin(client, eq(client.id, clientLink.clientId))
    .innerJoin(studio, eq(studio.id, client.studioId))
    .where(eq(clientLink.tokenHash, tokenHash))
  return row ? withState(row, now) : null
}

/** The link a phone's session belongs to, whatever its state; null once that session has ended. */
export async function findLinkSession(
  db: Queryable,
  sessionId: string,
  now = new Date(),
): Promise<(AtLink & Pick<FoundLink, 'reasonFor' | 'state'>) | null> {
  const [row] = await db
    .select({ ...found, endedAt: linkSession.endedAt })
    .from(linkSession)
    .innerJoin(clientLink, eq(clientLink.id, linkSession.linkId))
    .innerJoin(client, eq(client.id, clientLink.clientId))
    .innerJoin(studio, eq(studio.id, client.studioId))
    .where(eq(linkSession.id, sessionId))
  if (!row) return null
  const { endedAt, ...link } = row
  const { id, clientId, studioId, scope, reasonFor, sites, state } = withState(link, now)
  // Signed out here; where the link itself has ended, that is the reason.
  if (endedAt !== null && state === 'works') return null
  return { linkId: id, sessionId, clientId, studioId, scope, reasonFor, sites, state }
}

/** The studio a link belongs to and when the link ends, as a phone shows them. */
export async function findLinkPlace(db: Queryable, linkId: string) {
  const [row] = await db
    .select({
      studioName: studio.name,
      mass: studio.massUnit,
      length: studio.lengthUnit,
      timeZone: studio.timeZone,
      expiresAt: clientLink.expiresAt,
    })
    .from(clientLink)
    .innerJoin(client, eq(client.id, clientLink.clientId))
    .innerJoin(studio, eq(studio.id, client.studioId))
    .where(eq(clientLink.id, linkId))
  if (!row) throw new Error('A link that was there is gone.')
  const { mass, length, ...place } = row
  return { ...place, units: { mass, length } }
}

/** A client's links, the newest first, with what their reasons answer. */
export async function listLinks(
  db: Queryable,
  clientId: string,
): Promise<(Omit<LinkRecord, 'counted'> & { reasonFor: string[] })[]> {
  const rows = await db
    .select({
      id: clientLink.id,
      scope: clientLink.scope,
      reason: clientLink.reason,
      reasonFor: clientLink.reasonFor,
      sites: clientLink.sites,
      at: clientLink.at,
      by: staff.name,
      expiresAt: clientLink.expiresAt,
      firstOpenedAt: clientLink.firstOpenedAt,
      lastOpenedAt: clientLink.lastOpenedAt,
      hasPin: sql<boolean>`${clientLink.pinHash} is not null`,
      locked: sql<boolean>`${clientLink.wrongPins} >= ${MOST_WRONG_PINS}`,
      revokedAt: clientLink.revokedAt,
    })
    .from(clientLink)
    .innerJoin(staff, eq(staff.id, clientLink.madeBy))
    .where(eq(clientLink.clientId, clientId))
    .orderBy(desc(clientLink.at), desc(clientLink.id))
    .limit(20)
  return rows
}

/** Ends the sessions of a link's phones, and with `revoke` the link. */
async function endLink(tx: Transaction, id: string): Promise<void> {
  const now = new Date().toISOString()
  await tx
    .update(clientLink)
    .set({ revokedAt: now })
    .where(and(eq(clientLink.id, id), isNull(clientLink.revokedAt)))
  await tx
    .update(linkSession)
    .set({ endedAt: now })
    .where(and(eq(linkSession.linkId, id), isNull(linkSession.endedAt)))
}

/** Makes a link for a client; the ones before stop working, their phones are signed out. */
export async function addLink(
  tx: Transaction,
  who: SignedIn,
  link: Pick<LinkInput, 'scope' | 'sites' | 'reason'> & {
    reasonFor: string[]
    id: string
    clientId: string
    tokenHash: string
    expiresAt: string
  },
): Promise<void> {
  const before = await tx
    .select({ id: clientLink.id })
    .from(clientLink)
    .where(and(eq(clientLink.clientId, link.clientId), isNull(clientLink.revokedAt)))
  for (const { id } of before) await endLink(tx, id)
  await tx.insert(clientLink).values({ ...link, madeBy: who.staffId })
}

/** Changes what a link opens or until when. False when this client has none with this id that works. */
export async function changeLink(
  tx: Transaction,
  clientId: string,
  id: string,
  change: Pick<LinkChange, 'scope' | 'sites'> & { expiresAt?: string },
): Promise<boolean> {
  const changed = await tx
    .update(clientLink)
    .set(change)
    .where(and(eq(clientLink.id, id), eq(clientLink.clientId, clientId), isNull(clientLink.revokedAt)))
    .returning({ id: clientLink.id })
  return changed.length > 0
}

/** Ends a client's link at once. False when this client has none with this id. */
export async function revokeLink(tx: Transaction, clientId: string, id: string): Promise<boolean> {
  const [own] = await tx
    .select({ id: clientLink.id })
    .from(clientLink)
    .where(and(eq(clientLink.id, id), eq(clientLink.clientId, clientId)))
  if (own) await endLink(tx, id)
  return own !== undefined
}

/** Keeps the PIN a client chooses at the first opening. False when one was chosen meanwhile. */
export async function choosePin(tx: Transaction, id: string, pinHash: string): Promise<boolean> {
  const chosen = await tx
    .update(clientLink)
    .set({ pinHash })
    .where(and(eq(clientLink.id, id), isNull(clientLink.pinHash)))
    .returning({ id: clientLink.id })
  return chosen.length > 0
}

/** Counts a PIN before it is tried, so that guesses sent together count one by one. False when there were too many. */
export async function countPin(tx: Transaction, id: string): Promise<boolean> {
  const counted = await tx
    .update(clientLink)
    .set({ wrongPins: sql`${clientLink.wrongPins} + 1` })
    .where(and(eq(clientLink.id, id), isNotNull(clientLink.pinHash), lt(clientLink.wrongPins, MOST_WRONG_PINS)))
    .returning({ id: clientLink.id })
  return counted.length > 0
}

/** Signs a phone in to a link: the PIN was right, or has just been chosen. */
export async function startLinkSession(
  tx: Transaction,
  linkId: string,
  session: { id: string; device: string },
): Promise<void> {
  const now = new Date().toISOString()
  await tx
    .update(clientLink)
    .set({
      wrongPins: 0,
      firstOpenedAt: sql`coalesce(${clientLink.firstOpenedAt}, ${now}::timestamptz)`,
      lastOpenedAt: now,
    })
    .where(eq(clientLink.id, linkId))
  await tx.insert(linkSession).values({ ...session, linkId, startedAt: now })
}

/** Notes that a link was used; to the hour. */
export async function noteLinkOpened(tx: Transaction, linkId: string, before: string): Promise<boolean> {
  const noted = await tx
    .update(clientLink)
    .set({ lastOpenedAt: new Date().toISOString() })
    .where(and(eq(clientLink.id, linkId), lt(clientLink.lastOpenedAt, before)))
    .returning({ id: clientLink.id })
  return noted.length > 0
}

/** Signs one phone out of a link. */
export async function endLinkSession(tx: Transaction, sessionId: string): Promise<void> {
  await tx.update(linkSession).set({ endedAt: new Date().toISOString() }).where(eq(linkSession.id, sessionId))
}

/** Clients whose link works for hand-ins on an instant. */
export async function clientsWithLink(db: Queryable, now: string): Promise<Set<string>> {
  const rows = await db
    .select({ clientId: clientLink.clientId })
    .from(clientLink)
    .where(and(isNull(clientLink.revokedAt), gt(clientLink.expiresAt, now), lt(clientLink.wrongPins, MOST_WRONG_PINS)))
  return new Set(rows.map(({ clientId }) => clientId))
}
