import { and, asc, eq, isNull } from 'drizzle-orm'
import type { z } from 'zod'
import { daysBetween } from '../../core/calendar'
import { reachedOf } from '../../core/composition'
import { agreementOf } from '../../core/study'
import { followRecord } from '../../shared/followed-record'
import type { MethodAgreement, OtherRecord, otherInput } from '../../shared/schemas/other-method'
import type { Queryable, Transaction } from '../db/database'
import { client, otherMeasurement, staff } from '../db/schema'
import { storeOnce } from '../write/same-again'
import { everyCaliper } from './calipers'
import { listCheckins } from './checkins'
import { listChoices } from './choices'
import { findClient } from './clients'
import { seenBy } from './seen-by'
import type { InStudio, SignedIn } from './staff'

const columns = {
  id: otherMeasurement.id,
  method: otherMeasurement.method,
  device: otherMeasurement.device,
  day: otherMeasurement.day,
  percent: otherMeasurement.percent,
  told: otherMeasurement.told,
  conditions: otherMeasurement.conditions,
  note: otherMeasurement.note,
  by: staff.name,
}

/** What other methods said of a client, oldest first; what was struck is left out. */
export async function listOther(db: Queryable, clientId: string): Promise<OtherRecord[]> {
  return db
    .select(columns)
    .from(otherMeasurement)
    .innerJoin(staff, eq(staff.id, otherMeasurement.enteredBy))
    .where(and(eq(otherMeasurement.clientId, clientId), isNull(otherMeasurement.struckAt)))
    .orderBy(asc(otherMeasurement.day), asc(otherMeasurement.id))
    .limit(500)
}

/** Notes what another method said; sending it twice notes it once. Throws IdTaken. */
export function addOther(
  tx: Transaction,
  who: SignedIn,
  clientId: string,
  given: z.output<typeof otherInput>,
): Promise<number> {
  const row = { ...given, clientId, enteredBy: who.staffId }
  return storeOnce(
    tx,
    otherMeasurement,
    otherMeasurement.id,
    [row],
    ['clientId', 'method', 'device', 'day', 'percent', 'told', 'conditions'],
  )
}

/** Strikes one: it counts nowhere any more. False when there is none. */
export async function strikeOther(tx: Transaction, clientId: string, id: string): Promise<boolean> {
  const struck = await tx
    .update(otherMeasurement)
    .set({ struckAt: new Date().toISOString() })
    .where(and(eq(otherMeasurement.id, id), eq(otherMeasurement.clientId, clientId), isNull(otherMeasurement.struckAt)))
    .returning({ id: otherMeasurement.id })
  return struck.length > 0
}

/** Days a check-in may lie from another method's day to be held against it. */
export const NEAR_DAYS = 14

/** Each device against the folds, over a studio's clients: the newest pair of everybody within two weeks. */
export async function methodAgreements(db: Queryable, who: InStudio): Promise<MethodAgreement[]> {
  const rows = await db
    .select({ ...columns, clientId: otherMeasurement.clientId })
    .from(otherMeasurement)
    .innerJoin(staff, eq(staff.id, otherMeasurement.enteredBy))
    .innerJoin(client, eq(client.id, otherMeasurement.clientId))
    .where(and(eq(client.studioId, who.studioId), seenBy(who), isNull(otherMeasurement.struckAt)))
    .orderBy(asc(otherMeasurement.day))
    .limit(5000)
  const calipers = await everyCaliper(db, who)
  const percents = new Map<string, { day: string; percent: number }[]>()
  for (const clientId of new Set(rows.map((row) => row.clientId))) {
    const person = await findClient(db, who, clientId)
    if (!person) continue
    const { ends } = followRecord({
      client: person,
      checkins: await listCheckins(db, who, clientId),
      calipers,
      choices: await listChoices(db, clientId),
      weighIns: [],
    })
    percents.set(
      clientId,
      ends.flatMap((end) => {
        const percent = reachedOf(end)?.percent
        return percent === undefined ? [] : [{ day: end.record.day, percent }]
      }),
    )
  }
  const lines = new Map<
    string,
    { method: OtherRecord['method']; device: string; pairs: Map<string, [number, number]> }
  >()
  for (const { clientId, method, device, day, percent } of rows) {
    const near = (percents.get(clientId) ?? [])
      .map((one) => ({ ...one, apart: Math.abs(daysBetween(one.day, day)) }))
      .filter(({ apart }) => apart <= NEAR_DAYS)
      .sort((a, b) => a.apart - b.apart)[0]
    const key = `${method} ${device}`
    const line = lines.get(key) ?? { method, device, pairs: new Map<string, [number, number]>() }
    // Oldest first: the newest of each client stands in the end, so that nobody counts twice.
    if (near) line.pairs.set(clientId, [near.percent, percent])
    lines.set(key, line)
  }
  return [...lines.values()].map(({ method, device, pairs }) => {
    const all = [...pairs.values()]
    return { method, device, clients: all.length, agreement: agreementOf(all), pairs: all }
  })
}
