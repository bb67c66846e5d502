import { desc, eq } from 'drizzle-orm'
import type { ChoiceInput, RecordedChoice } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { clientChoice, staff } from '../db/schema'
import type { SignedIn } from './staff'
import { touchClient } from './touch'

/** Every choice made for a client, the newest first: that one counts. */
export async function listChoices(db: Queryable, clientId: string): Promise<RecordedChoice[]> {
  return db
    .select({ choices: clientChoice.choices, at: clientChoice.at, by: staff.name })
    .from(clientChoice)
    .innerJoin(staff, eq(staff.id, clientChoice.chosenBy))
    .where(eq(clientChoice.clientId, clientId))
    .orderBy(desc(clientChoice.at), desc(clientChoice.id))
}

/** Records a choice under an id made by the device; sending it twice records one. */
export async function addChoice(
  db: Queryable,
  who: SignedIn,
  clientId: string,
  { id, ...choices }: ChoiceInput,
): Promise<void> {
  await db
    .insert(clientChoice)
    .values({ id, clientId, choices, chosenBy: who.staffId })
    .onConflictDoNothing({ target: clientChoice.id })
  await touchClient(db, clientId)
}
