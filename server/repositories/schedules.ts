import { asc, desc, eq, inArray } from 'drizzle-orm'
import { USUAL_SCHEDULE, type ClientSchedule } from '../../core/schedule'
import type { ScheduleInput } from '../../shared/schemas/schedule'
import type { Queryable, Transaction } from '../db/database'
import { clientSchedule } from '../db/schema'
import { storeOnce } from '../write/same-again'
import type { SignedIn } from './staff'

/** The schedule that counts for a client. */
export async function findSchedule(db: Queryable, clientId: string): Promise<ClientSchedule> {
  const [row] = await db
    .select({ schedule: clientSchedule.schedule })
    .from(clientSchedule)
    .where(eq(clientSchedule.clientId, clientId))
    .orderBy(desc(clientSchedule.at), desc(clientSchedule.id))
    .limit(1)
  return row?.schedule ?? USUAL_SCHEDULE
}

/** Schedules that count, by client; who is not in it has the usual one. */
export async function findSchedules(db: Queryable, clientIds: readonly string[]): Promise<Map<string, ClientSchedule>> {
  if (clientIds.length === 0) return new Map()
  const rows = await db
    .select({ clientId: clientSchedule.clientId, schedule: clientSchedule.schedule })
    .from(clientSchedule)
    .where(inArray(clientSchedule.clientId, [...clientIds]))
    .orderBy(asc(clientSchedule.at), asc(clientSchedule.id))
  // The newest of each comes last and stands.
  return new Map(rows.map(({ clientId, schedule }) => [clientId, schedule]))
}

/** Keeps a schedule under an id made by the device; sending it twice keeps one. Throws IdTaken. */
export function addSchedule(
  tx: Transaction,
  who: SignedIn,
  clientId: string,
  { id, ...schedule }: ScheduleInput,
): Promise<number> {
  const row = { id, clientId, schedule, setBy: who.staffId }
  return storeOnce(tx, clientSchedule, clientSchedule.id, [row], ['clientId', 'schedule'])
}
