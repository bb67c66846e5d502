import { and, asc, desc, eq, gte, isNotNull, isNull, like, lt, lte, notLike, sql } from 'drizzle-orm'
import type { MailRecord } from '../../shared/schemas/mail'
import type { Queryable, Transaction } from '../db/database'
import { booking, client, mail, reminderChoice, staff, studio } from '../db/schema'
import type { InStudio } from './staff'

/** How often sending one is tried. */
const MOST_TRIES = 5
const NEWEST = 100

/** Mails about somebody's own account: they leave at any hour. */
const OF_ACCOUNT = 'sign-in %'

/** Mails of a studio to its clients, the newest first; what is about somebody's own account is theirs to read. */
export async function listMails(db: Queryable, { studioId }: InStudio): Promise<MailRecord[]> {
  return db
    .select({
      id: mail.id,
      to: mail.toAddress,
      subject: mail.subject,
      words: mail.words,
      at: mail.at,
      sentAt: mail.sentAt,
      tries: mail.tries,
    })
    .from(mail)
    .where(and(eq(mail.studioId, studioId), notLike(mail.about, OF_ACCOUNT)))
    .orderBy(desc(mail.at), desc(mail.id))
    .limit(NEWEST)
}

/** Writes a mail to be sent; the same thing is never said twice. False when it was said before. */
export async function addMail(tx: Transaction, row: typeof mail.$inferInsert): Promise<boolean> {
  const added = await tx.insert(mail).values(row).onConflictDoNothing({ target: mail.about }).returning({ id: mail.id })
  return added.length > 0
}

/** Mails of a studio that wait to be sent, the oldest first; `quiet`: those that leave at any hour. */
export async function waitingMails(db: Queryable, studioId: string, quiet = false) {
  return db
    .select()
    .from(mail)
    .where(
      and(
        eq(mail.studioId, studioId),
        isNull(mail.sentAt),
        lt(mail.tries, MOST_TRIES),
        quiet ? like(mail.about, OF_ACCOUNT) : undefined,
      ),
    )
    .orderBy(asc(mail.at))
    .limit(50)
}

/** Notes that a mail has left, or that it could not. */
export async function noteMail(tx: Transaction, id: string, sent: boolean): Promise<void> {
  await tx
    .update(mail)
    .set({ tries: sql`${mail.tries} + 1`, ...(sent ? { sentAt: new Date().toISOString() } : {}) })
    .where(eq(mail.id, id))
}

/** Whose mails a token stops; null for one nobody was sent. */
export async function findStop(db: Queryable, tokenHash: string) {
  const [row] = await db
    .select({ clientId: client.id, studioId: client.studioId, studioName: studio.name })
    .from(mail)
    .innerJoin(client, eq(client.id, mail.clientId))
    .innerJoin(studio, eq(studio.id, client.studioId))
    .where(eq(mail.stopTokenHash, tokenHash))
  return row ?? null
}

/** Studios with what their mails need. */
export async function studiosForMail(db: Queryable) {
  return db
    .select({
      id: studio.id,
      name: studio.name,
      timeZone: studio.timeZone,
      address: studio.address,
      quietFrom: studio.quietFrom,
      quietTo: studio.quietTo,
    })
    .from(studio)
}

/** Clients who are reminded of something, each by the newest choice. */
export async function remindedClients(db: Queryable, studioId: string) {
  const rows = await db
    .selectDistinctOn([reminderChoice.clientId], {
      clientId: reminderChoice.clientId,
      name: client.name,
      email: reminderChoice.email,
      visits: reminderChoice.visits,
      handIns: reminderChoice.handIns,
      weekday: reminderChoice.handInWeekday,
    })
    .from(reminderChoice)
    .innerJoin(client, eq(client.id, reminderChoice.clientId))
    .where(and(eq(client.studioId, studioId), isNull(client.archivedAt), isNotNull(client.consentOn)))
    .orderBy(reminderChoice.clientId, desc(reminderChoice.at), desc(reminderChoice.id))
  return rows.flatMap(({ email, ...row }) => (email === null ? [] : [{ ...row, email }]))
}

/** Visits of a studio that begin between two instants and are to take place. */
export async function visitsBetween(db: Queryable, studioId: string, from: string, to: string) {
  return db
    .select({
      id: booking.id,
      clientId: booking.clientId,
      startsAt: booking.startsAt,
      minutes: booking.minutes,
      place: booking.place,
      sequence: booking.sequence,
      changedAt: booking.changedAt,
      assessor: staff.name,
    })
    .from(booking)
    .leftJoin(staff, eq(staff.id, booking.assessorId))
    .where(
      and(
        eq(booking.studioId, studioId),
        eq(booking.state, 'booked'),
        gte(booking.startsAt, from),
        lte(booking.startsAt, to),
      ),
    )
}

/** One visit as a mail speaks of it. */
export type MailVisit = Awaited<ReturnType<typeof visitsBetween>>[number]

/** What a lead has confirmed links in mails to begin with; null: nothing yet. */
export async function findMailAddress(db: Queryable, { studioId }: InStudio): Promise<string | null> {
  const [row] = await db.select({ address: studio.address }).from(studio).where(eq(studio.id, studioId))
  return row?.address ?? null
}

/** Keeps that. */
export async function setMailAddress(tx: Transaction, { studioId }: InStudio, address: string | null): Promise<void> {
  await tx.update(studio).set({ address }).where(eq(studio.id, studioId))
}
