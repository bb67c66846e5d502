import { and, desc, eq, isNull, or } from 'drizzle-orm'
import type { CalendarLinkRecord } from '../../shared/schemas/booking'
import type { Queryable, Transaction } from '../db/database'
import { calendarLink, staff, studio } from '../db/schema'
import type { SignedIn } from './staff'

/** Addresses that work: one's own, and for leads those of the whole studio. */
export async function listCalendarLinks(db: Queryable, who: SignedIn): Promise<CalendarLinkRecord[]> {
  const mine = eq(calendarLink.staffId, who.staffId)
  const rows = await db
    .select({ id: calendarLink.id, staffId: calendarLink.staffId, by: staff.name, at: calendarLink.at })
    .from(calendarLink)
    .innerJoin(staff, eq(staff.id, calendarLink.madeBy))
    .where(
      and(
        eq(calendarLink.studioId, who.studioId),
        isNull(calendarLink.revokedAt),
        who.role === 'lead' ? or(mine, isNull(calendarLink.staffId)) : mine,
      ),
    )
    .orderBy(desc(calendarLink.at), desc(calendarLink.id))
  return rows.map(({ staffId, ...row }) => ({ ...row, of: staffId === null ? 'studio' : 'me' }))
}

/** Keeps a new address; the earlier one of the same calendar stops working. */
export async function addCalendarLink(
  tx: Transaction,
  who: SignedIn,
  { id, of, tokenHash }: { id: string; of: 'me' | 'studio'; tokenHash: string },
): Promise<void> {
  const staffId = of === 'me' ? who.staffId : null
  await tx
    .update(calendarLink)
    .set({ revokedAt: new Date().toISOString() })
    .where(
      and(
        eq(calendarLink.studioId, who.studioId),
        isNull(calendarLink.revokedAt),
        staffId === null ? isNull(calendarLink.staffId) : eq(calendarLink.staffId, staffId),
      ),
    )
  await tx.insert(calendarLink).values({ id, studioId: who.studioId, staffId, tokenHash, madeBy: who.staffId })
}

/** Ends an address. False when there is none of one's own. */
export async function revokeCalendarLink(tx: Transaction, who: SignedIn, id: string): Promise<boolean> {
  const own = (await listCalendarLinks(tx, who)).some((one) => one.id === id)
  if (own) await tx.update(calendarLink).set({ revokedAt: new Date().toISOString() }).where(eq(calendarLink.id, id))
  return own
}

/** Whose calendar a token opens, while it works and its person may sign in; null otherwise. */
export async function findCalendar(db: Queryable, tokenHash: string) {
  const [row] = await db
    .select({
      studioId: calendarLink.studioId,
      staffId: calendarLink.staffId,
      madeBy: calendarLink.madeBy,
      timeZone: studio.timeZone,
      studioName: studio.name,
      coachesSee: studio.coachesSee,
      role: staff.role,
    })
    .from(calendarLink)
    .innerJoin(studio, eq(studio.id, calendarLink.studioId))
    // Of whoever made it: an account that is closed reads nothing any more.
    .innerJoin(staff, eq(staff.id, calendarLink.madeBy))
    .where(and(eq(calendarLink.tokenHash, tokenHash), isNull(calendarLink.revokedAt), eq(staff.active, true)))
  // The studio's calendar is for leads: made by one who is a lead no more, it is read no more.
  return row && (row.staffId !== null || row.role === 'lead') ? row : null
}
