import { inArray, isNull, or, type SQL } from 'drizzle-orm'
import { client } from '../db/schema'
import type { InStudio } from './staff'

/** Whose clients somebody sees: everybody's, or those of these coaches and of nobody. */
export type Sees = 'all' | readonly string[]

/** Keeps a question about clients to those somebody may see (a studio's rule). */
export function seenBy({ sees = 'all' }: Pick<InStudio, 'sees'>): SQL | undefined {
  return sees === 'all' ? undefined : or(isNull(client.coachId), inArray(client.coachId, [...sees]))
}
