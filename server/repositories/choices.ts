import { desc, eq } from 'drizzle-orm'
import type { ChoiceInput, RecordedChoice } from '../../shared/schemas/following'
import type { Queryable, Transaction } from '../db/database'
import { storeOnce } from '../write/same-again'
import { clientChoice, staff } from '../db/schema'
import type { SignedIn } from './staff'

/** Every choice made for a client, the newest first: that one counts. */
export async function listChoices(db: Queryable, clientId: string): Promise<RecordedChoice[]> {
  return db
    .select({ choices: clientChoice.choices, at: clientChoice.at, by: staff.name })
    .from(clientChoice)
    .innerJoin(staff, eq(staff.id, clientChoice.chosenBy))
    .where(eq(clientChoice.clientId, clientId))
    .orderBy(desc(clientChoice.at), desc(clientChoice.id))
}

/** Records a choice under an id made by the device; sending it twice records one. Throws IdTaken. */
export function addChoice(
  tx: Transaction,
  who: SignedIn,
  clientId: string,
  { id, ...choices }: ChoiceInput,
): Promise<number> {
  const row = { id, clientId, choices, chosenBy: who.staffId }
  return storeOnce(tx, clientChoice, clientChoice.id, [row], ['clientId', 'choices'])
}
