import { and, eq, inArray, isNull } from 'drizzle-orm'
import type { Transaction } from '../db/database'
import { intake, weighIn } from '../db/schema'
import { storeOnce } from '../write/same-again'

/** Facts of which a day holds one: what of them cannot be stored, with the days that hold one already. */
export class DaysTaken extends Error {
  constructor(
    readonly days: string[],
    what: string,
  ) {
    super(`These days hold ${what} already: ${days.join(', ')}.`)
  }
}

const WHAT = { weigh_in: 'a weigh-in', intake: 'an intake' } as const

/** Facts of which a client has one a day; a wrong one is struck. */
type ByDay = typeof weighIn | typeof intake

/**
 * Stores facts, one a day, all or none; the same ones again change nothing, also once they have been struck.
 * @returns how many were new
 * @throws DaysTaken when a day holds another one, IdTaken
 */
export async function addByDay<Table extends ByDay>(
  tx: Transaction,
  table: Table,
  clientId: string,
  rows: readonly Table['$inferInsert'][],
  fact: readonly (keyof Table['$inferSelect'] & string)[],
): Promise<number> {
  const plain: ByDay = table
  const days = rows.map(({ day }) => day)
  const ids = rows.map(({ id }) => id)
  const held = await tx
    .select({ id: plain.id, day: plain.day })
    .from(plain)
    .where(and(eq(plain.clientId, clientId), isNull(plain.struckAt), inArray(plain.day, days)))
  const known = await tx.select({ id: plain.id }).from(plain).where(inArray(plain.id, ids))
  // Those that are there already are compared; only new ones need a free day.
  const isKnown = new Set(known.map(({ id }) => id))
  const wanted = new Set(rows.filter(({ id }) => !isKnown.has(id)).map(({ day }) => day))
  const taken = held.filter(({ day }) => wanted.has(day)).map(({ day }) => day)
  if (taken.length > 0) throw new DaysTaken(taken, plain === weighIn ? WHAT.weigh_in : WHAT.intake)
  return storeOnce(tx, table, plain.id, rows as never, fact as never)
}

/** Strikes one. False when this client has none with this id. */
export async function strikeByDay(tx: Transaction, table: ByDay, clientId: string, id: string): Promise<boolean> {
  const struck = await tx
    .update(table)
    .set({ struckAt: new Date().toISOString() })
    .where(and(eq(table.clientId, clientId), eq(table.id, id), isNull(table.struckAt)))
    .returning({ id: table.id })
  return struck.length > 0
}
