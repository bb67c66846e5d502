import { and, asc, eq, isNull } from 'drizzle-orm'
import type { WeighInRecord, WeighInsInput } from '../../shared/schemas/following'
import type { Queryable, Transaction } from '../db/database'
import { weighIn } from '../db/schema'
import { addByDay } from './by-day'
import type { SignedIn } from './staff'

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

/** Stores weigh-ins, all or none (see `addByDay`). Gives how many were new. */
export function addWeighIns(
  tx: Transaction,
  who: SignedIn,
  clientId: string,
  { weighIns }: WeighInsInput,
): Promise<number> {
  const rows = weighIns.map((one) => ({ ...one, clientId, enteredBy: who.staffId }))
  return addByDay(tx, weighIn, clientId, rows, ['clientId', 'day', 'value', 'unit', 'dry', 'source'])
}
