import { and, asc, eq, gte } from 'drizzle-orm'
import { subYears } from 'date-fns'
import type { z } from 'zod'
import type { DrillRound, drillRoundInput } from '../../shared/schemas/drill'
import type { Queryable, Transaction } from '../db/database'
import { drillRound } from '../db/schema'
import { storeOnce } from '../write/same-again'
import type { SignedIn } from './staff'

/** Somebody's rounds of the last year, oldest first. */
export async function listRounds(db: Queryable, staffId: string): Promise<DrillRound[]> {
  return db
    .select({ drill: drillRound.drill, level: drillRound.level, score: drillRound.score, at: drillRound.at })
    .from(drillRound)
    .where(and(eq(drillRound.staffId, staffId), gte(drillRound.at, subYears(Date.now(), 1).toISOString())))
    .orderBy(asc(drillRound.at), asc(drillRound.id))
    .limit(2000)
}

/** Keeps a round; sending it twice keeps one. Throws IdTaken. */
export function addRound(tx: Transaction, who: SignedIn, round: z.output<typeof drillRoundInput>): Promise<number> {
  const row = { ...round, staffId: who.staffId }
  return storeOnce(tx, drillRound, drillRound.id, [row], ['staffId', 'drill', 'level', 'score'])
}
