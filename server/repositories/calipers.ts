import { and, asc, desc, eq } from 'drizzle-orm'
import type { Caliper, CaliperCheckInput, CaliperInput } from '../../shared/schemas/caliper'
import type { Queryable, Transaction } from '../db/database'
import { storeOnce } from '../write/same-again'
import { caliper, caliperCheck } from '../db/schema'
import type { InStudio, SignedIn } from './staff'

/** Calipers in use, by name, each with its latest check. */
export async function listCalipers(db: Queryable, who: InStudio): Promise<Caliper[]> {
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

/** Adds a caliper under an id made by the device; sending it twice adds one. Throws IdTaken. */
export function addCaliper(tx: Transaction, who: InStudio, input: CaliperInput): Promise<number> {
  const row = { ...input, studioId: who.studioId }
  return storeOnce(tx, caliper, caliper.id, [row], ['studioId', 'name', 'resolutionMm'])
}

/** Notes a check of one of the studio's calipers. Null when there is no such caliper here. Throws IdTaken. */
export async function checkCaliper(
  tx: Transaction,
  who: SignedIn,
  caliperId: string,
  input: CaliperCheckInput,
): Promise<number | null> {
  const own = await tx
    .select({ id: caliper.id })
    .from(caliper)
    .where(and(eq(caliper.id, caliperId), eq(caliper.studioId, who.studioId)))
  if (own.length === 0) return null
  const row = { ...input, caliperId, checkedBy: who.staffId }
  return storeOnce(tx, caliperCheck, caliperCheck.id, [row], ['caliperId', 'checkedOn', 'deviationMm'])
}
