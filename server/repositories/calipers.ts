import { and, asc, desc, eq } from 'drizzle-orm'
import type { Caliper, CaliperCheckInput, CaliperInput } from '../../shared/schemas/caliper'
import type { Queryable } from '../db/database'
import { caliper, caliperCheck } from '../db/schema'
import type { SignedIn } from './staff'

/** Calipers in use, by name, each with its latest check. */
export async function listCalipers(db: Queryable, who: SignedIn): Promise<Caliper[]> {
  const rows = await db
    .select({
      id: caliper.id,
      name: caliper.name,
      resolutionMm: caliper.resolutionMm,
      checkedOn: caliperCheck.checkedOn,
      deviationMm: caliperCheck.deviationMm,
    })
    .from(caliper)
    .leftJoin(caliperCheck, eq(caliperCheck.caliperId, caliper.id))
    .where(and(eq(caliper.studioId, who.studioId), eq(caliper.retired, false)))
    .orderBy(asc(caliper.name), asc(caliper.id), desc(caliperCheck.checkedOn), desc(caliperCheck.id))
  return rows.filter((row, i) => row.id !== rows[i - 1]?.id)
}

/** Adds a caliper under an id made by the device; sending it twice adds one. */
export async function addCaliper(db: Queryable, who: SignedIn, input: CaliperInput): Promise<void> {
  await db
    .insert(caliper)
    .values({ ...input, studioId: who.studioId })
    .onConflictDoNothing({ target: caliper.id })
}

/** Notes a check of one of the studio's calipers. False when there is no such caliper here. */
export async function checkCaliper(
  db: Queryable,
  who: SignedIn,
  caliperId: string,
  input: CaliperCheckInput,
): Promise<boolean> {
  const own = await db
    .select({ id: caliper.id })
    .from(caliper)
    .where(and(eq(caliper.id, caliperId), eq(caliper.studioId, who.studioId)))
  if (own.length === 0) return false
  await db
    .insert(caliperCheck)
    .values({ ...input, caliperId, checkedBy: who.staffId })
    .onConflictDoNothing({ target: caliperCheck.id })
  return true
}
