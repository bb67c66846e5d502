import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm'
import { readBlock } from '../../core/devices/block'
import type {
  Caliper,
  CaliperCheckInput,
  CaliperInput,
  CorrectionRecord,
  RegisteredCaliper,
} from '../../shared/schemas/caliper'
import type { Queryable, Transaction } from '../db/database'
import { storeOnce } from '../write/same-again'
import { caliper, caliperCheck, caliperCorrection, staff } from '../db/schema'
import { ofRow } from './of-row'
import type { InStudio, SignedIn } from './staff'

async function correctionsOf(db: Queryable, { studioId }: InStudio): Promise<Map<string, CorrectionRecord[]>> {
  const rows = await db
    .select({
      caliperId: caliperCorrection.caliperId,
      fromDay: caliperCorrection.fromDay,
      offsetMm: caliperCorrection.offsetMm,
      gain: caliperCorrection.gain,
    })
    .from(caliperCorrection)
    .innerJoin(caliper, eq(caliper.id, caliperCorrection.caliperId))
    .where(eq(caliper.studioId, studioId))
    .orderBy(asc(caliperCorrection.fromDay), asc(caliperCorrection.at), asc(caliperCorrection.id))
  const byCaliper = new Map<string, CorrectionRecord[]>()
  for (const { caliperId, fromDay, offsetMm, gain } of rows) {
    const correction = offsetMm === null || gain === null ? null : { offsetMm, gain }
    byCaliper.set(caliperId, [...(byCaliper.get(caliperId) ?? []), { fromDay, correction }])
  }
  return byCaliper
}

/** Every caliper of the studio, those put away too, by name, each with its latest check and its corrections. */
export async function everyCaliper(db: Queryable, who: InStudio): Promise<(Caliper & { retired: boolean })[]> {
  const rows = await db
    .select({
      id: caliper.id,
      name: caliper.name,
      resolutionMm: caliper.resolutionMm,
      retired: caliper.retired,
      checkedOn: caliperCheck.checkedOn,
      deviationMm: caliperCheck.deviationMm,
      // The newest check that measured it.
      pressure: sql<
        number | null
      >`(select ${caliperCheck.pressure} from ${caliperCheck} where ${caliperCheck.caliperId} = ${ofRow(caliper.id)} and ${caliperCheck.pressure} is not null order by ${caliperCheck.checkedOn} desc, ${caliperCheck.id} desc limit 1)`,
    })
    .from(caliper)
    .leftJoin(caliperCheck, eq(caliperCheck.caliperId, caliper.id))
    .where(eq(caliper.studioId, who.studioId))
    .orderBy(asc(caliper.name), asc(caliper.id), desc(caliperCheck.checkedOn), desc(caliperCheck.id))
  const corrections = await correctionsOf(db, who)
  return rows
    .filter((row, i) => row.id !== rows[i - 1]?.id)
    .map((row) => ({ ...row, corrections: corrections.get(row.id) ?? [] }))
}

/** Calipers in use, by name, each with its latest check. */
export async function listCalipers(db: Queryable, who: InStudio): Promise<Caliper[]> {
  return (await everyCaliper(db, who)).filter(({ retired }) => !retired).map(({ retired: _, ...one }) => one)
}

/** The register: every caliper with everything that was ever checked. */
export async function registerOf(db: Queryable, who: InStudio): Promise<RegisteredCaliper[]> {
  const all = await everyCaliper(db, who)
  if (all.length === 0) return []
  const ids = all.map(({ id }) => id)
  const kinds = await db
    .select({ id: caliper.id, kind: caliper.kind, jawPressure: caliper.jawPressure, openingMm: caliper.openingMm })
    .from(caliper)
    .where(inArray(caliper.id, ids))
  const checks = await db
    .select({
      caliperId: caliperCheck.caliperId,
      checkedOn: caliperCheck.checkedOn,
      deviationMm: caliperCheck.deviationMm,
      steps: caliperCheck.steps,
      pressure: caliperCheck.pressure,
      by: staff.name,
    })
    .from(caliperCheck)
    .innerJoin(staff, eq(staff.id, caliperCheck.checkedBy))
    .where(inArray(caliperCheck.caliperId, ids))
    .orderBy(asc(caliperCheck.checkedOn), asc(caliperCheck.id))
  return all.flatMap((one) => {
    const kind = kinds.find(({ id }) => id === one.id)
    const own = checks.filter(({ caliperId }) => caliperId === one.id).map(({ caliperId: _, ...check }) => check)
    return kind ? [{ ...one, ...kind, checks: own }] : []
  })
}

/** Adds a caliper under an id made by the device; sending it twice adds one. Throws IdTaken. */
export function addCaliper(tx: Transaction, who: InStudio, input: CaliperInput): Promise<number> {
  const row = { ...input, studioId: who.studioId }
  return storeOnce(tx, caliper, caliper.id, [row], ['studioId', 'name', 'resolutionMm', 'kind'])
}

async function isOwn(tx: Queryable, who: InStudio, caliperId: string): Promise<boolean> {
  const own = await tx
    .select({ id: caliper.id })
    .from(caliper)
    .where(and(eq(caliper.id, caliperId), eq(caliper.studioId, who.studioId)))
  return own.length > 0
}

/** Notes a check of one of the studio's calipers. Null when there is no such caliper here. Throws IdTaken. */
export async function checkCaliper(
  tx: Transaction,
  who: SignedIn,
  caliperId: string,
  input: CaliperCheckInput,
): Promise<number | null> {
  if (!(await isOwn(tx, who, caliperId))) return null
  const row = { ...input, caliperId, checkedBy: who.staffId }
  return storeOnce(tx, caliperCheck, caliperCheck.id, [row], ['caliperId', 'checkedOn', 'deviationMm', 'steps'])
}

/** Puts a caliper away, or takes it out again; what was measured with it stays. False: no such caliper. */
export async function retireCaliper(tx: Transaction, who: InStudio, id: string, retired: boolean): Promise<boolean> {
  const changed = await tx
    .update(caliper)
    .set({ retired })
    .where(and(eq(caliper.id, id), eq(caliper.studioId, who.studioId)))
    .returning({ id: caliper.id })
  return changed.length > 0
}

/** What the newest check with steps offers as a correction; null: none to offer, or no such caliper. */
export async function offeredCorrection(db: Queryable, who: InStudio, caliperId: string) {
  const [check] = await db
    .select({ steps: caliperCheck.steps })
    .from(caliperCheck)
    .innerJoin(caliper, eq(caliper.id, caliperCheck.caliperId))
    .where(
      and(
        eq(caliperCheck.caliperId, caliperId),
        eq(caliper.studioId, who.studioId),
        sql`jsonb_array_length(${caliperCheck.steps}) > 0`,
      ),
    )
    .orderBy(desc(caliperCheck.checkedOn), desc(caliperCheck.id))
    .limit(1)
  return check ? (readBlock(check.steps)?.correction ?? null) : null
}

/** Stores a correction from a day on, or that there is none any more. Throws IdTaken. */
export function addCorrection(
  tx: Transaction,
  who: SignedIn,
  caliperId: string,
  { id, fromDay, correction }: { id: string } & CorrectionRecord,
): Promise<number> {
  const { offsetMm = null, gain = null } = correction ?? {}
  const row = { id, caliperId, fromDay, offsetMm, gain, setBy: who.staffId }
  return storeOnce(tx, caliperCorrection, caliperCorrection.id, [row], ['caliperId', 'fromDay'])
}
