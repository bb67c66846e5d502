import { and, asc, desc, eq, inArray, isNotNull, isNull, max, sql } from 'drizzle-orm'
import type { Day } from '../../core/calendar'
import {
  ASSUMED_NOISES,
  clientEvidence,
  endFigures,
  figureCases,
  judgeCase,
  NO_EVIDENCE,
  StudioNoise,
  type ClientEvidence,
  type FigureCase,
} from '../../core/following'
import { nextDue } from '../../core/schedule'
import { followRecord } from '../../shared/followed-record'
import { isNeutral } from '../../shared/neutral'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import type { Client, ClientFigure, ClientLine } from '../../shared/schemas/client'
import type { NoiseUntil } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { cautionFlag, checkin, client, clientChoice, pinnedStart, studio, weighIn } from '../db/schema'
import { usePorts } from '../ports'
import { findCheckins } from './checkins'
import { clientColumns } from './clients'
import type { InStudio } from './staff'

/** Clients read at once: keeps the statements small. */
const BATCH = 200

/** What a line and its studio's noise need of a client's facts: composed once, kept until a fact of the client changes. */
interface Followed {
  touchedAt: string
  /** What their check-ins say about the studio's noise. */
  evidence: ClientEvidence
  values: Partial<Record<ListFigure, number>>
  /** Figures since the pinned start, ready to be judged. */
  cases: FigureCase[]
  lastCheckinAt: string | null
  lastDay: Day | null
  checkins: number
  openCheckinId: string | null
  neutral: boolean
  /** The line judged with this noise. */
  made: { noise: StudioNoise; line: Omit<ClientLine, 'name' | 'birthDate' | 'archived'> } | null
}

const LIST_FIGURES = ['fat', 'lean', 'sum'] as const
type ListFigure = (typeof LIST_FIGURES)[number]

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

/** Every finished check-in of these clients. */
async function finishedOf(db: Queryable, who: InStudio, ids: string[]): Promise<Map<string, CheckinRecord[]>> {
  const rows = await db
    .select({ id: checkin.id })
    .from(checkin)
    .where(and(inArray(checkin.clientId, ids), isNotNull(checkin.finishedAt), isNull(checkin.voidedAt)))
  const byClient = new Map<string, CheckinRecord[]>()
  const all = rows.map(({ id }) => id)
  for (const record of await findCheckins(db, who, all)) {
    const own = byClient.get(record.clientId)
    if (own) own.push(record)
    else byClient.set(record.clientId, [record])
  }
  return byClient
}

/** Reads and composes what the lines of these clients need. */
async function follow(db: Queryable, who: InStudio, wanted: readonly { id: string; touchedAt: string }[]) {
  const ids = wanted.map(({ id }) => id)
  const people = await db.select(clientColumns).from(client).where(inArray(client.id, ids))
  const flags = await db.select().from(cautionFlag).where(inArray(cautionFlag.clientId, ids))
  const records = await finishedOf(db, who, ids)
  const pins = await db
    .select({ clientId: pinnedStart.clientId, checkinId: pinnedStart.checkinId, at: pinnedStart.at })
    .from(pinnedStart)
    .where(inArray(pinnedStart.clientId, ids))
    .orderBy(desc(pinnedStart.at), desc(pinnedStart.id))
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
    const record = followRecord({
      checkins: records.get(id) ?? [],
      client: {
        ...person,
        flags: own,
        archived: archivedAt !== null,
      } satisfies Client,
      calipers: [],
      choices: choices.filter(({ clientId }) => clientId === id).map((one) => ({ ...one, by: '' })),
      weighIns: diary.filter(({ clientId }) => clientId === id),
      pins: pins.filter(({ clientId }) => clientId === id).map((one) => ({ ...one, by: '' })),
    })
    const { ends, pinned } = record
    const now = ends.at(-1)
    const figures = now && endFigures(now)
    // The list speaks of what was chosen beforehand: nothing yet where the pin stands at the newest check-in.
    const since = ends.slice(Math.max(0, pinned))
    usePorts().shelf.put(SHELF, id, {
      touchedAt,
      evidence: clientEvidence(ends),
      values: Object.fromEntries(LIST_FIGURES.flatMap((one) => (figures?.[one] ? [[one, figures[one].value]] : []))),
      cases: since.length < 2 ? [] : figureCases(since, LIST_FIGURES),
      lastCheckinAt: count ? new Date(count.lastAt).toISOString() : null,
      lastDay: count?.lastDay ?? null,
      checkins: count?.checkins ?? 0,
      openCheckinId: count?.openId ?? null,
      neutral: isNeutral({ ...person, flags: own }),
      made: null,
    } satisfies Followed)
  }
}

function lineOf(id: string, own: Followed, noise: StudioNoise) {
  if (own.made?.noise === noise) return own.made.line
  const noises = own.cases.length > 0 ? noise.for(id, own.lastDay ?? undefined) : ASSUMED_NOISES
  const figure = (one: ListFigure): ClientFigure | null => {
    const found = own.cases.find((each) => each.figure === one)
    const change = found && judgeCase(found, noises)
    // Weighed as the span weighs it, where there is one.
    const value = change?.now ?? own.values[one]
    if (value === undefined) return null
    if (!change) return { value, change: null }
    const { low, high, odds, verdict } = change
    return { value, change: { change: change.change, low, high, odds, verdict, since: found.days[0] ?? '' } }
  }
  const line = {
    id,
    lastCheckinAt: own.lastCheckinAt,
    lastDay: own.lastDay,
    checkins: own.checkins,
    openCheckinId: own.openCheckinId,
    neutral: own.neutral,
    fat: own.neutral ? null : figure('fat'),
    lean: own.neutral ? null : figure('lean'),
    sum: figure('sum'),
    nextOn: own.lastDay ? nextDue(own.lastDay) : null,
  }
  own.made = { noise, line }
  return line
}

/** Brings what is kept of these clients up to their facts. */
async function refresh(db: Queryable, who: InStudio, people: readonly Listed[]): Promise<void> {
  const stale = people.filter(({ id, touchedAt }) => followed(id)?.touchedAt !== touchedAt)
  for (let i = 0; i < stale.length; i += BATCH) await follow(db, who, stale.slice(i, i + BATCH))
}

/** The noise a studio is judged by stands this long: a line is not judged anew because somebody else was measured. */
const KEEP_MS = 10 * 60 * 1000

interface KeptNoise {
  at: number
  noise: StudioNoise
}

/** What a studio's check-ins say about its noise, of clients who are there and of those who have gone. */
export async function studioNoise(db: Queryable, who: InStudio, now = Date.now()): Promise<StudioNoise> {
  const { shelf } = usePorts()
  const known = shelf.get<KeptNoise>('noise', who.studioId)
  if (known && now - known.at < KEEP_MS) return known.noise
  const everybody = [...(await listed(db, who, false)), ...(await listed(db, who, true))]
  await refresh(db, who, everybody)
  const noise = new StudioNoise(new Map(everybody.map(({ id }) => [id, followed(id)?.evidence ?? NO_EVIDENCE])))
  shelf.put('noise', who.studioId, { at: now, noise } satisfies KeptNoise)
  return noise
}

/** Times of a record a noise is given for, at most: a look is judged by what was known then. */
const MOST_TIMES = 6

/** Noises for one client at days of their record, learnt from the others until then; oldest first. */
export async function noisesFor(
  db: Queryable,
  who: InStudio,
  clientId: string,
  days: readonly Day[],
): Promise<NoiseUntil[]> {
  const noise = await studioNoise(db, who)
  const last = days.length - 1
  const count = Math.min(MOST_TIMES, last)
  const places = Array.from({ length: Math.max(0, count) }, (_, i) =>
    Math.round(last - (i * (last - 1)) / Math.max(1, count - 1)),
  )
  const times = new Set(places.map((place) => days[place] ?? ''))
  return [...times].sort().map((until) => ({ until, noises: noise.for(clientId, until) }))
}

/**
 * Every client of a studio as a line of the list, by name: last fat, lean and sum with what became of them since their
 * pinned start. Composed lines are kept in memory under the client's `touchedAt`.
 */
export async function clientLines(db: Queryable, who: InStudio, archived: boolean): Promise<ClientLine[]> {
  const people = await listed(db, who, archived)
  await refresh(db, who, people)
  const noise = await studioNoise(db, who)
  return people.flatMap(({ id, name, birthDate }): ClientLine[] => {
    const own = followed(id)
    return own ? [{ name, birthDate, archived, ...lineOf(id, own, noise) }] : []
  })
}

/** Composes every line once at start: the first to open a large list should not wait some seconds for it. */
export async function warmClientLines(db: Queryable): Promise<void> {
  for (const { id } of await db.select({ id: studio.id }).from(studio)) await clientLines(db, { studioId: id }, false)
}
