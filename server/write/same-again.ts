import { eq, getTableColumns, sql, type InferInsertModel, type InferSelectModel } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Transaction } from '../db/database'

/** Facts whose ids are taken by others: nothing of what came with them is stored. */
export class IdTaken extends Error {
  constructor(readonly ids: readonly string[]) {
    super('Something else is stored under this id already. What was sent is not stored.')
  }
}

/** Whether two values of a fact say the same. */
export function alike(a: unknown, b: unknown): boolean {
  if (a === b || ((a ?? null) === null && (b ?? null) === null)) return true
  if (typeof a === 'string' && typeof b === 'string') return sameInstant(a, b)
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b) return false
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((key) => alike((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
}

/** Instants are kept to the millisecond: two ways of writing one are the same. */
function sameInstant(a: string, b: string): boolean {
  return /^\d{4}-\d\d-\d\dT/.test(a) && /^\d{4}-\d\d-\d\dT/.test(b) && Date.parse(a) === Date.parse(b)
}

/**
 * Stores facts under ids made by a device. The same fact under the same id again is stored already and is no error;
 * anything else under an id that is taken, here or elsewhere, refuses all of them.
 * @returns how many were new
 * @throws IdTaken
 */
export async function storeOnce<Table extends PgTable>(
  tx: Transaction,
  table: Table,
  id: PgColumn,
  facts: readonly InferInsertModel<Table>[],
  /** The columns that make the fact: whether what is stored is what was sent. */
  fact: readonly (keyof InferSelectModel<Table> & string)[],
): Promise<number> {
  if (facts.length === 0) return 0
  const sent = facts as readonly Record<string, unknown>[]
  const plain: PgTable = table
  const fresh = await tx
    .insert(plain)
    .values(sent as Record<string, never>[])
    .onConflictDoNothing({ target: id })
    .returning({ id: sql<string>`${id}` })
  if (fresh.length === facts.length) return fresh.length
  const added = new Set(fresh.map((row) => row.id))
  const key = Object.entries(getTableColumns(plain)).find(([, column]) => column.name === id.name)?.[0] ?? 'id'
  const taken: string[] = []
  for (const [i, one] of sent.entries()) {
    const own = String(one[key])
    // The first of a kind in this delivery is the one that was stored.
    if (added.has(own) && sent.findIndex((other) => other[key] === own) === i) continue
    const [stored] = (await tx.select().from(plain).where(eq(id, own))) as Record<string, unknown>[]
    if (!stored || !fact.every((name) => alike(stored[name], one[name]))) taken.push(own)
  }
  if (taken.length > 0) throw new IdTaken(taken)
  return added.size
}
