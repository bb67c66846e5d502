import { and, asc, eq, isNull } from 'drizzle-orm'
import type { IntakeRecord, IntakesInput } from '../../shared/schemas/following'
import type { Queryable, Transaction } from '../db/database'
import { intake } from '../db/schema'
import { addByDay } from './by-day'
import type { SignedIn } from './staff'

/** A client's logged days that count, oldest first. */
export async function listIntakes(db: Queryable, clientId: string): Promise<IntakeRecord[]> {
  return db
    .select({ id: intake.id, day: intake.day, kcal: intake.kcal, source: intake.source })
    .from(intake)
    .where(and(eq(intake.clientId, clientId), isNull(intake.struckAt)))
    .orderBy(asc(intake.day))
}

/** Stores days of intake, all or none (see `addByDay`). Gives how many were new. */
export function addIntakes(
  tx: Transaction,
  who: SignedIn,
  clientId: string,
  { intakes }: IntakesInput,
): Promise<number> {
  const rows = intakes.map((one) => ({ ...one, clientId, enteredBy: who.staffId }))
  return addByDay(tx, intake, clientId, rows, ['clientId', 'day', 'kcal', 'source'])
}
