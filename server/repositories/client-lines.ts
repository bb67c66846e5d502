import { and, asc, desc, eq, inArray, isNotNull, isNull, max, sql } from 'drizzle-orm'
import type { Day } from '../../core/calendar'
import type { Change } from '../../core/error'
import { nextDue } from '../../core/schedule'
import { followRecord, spanOfRecord } from '../../shared/followed-record'
import { lookupErrors, type FollowedEnd } from '../../shared/following'
import { isNeutral } from '../../shared/neutral'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import type { Client, ClientFigure, ClientLine } from '../../shared/schemas/client'
import type { AssessorErrors } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { cautionFlag, checkin, client, clientChoice, studio, weighIn } from '../db/schema'
import { usePorts } from '../ports'
import { findErrors } from './assessor-errors'
import { findCheckins } from './checkins'
import { clientColumns } from './clients'
import type { InStudio } from './staff'

/** Clients read at once: keeps the statements small. */
const BATCH = 200

/** What a line needs of a client's facts: composed once, kept until a fact of the client changes. */
interface Followed {
  touchedAt: string
  ends: FollowedEnd[]
  lastCheckinAt: string | null
  lastDay: Day | null
  checkins: number
  openCheckinId: string | null
  neutral: boolean
  /** The line made with these errors. */
  made: { errors: AssessorErrors[]; line: Omit<ClientLine, 'name' | 'birthDate' | 'archived'> } | null
}

/** Composed lines by client. */
const SHELF = 'lines'
const followed = (clientId: string) => usePorts().shelf.get<Followed>(SHELF, clientId)

/** Who is listed. */
interface Listed {
  id: string
  name: string
  birthDate: string
  /** When a fact of theirs last changed, as the database writes it. */
  touchedAt: string
}

/** Who is listed, by name; as one JSON value, because a studio has a thousand of them and every key pressed asks again. */
async function listed(db: Queryable, who: InStudio, archived: boolean): Promise<Listed[]> {
  const all = sql<Listed[] | null>`json_agg(json_build_object(
    'id', ${client.id}, 'name', ${client.name}, 'birthDate', ${client.birthDate}, 'touchedAt', ${client.touchedAt}::text
  ) order by lower(${client.name}), ${client.id})`
  const rows = await db
    .select({ all })
    .from(client)
    .where(and(eq(client.studioId, who.studioId), archived ? isNotNull(client.archivedAt) : isNull(client.archivedAt)))
  return rows[0]?.all ?? []
}

async function lastTwo(db: Queryable, who: InStudio, ids: string[]): Promise<Map<string, CheckinRecord[]>> {
  const ranked = await db
    .select({
      id: checkin.id,
      place: sql<number>`row_number() over (partition by ${checkin.clientId} order by ${checkin.startedAt} desc)`.as(
        'place',
      ),
    })
    .from(checkin)
    .where(and(inArray(checkin.clientId, ids), isNotNull(checkin.finishedAt), isNull(checkin.voidedAt)))
  const newest = ranked.filter(({ place }) => Number(place) <= 2).map(({ id }) => id)
  const byClient = new Map<string, CheckinRecord[]>()
  for (const record of await findCheckins(db, who, newest)) {
    byClient.set(record.clientId, [...(byClient.get(record.clientId) ?? []), record])
  }
  return byClient
}

/** Reads and composes what the lines of these clients need. */
async function follow(db: Queryable, who: InStudio, wanted: readonly { id: string; touchedAt: string }[]) {
  const ids = wanted.map(({ id }) => id)
  const people = await db.select(clientColumns).from(client).where(inArray(client.id, ids))
  const flags = await db.select().from(cautionFlag).where(inArray(cautionFlag.clientId, ids))
  const records = await lastTwo(db, who, ids)
  const counts = await db
    .select({
      clientId: checkin.clientId,
      checkins: sql<number>`count(*)::int`,
      lastAt: sql<string>`max(${checkin.startedAt})`,
      lastDay: max(checkin.day),
      openId: sql<string | null>`min(case when ${checkin.finishedAt} is null then ${checkin.id}::text end)`,
    })
    .from(checkin)
    .where(and(inArray(checkin.clientId, ids), isNull(checkin.voidedAt)))
    .groupBy(checkin.clientId)
  const choices = await db
    .select({ clientId: clientChoice.clientId, choices: clientChoice.choices, at: clientChoice.at })
    .from(clientChoice)
    .where(inArray(clientChoice.clientId, ids))
    .orderBy(desc(clientChoice.at), desc(clientChoice.id))
  const diary = await db
    .select()
    .from(weighIn)
    .where(and(inArray(weighIn.clientId, ids), isNull(weighIn.struckAt)))
    .orderBy(asc(weighIn.day))
  for (const { id, touchedAt } of wanted) {
    const row = people.find((one) => one.id === id)
    if (!row) continue
    const { archivedAt, ...person } = row
    const count = counts.find(({ clientId }) => clientId === id)
    const own = flags.filter(({ clientId }) => clientId === id).map(({ flag }) => flag)
    const { ends } = followRecord({
      checkins: records.get(id) ?? [],
      client: {
        ...person,
        flags: own,
        archived: archivedAt !== null,
      } satisfies Client,
      calipers: [],
      choices: choices.filter(({ clientId }) => clientId === id).map((one) => ({ ...one, by: '' })),
      weighIns: diary.filter(({ clientId }) => clientId === id),
    })
    usePorts().shelf.put(SHELF, id, {
      touchedAt,
      ends,
      lastCheckinAt: count ? new Date(count.lastAt).toISOString() : null,
      lastDay: count?.lastDay ?? null,
      checkins: count?.checkins ?? 0,
      openCheckinId: count?.openId ?? null,
      neutral: isNeutral({ ...person, flags: own }),
      made: null,
    } satisfies Followed)
  }
}

function figure(value: number | undefined, change: Change | null): ClientFigure | null {
  if (value === undefined) return null
  return { value, change: change && { change: change.change, error: change.error, verdict: change.verdict } }
}

function lineOf(id: string, own: Followed, errors: AssessorErrors[]) {
  if (own.made?.errors === errors) return own.made.line
  const lookup = lookupErrors(errors)
  const { span, figures } = spanOfRecord({ ends: own.ends, errors: lookup })
  const line = {
    id,
    lastCheckinAt: own.lastCheckinAt,
    lastDay: own.lastDay,
    checkins: own.checkins,
    openCheckinId: own.openCheckinId,
    neutral: own.neutral,
    fat: own.neutral ? null : figure(figures?.fat?.value, span?.fat ?? null),
    lean: own.neutral ? null : figure(figures?.lean?.value, span?.lean ?? null),
    sum: figure(figures?.sum?.value, span?.sum ?? null),
    nextOn: own.lastDay ? nextDue(own.lastDay) : null,
  }
  own.made = { errors, line }
  return line
}

/**
 * Every client of a studio as a line of the list, by name: last fat, lean and sum with what became of them since the
 * check-in before. Composed lines are kept in memory under the client's `touchedAt`.
 */
export async function clientLines(db: Queryable, who: InStudio, archived: boolean): Promise<ClientLine[]> {
  const people = await listed(db, who, archived)
  const stale = people.filter(({ id, touchedAt }) => followed(id)?.touchedAt !== touchedAt)
  for (let i = 0; i < stale.length; i += BATCH) await follow(db, who, stale.slice(i, i + BATCH))
  const errors = await findErrors(db, who.studioId)
  return people.flatMap(({ id, name, birthDate }): ClientLine[] => {
    const own = followed(id)
    return own ? [{ name, birthDate, archived, ...lineOf(id, own, errors) }] : []
  })
}

/** Composes every line once at start: the first to open a large list should not wait some seconds for it. */
export async function warmClientLines(db: Queryable): Promise<void> {
  for (const { id } of await db.select({ id: studio.id }).from(studio)) await clientLines(db, { studioId: id }, false)
}
