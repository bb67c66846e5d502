import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import type { WeighInRecord, WeighInsInput } from '../../shared/schemas/following'
import type { Queryable, Transaction } from '../db/database'
import { storeOnce } from '../write/same-again'
import { weighIn } from '../db/schema'
import type { SignedIn } from './staff'

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
 * Stores weigh-ins, all or none; the same ones again change nothing, also once they have been struck.
 * @returns how many were new
 * @throws DaysTaken when a day holds another weigh-in, IdTaken
 */
export async function addWeighIns(
  tx: Transaction,
  who: SignedIn,
  clientId: string,
  { weighIns }: WeighInsInput,
): Promise<number> {
  const days = weighIns.map(({ day }) => day)
  const held = await tx
    .select({ id: weighIn.id, day: weighIn.day })
    .from(weighIn)
    .where(and(eq(weighIn.clientId, clientId), isNull(weighIn.struckAt), inArray(weighIn.day, days)))
  const known = await tx
    .select({ id: weighIn.id })
    .from(weighIn)
    .where(
      inArray(
        weighIn.id,
        weighIns.map(({ id }) => id),
      ),
    )
  // Those that are there already are compared; only new ones need a free day.
  const isKnown = new Set(known.map(({ id }) => id))
  const wanted = new Set(weighIns.filter(({ id }) => !isKnown.has(id)).map(({ day }) => day))
  const taken = held.filter(({ day }) => wanted.has(day)).map(({ day }) => day)
  if (taken.length > 0) throw new DaysTaken(taken)
  const rows = weighIns.map((one) => ({ ...one, clientId, enteredBy: who.staffId }))
  return storeOnce(tx, weighIn, weighIn.id, rows, ['clientId', 'day', 'value', 'unit', 'dry', 'source'])
}

/** Strikes a weigh-in. False when this client has none with this id. */
export async function strikeWeighIn(tx: Transaction, clientId: string, id: string): Promise<boolean> {
  const struck = await tx
    .update(weighIn)
    .set({ struckAt: new Date().toISOString() })
    .where(and(eq(weighIn.clientId, clientId), eq(weighIn.id, id), isNull(weighIn.struckAt)))
    .returning({ id: weighIn.id })
  return struck.length > 0
}
