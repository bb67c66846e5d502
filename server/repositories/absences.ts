import { and, asc, eq, gte, isNull, lte } from 'drizzle-orm'
import type { Day } from '../../core/calendar'
import type { Absence } from '../../core/schedule'
import type { AbsenceInput, AbsenceRecord, Role } from '../../shared/schemas/account'
import type { Queryable, Transaction } from '../db/database'
import { away, staff } from '../db/schema'
import { storeOnce } from '../write/same-again'
import type { Sees } from './seen-by'
import type { InStudio, SignedIn } from './staff'

/** Days people of a studio are away that touch these days, the earliest first. */
export async function listAbsences(
  db: Queryable,
  { studioId }: InStudio,
  { from, to }: { from: Day; to: Day },
): Promise<AbsenceRecord[]> {
  return db
    .select({
      id: away.id,
      staffId: away.staffId,
      standInId: away.standInId,
      fromDay: away.fromDay,
      toDay: away.toDay,
    })
    .from(away)
    .innerJoin(staff, eq(staff.id, away.staffId))
    .where(and(eq(staff.studioId, studioId), isNull(away.endedAt), gte(away.toDay, from), lte(away.fromDay, to)))
    .orderBy(asc(away.fromDay), asc(away.id))
}

/** Coaches a person stands in for on a day. */
export async function standsInFor(db: Queryable, staffId: string, day: Day): Promise<string[]> {
  const rows = await db
    .select({ staffId: away.staffId })
    .from(away)
    .where(and(eq(away.standInId, staffId), isNull(away.endedAt), lte(away.fromDay, day), gte(away.toDay, day)))
  return rows.map(({ staffId: one }) => one)
}

/** Notes days somebody is away, under an id made by the device. Gives how many were new. Throws IdTaken. */
export function addAbsence(tx: Transaction, who: SignedIn, input: AbsenceInput): Promise<number> {
  const fact = ['staffId', 'standInId', 'fromDay', 'toDay'] as const
  return storeOnce(tx, away, away.id, [{ ...input, setBy: who.staffId }], fact)
}

/** Takes an absence off again. False when there is none. */
export async function endAbsence(tx: Transaction, { studioId }: InStudio, id: string): Promise<boolean> {
  const own = await tx
    .select({ id: away.id })
    .from(away)
    .innerJoin(staff, eq(staff.id, away.staffId))
    .where(and(eq(away.id, id), eq(staff.studioId, studioId), isNull(away.endedAt)))
  if (own.length === 0) return false
  await tx.update(away).set({ endedAt: new Date().toISOString() }).where(eq(away.id, id))
  return true
}

/** Absences as what bookings are judged by. */
export type { Absence }

/**
 * Whose clients a person sees on a day: everybody's, or where the studio keeps coaches to their own, theirs and those of
 * the coaches they stand in for. Leads answer for everybody; a recorder reaches open sheets and no list.
 */
export async function seesOf(
  db: Queryable,
  { staffId, role, coachesSee }: { staffId: string; role: Role; coachesSee: 'all' | 'own' },
  day: Day,
): Promise<Sees> {
  if (coachesSee === 'all' || role !== 'coach') return 'all'
  return [staffId, ...(await standsInFor(db, staffId, day))]
}
