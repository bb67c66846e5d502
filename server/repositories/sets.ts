import { and, asc, eq, isNull, max } from 'drizzle-orm'
import { learnSet } from '../../core/protocols'
import type { SetInput, StudioSet } from '../../shared/schemas/set'
import type { Queryable, Transaction } from '../db/database'
import { staff, studioSet } from '../db/schema'
import { storeOnce } from '../write/same-again'
import type { InStudio, SignedIn } from './staff'

const columns = {
  id: studioSet.id,
  setId: studioSet.setId,
  version: studioSet.version,
  name: studioSet.name,
  sites: studioSet.sites,
  policy: studioSet.policy,
  girthPolicy: studioSet.girthPolicy,
  at: studioSet.at,
}

/** Every version of every set of a studio, oldest first. */
export async function listSets(db: Queryable, { studioId }: InStudio): Promise<StudioSet[]> {
  const rows = await db
    .select({ ...columns, by: staff.name, retiredAt: studioSet.retiredAt })
    .from(studioSet)
    .innerJoin(staff, eq(staff.id, studioSet.madeBy))
    .where(eq(studioSet.studioId, studioId))
    .orderBy(asc(studioSet.at), asc(studioSet.version))
  const newest = new Map(rows.map(({ setId, version }) => [setId, version]))
  return rows.map(({ retiredAt, ...row }) => ({
    ...row,
    offered: retiredAt === null && newest.get(row.setId) === row.version,
  }))
}

/** Makes every set of every studio known to core: check-ins name them, and nothing they say ever changes. */
export async function learnSets(db: Queryable): Promise<void> {
  for (const row of await db.select(columns).from(studioSet)) learnSet(row)
}

/** A set of another studio. */
export class ForeignSet extends Error {
  constructor() {
    super('There is no such set here.')
  }
}

/**
 * Stores a version of a set; sending it twice stores one. Gives how many were new.
 * @throws IdTaken, ForeignSet
 */
export async function addSet(tx: Transaction, who: SignedIn, input: SetInput): Promise<number> {
  const versions = await tx
    .select({ studioId: studioSet.studioId, version: studioSet.version, id: studioSet.id })
    .from(studioSet)
    .where(eq(studioSet.setId, input.setId))
  if (versions.some(({ studioId }) => studioId !== who.studioId)) throw new ForeignSet()
  const known = versions.find(({ id }) => id === input.id)
  const [newest] = await tx
    .select({ version: max(studioSet.version) })
    .from(studioSet)
    .where(eq(studioSet.setId, input.setId))
  const version = known?.version ?? (newest?.version ?? 0) + 1
  const row = { ...input, version, studioId: who.studioId, madeBy: who.staffId }
  const added = await storeOnce(tx, studioSet, studioSet.id, [row], ['setId', 'name', 'sites', 'policy', 'girthPolicy'])
  learnSet(input)
  return added
}

/** Offers a set no longer; check-ins measured by it stay what they are. False when there is none. */
export async function retireSet(tx: Transaction, { studioId }: InStudio, setId: string): Promise<boolean> {
  const retired = await tx
    .update(studioSet)
    .set({ retiredAt: new Date().toISOString() })
    .where(and(eq(studioSet.setId, setId), eq(studioSet.studioId, studioId), isNull(studioSet.retiredAt)))
    .returning({ id: studioSet.id })
  return retired.length > 0
}
