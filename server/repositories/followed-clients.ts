import type { Caliper } from '../../shared/schemas/caliper'
import type { KnownHand } from '../../core/error'
import { and, asc, desc, eq, inArray, isNotNull, isNull, max, sql } from 'drizzle-orm'
import type { Day } from '../../core/calendar'
import type { CautionPerson } from '../../core/cautions'
import {
  clientEvidence,
  endFigures,
  figureCases,
  moveOf,
  partsEvidence,
  type StudioNoise,
  type ClientEvidence,
  type Worthwhile,
  type PartsEvidence,
  type FigureCase,
  type Move,
} from '../../core/following'
import { USUAL_SCHEDULE, type ClientSchedule } from '../../core/schedule'
import { followRecord } from '../../shared/followed-record'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import type { Client, ClientLine } from '../../shared/schemas/client'
import type { NoiseUntil } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { cautionFlag, checkin, client, clientChoice, pinnedStart, weighIn } from '../db/schema'
import { usePorts } from '../ports'
import { keptSafety, type KeptSafety } from './kept-safety'
import { plansUnderWay } from './plans'
import { findCheckins } from './checkins'
import { clientColumns } from './clients'
import { findSchedules } from './schedules'
import { seenBy } from './seen-by'
import type { InStudio } from './staff'
import { everyCaliper } from './calipers'
import { findStudied } from './study-facts'
import { isVisit } from './visits'
import { worthwhileOf } from './worthwhile'

/** Clients read at once: keeps the statements small. */
const BATCH = 200

/** What a line and its studio's noise need of a client's facts: composed once, kept until a fact of the client changes. */
export interface Followed {
  touchedAt: string
  /** Studies and corrections its cases know of. */
  instruments: string
  /** What their check-ins say about the studio's noise. */
  evidence: ClientEvidence
  /** And about where error comes from. */
  parts: PartsEvidence
  values: Partial<Record<ListFigure, number>>
  /** Figures since the pinned start, ready to be judged. */
  cases: FigureCase[]
  /** How far they moved in the hands of who measured them last. */
  move: Move | null
  lastCheckinAt: string | null
  lastDay: Day | null
  checkins: number
  openCheckinId: string | null
  /** Whether they see numbers depends on the day: by their age. */
  person: CautionPerson
  /** What the gate asks about them, at the newest check-in. */
  safety: KeptSafety
  /** Cadence, pause and days that do not move. */
  schedule: ClientSchedule
  /** Share of the budget the start of the cases has. */
  share: number
  worthwhile: Worthwhile
  /** Days of the finished check-ins, oldest first. */
  days: Day[]
  /** The line judged with a noise: of the one in use, and of the next one while it is made ready. */
  made: Map<StudioNoise, MadeLine>
  /** What the page is told of the noise in use, as long as the check-ins are the same. */
  told: { noise: StudioNoise; noises: NoiseUntil[] } | null
}

/** A line of the list, but for what hangs on the day. */
export type MadeLine = Omit<ClientLine, 'name' | 'birthDate' | 'archived' | 'nextOn' | 'due' | 'neutral'>

export const LIST_FIGURES = ['fat', 'lean', 'sum'] as const
export type ListFigure = (typeof LIST_FIGURES)[number]

/** Composed lines by client. */
const SHELF = 'lines'
/** What is kept of a client; undefined before `refresh`. */
export const followed = (clientId: string) => usePorts().shelf.get<Followed>(SHELF, clientId)

/** Who is listed. */
export interface Listed {
  id: string
  name: string
  birthDate: string
  /** When a fact of theirs last changed, as the database writes it. */
  touchedAt: string
}

/** Who is listed, by name; as one JSON value, because a studio has a thousand of them and every key pressed asks again. */
export async function listed(db: Queryable, who: InStudio, archived: boolean): Promise<Listed[]> {
  const all = sql<Listed[] | null>`json_agg(json_build_object(
    'id', ${client.id}, 'name', ${client.name}, 'birthDate', ${client.birthDate}, 'touchedAt', ${client.touchedAt}::text
  ) order by lower(${client.name}), ${client.id})`
  const rows = await db
    .select({ all })
    .from(client)
    .where(
      and(
        eq(client.studioId, who.studioId),
        seenBy(who),
        archived ? isNotNull(client.archivedAt) : isNull(client.archivedAt),
      ),
    )
  return rows[0]?.all ?? []
}

/** Every finished check-in of these clients. */
async function finishedOf(db: Queryable, who: InStudio, ids: string[]): Promise<Map<string, CheckinRecord[]>> {
  const rows = await db
    .select({ id: checkin.id })
    .from(checkin)
    .where(and(inArray(checkin.clientId, ids), isNotNull(checkin.finishedAt), isVisit))
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
    .where(and(inArray(checkin.clientId, ids), isVisit))
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
  const schedules = await findSchedules(db, ids)
  const plans = await plansUnderWay(db, ids)
  const { hands } = await findStudied(db, who.studioId)
  const calipers = await everyCaliper(db, who)
  const smallest = await worthwhileOf(db, ids)
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
      calipers,
      choices: choices.filter(({ clientId }) => clientId === id).map((one) => ({ ...one, by: '' })),
      weighIns: diary.filter(({ clientId }) => clientId === id),
      hands,
      pins: pins.filter(({ clientId }) => clientId === id).map((one) => ({ ...one, by: '' })),
      ...(smallest.has(id) ? { worthwhile: smallest.get(id) } : {}),
    })
    const { ends, pinned, pinnedShare, worthwhile } = record
    const now = ends.at(-1)
    const figures = now && endFigures(now)
    // The list speaks of what was chosen beforehand: nothing yet where the pin stands at the newest check-in.
    const since = ends.slice(Math.max(0, pinned))
    usePorts().shelf.put(SHELF, id, {
      touchedAt,
      instruments: instrumentsOf(hands, calipers),
      evidence: clientEvidence(ends),
      parts: partsEvidence(ends),
      values: Object.fromEntries(LIST_FIGURES.flatMap((one) => (figures?.[one] ? [[one, figures[one].value]] : []))),
      cases: since.length < 2 ? [] : figureCases(since, LIST_FIGURES),
      move: moveOf(ends),
      lastCheckinAt: count ? new Date(count.lastAt).toISOString() : null,
      lastDay: count?.lastDay ?? null,
      checkins: count?.checkins ?? 0,
      openCheckinId: count?.openId ?? null,
      schedule: schedules.get(id) ?? USUAL_SCHEDULE,
      person: { ...person, flags: own },
      safety: keptSafety(ends, {
        person: { ...person, flags: own },
        flags: flags.filter(({ clientId }) => clientId === id),
        plan: plans.find(({ clientId }) => clientId === id) ?? null,
      }),
      share: pinnedShare,
      worthwhile,
      days: ends.map((end) => end.record.day),
      made: new Map(),
      told: null,
    } satisfies Followed)
  }
}

/** Which studies' findings and which corrections some cases were made with. */
function instrumentsOf(hands: readonly KnownHand[], calipers: readonly Caliper[]): string {
  return JSON.stringify([hands.map(({ studyId }) => studyId), calipers.map(({ corrections }) => corrections)])
}

/** Brings what is kept of these clients up to their facts. */
export async function refresh(
  db: Queryable,
  who: InStudio,
  people: readonly Pick<Listed, 'id' | 'touchedAt'>[],
): Promise<void> {
  const instruments = instrumentsOf((await findStudied(db, who.studioId)).hands, await everyCaliper(db, who))
  const stale = people.filter(({ id, touchedAt }) => {
    const kept = followed(id)
    return kept?.touchedAt !== touchedAt || kept.instruments !== instruments
  })
  for (let i = 0; i < stale.length; i += BATCH) await follow(db, who, stale.slice(i, i + BATCH))
}
