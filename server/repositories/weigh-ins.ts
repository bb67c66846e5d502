import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import type { WeighInRecord, WeighInsInput } from '../../shared/schemas/following'
import type { Database, Queryable } from '../db/database'
import { weighIn } from '../db/schema'
import type { SignedIn } from './staff'
import { touchClient } from './touch'

/** Weigh-ins that cannot be stored, with the days that hold one already. */
export class DaysTaken extends Error {
  constructor(readonly days: string[]) {
    super(`These days hold a weigh-in already: ${days.join(', ')}.`)
  }
}

/** A client's weigh-ins that count, oldest first. */
export async function listWeighIns(db: Queryable, clientId: string): Promise<WeighInRecord[]> {
  return db
    .select({
      id: weighIn.id,
      day: weighIn.day,
      value: weighIn.value,
      unit: weighIn.unit,
      dry: weighIn.dry,
      source: weighIn.source,
    })
    .from(weighIn)
    .where(and(eq(weighIn.clientId, clientId), isNull(weighIn.struckAt)))
    .orderBy(asc(weighIn.day))
}

/**
 * Stores weigh-ins, all or none; the same ones again change nothing.
 * @throws DaysTaken when a day holds another weigh-in
 */
export async function addWeighIns(
  db: Database,
  who: SignedIn,
  clientId: string,
  { weighIns }: WeighInsInput,
): Promise<void> {
  await db.transaction(async (tx) => {
    const days = weighIns.map(({ day }) => day)
    const held = await tx
      .select({ id: weighIn.id, day: weighIn.day })
      .from(weighIn)
      .where(and(eq(weighIn.clientId, clientId), isNull(weighIn.struckAt), inArray(weighIn.day, days)))
    const ids = new Set(weighIns.map(({ id }) => id))
    const taken = held.filter(({ id }) => !ids.has(id)).map(({ day }) => day)
    if (taken.length > 0) throw new DaysTaken(taken)
    await tx
      .insert(weighIn)
      .values(weighIns.map((one) => ({ ...one, clientId, enteredBy: who.staffId })))
      .onConflictDoNothing({ target: weighIn.id })
    await touchClient(tx, clientId)
  })
}

/** Strikes a weigh-in. False when this client has none with this id. */
export async function strikeWeighIn(db: Queryable, clientId: string, id: string): Promise<boolean> {
  const struck = await db
    .update(weighIn)
    .set({ struckAt: new Date().toISOString() })
    .where(and(eq(weighIn.clientId, clientId), eq(weighIn.id, id), isNull(weighIn.struckAt)))
    .returning({ id: weighIn.id })
  await touchClient(db, clientId)
  return struck.length > 0
}
