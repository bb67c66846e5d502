import { desc, eq } from 'drizzle-orm'
import type { ReminderRecord, RemindersInput } from '../../shared/schemas/link'
import type { Queryable, Transaction } from '../db/database'
import { reminderChoice } from '../db/schema'
import { storeOnce } from '../write/same-again'

/** Nobody is reminded of anything before somebody says so; a week is handed in on Sundays. */
export const NO_REMINDERS: ReminderRecord = { email: null, visits: false, handIns: false, handInWeekday: 7 }

/** What a client is reminded of, and where. */
export async function findReminders(db: Queryable, clientId: string): Promise<ReminderRecord> {
  const [row] = await db
    .select({
      email: reminderChoice.email,
      visits: reminderChoice.visits,
      handIns: reminderChoice.handIns,
      handInWeekday: reminderChoice.handInWeekday,
    })
    .from(reminderChoice)
    .where(eq(reminderChoice.clientId, clientId))
    .orderBy(desc(reminderChoice.at), desc(reminderChoice.id))
    .limit(1)
  return row ?? NO_REMINDERS
}

/** Keeps what a client is reminded of from now on. `setBy` null: the client. Throws IdTaken. */
export function setReminders(
  tx: Transaction,
  clientId: string,
  setBy: string | null,
  input: RemindersInput,
): Promise<number> {
  const fact = ['clientId', 'email', 'visits', 'handIns', 'handInWeekday'] as const
  return storeOnce(tx, reminderChoice, reminderChoice.id, [{ ...input, clientId, setBy }], fact)
}
