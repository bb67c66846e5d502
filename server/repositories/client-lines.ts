import { and, eq, inArray, sql } from 'drizzle-orm'
import { addDays, localDay, type Day } from '../../core/calendar'
import { driftOf, type Drift, type Move } from '../../core/following'
import { dueOn, nextDate, USUAL_SCHEDULE, type ClientSchedule } from '../../core/schedule'
import { isNeutral } from '../../shared/neutral'
import type { ClientFigure, ClientLine } from '../../shared/schemas/client'
import type { Queryable } from '../db/database'
import { client, studio } from '../db/schema'
import { followed, listed, refresh } from './followed-clients'
import { overallNoise, studioNoise } from './studio-noise'
import { lineOf } from './line-of'
import { seenBy } from './seen-by'
import type { InStudio } from './staff'

/**
 * Every client of a studio as a line of the list, by name: last fat, lean and sum with what became of them since their
 * pinned start. Composed lines are kept in memory under the client's `touchedAt`.
 */
export async function clientLines(db: Queryable, who: InStudio, archived: boolean, today: Day): Promise<ClientLine[]> {
  const people = await listed(db, who, archived)
  await refresh(db, who, people)
  const noise = await studioNoise(db, who)
  return people.flatMap(({ id, name, birthDate }): ClientLine[] => {
    const own = followed(id)
    if (!own) return []
    const next = nextDate(own.lastDay, own.schedule, today)
    const nextOn = own.lastDay === null && next.reason === 'first' ? null : next.day
    const neutral = isNeutral(own.person, today)
    const line = lineOf(id, own, noise)
    return [
      {
        name,
        birthDate,
        archived,
        ...line,
        ...(neutral ? { fat: null, lean: null } : {}),
        neutral,
        nextOn,
        due: dueOn(next, today).due,
      },
    ]
  })
}

/** Composes every line once at start: the first to open a large list should not wait some seconds for it. */
export async function warmClientLines(db: Queryable): Promise<void> {
  for (const { id, zone } of await db.select({ id: studio.id, zone: studio.timeZone }).from(studio))
    await clientLines(db, { studioId: id }, false, localDay(Date.now(), zone))
}

/** What became of some clients since their pinned start, by the figure that leads: the sum, else fat. */
export async function verdictsOf(
  db: Queryable,
  who: InStudio,
  ids: readonly string[],
): Promise<Map<string, { figure: 'sum' | 'fat'; change: ClientFigure['change'] }>> {
  if (ids.length === 0) return new Map()
  const people = await db
    .select({ id: client.id, touchedAt: sql<string>`${client.touchedAt}::text` })
    .from(client)
    .where(and(eq(client.studioId, who.studioId), seenBy(who), inArray(client.id, [...ids])))
  await refresh(db, who, people)
  const noise = await studioNoise(db, who)
  return new Map(
    people.flatMap(({ id }) => {
      const own = followed(id)
      if (!own) return []
      const { sum, fat } = lineOf(id, own, noise)
      const figure = sum ? ('sum' as const) : ('fat' as const)
      return [[id, { figure, change: (sum ?? fat)?.change ?? null }] as const]
    }),
  )
}

/** Everybody who is not archived, with what says when they are measured next: from what is kept of them, without a query more. */
export async function peopleToMeasure(
  db: Queryable,
  who: InStudio,
): Promise<{ clientId: string; clientName: string; lastDay: Day | null; schedule: ClientSchedule }[]> {
  const people = await listed(db, who, false)
  await refresh(db, who, people)
  return people.map(({ id, name }) => ({
    clientId: id,
    clientName: name,
    lastDay: followed(id)?.lastDay ?? null,
    schedule: followed(id)?.schedule ?? USUAL_SCHEDULE,
  }))
}

/** A hand is looked at while its newest check-ins are no older than this, days. */
const DRIFT_DAYS = 84

/** Assessors whose clients, of these, moved together of late: from what is kept of them (`peopleToMeasure` brings it up). */
export async function driftsOf(db: Queryable, who: InStudio, ids: readonly string[], today: Day): Promise<Drift[]> {
  const sum = await overallNoise(db, who)
  const byAssessor = new Map<string, Move[]>()
  for (const id of ids) {
    const move = followed(id)?.move
    if (!move || move.until < addDays(today, -DRIFT_DAYS)) continue
    byAssessor.set(move.assessorId, [...(byAssessor.get(move.assessorId) ?? []), move])
  }
  return [...byAssessor.values()].flatMap((moves) => driftOf(moves, sum) ?? [])
}
