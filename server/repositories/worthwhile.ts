import { eq, inArray } from 'drizzle-orm'
import type { ClientHistory, WorthwhileInput } from '../../shared/schemas/following'
import type { Queryable, Transaction } from '../db/database'
import { client, studio } from '../db/schema'

/** A client's own smallest changes worth acting on, and the studio's. */
export async function findWorthwhile(db: Queryable, clientId: string): Promise<ClientHistory['worthwhile']> {
  const [row] = await db
    .select({
      own: { fatKg: client.worthwhileFatKg, sumPercent: client.worthwhileSumPercent },
      studio: { fatKg: studio.worthwhileFatKg, sumPercent: studio.worthwhileSumPercent },
    })
    .from(client)
    .innerJoin(studio, eq(studio.id, client.studioId))
    .where(eq(client.id, clientId))
  if (!row) throw new Error('A client that was there is gone.')
  // Both null come back as no object at all.
  return { own: row.own ?? { fatKg: null, sumPercent: null }, studio: row.studio }
}

/** Those of several clients, by their id. */
export async function worthwhileOf(
  db: Queryable,
  ids: readonly string[],
): Promise<Map<string, ClientHistory['worthwhile']>> {
  const rows = await db
    .select({
      id: client.id,
      own: { fatKg: client.worthwhileFatKg, sumPercent: client.worthwhileSumPercent },
      studio: { fatKg: studio.worthwhileFatKg, sumPercent: studio.worthwhileSumPercent },
    })
    .from(client)
    .innerJoin(studio, eq(studio.id, client.studioId))
    .where(inArray(client.id, [...ids]))
  return new Map(
    rows.map(({ id, own, studio: usual }) => [id, { own: own ?? { fatKg: null, sumPercent: null }, studio: usual }]),
  )
}

/** Sets a client's own; null: the studio's. */
export async function setWorthwhile(tx: Transaction, clientId: string, input: WorthwhileInput): Promise<void> {
  await tx
    .update(client)
    .set({ worthwhileFatKg: input.fatKg, worthwhileSumPercent: input.sumPercent })
    .where(eq(client.id, clientId))
}
