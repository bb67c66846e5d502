import type { Day } from '../../core/calendar'
import {
  BARRED_WORDS,
  barredFrom,
  breachesOf,
  measuredFor,
  runnerOf,
  standingOf,
  winnersOf,
  type Barred,
} from '../../core/challenge'
import { followRecord, type FollowedRecord } from '../../shared/followed-record'
import type { ChallengeFacts, EntryRecord } from '../../shared/schemas/challenge'
import type { Client } from '../../shared/schemas/client'
import { and, inArray } from 'drizzle-orm'
import type { Queryable } from '../db/database'
import { client } from '../db/schema'
import { everyCaliper } from './calipers'
import { listEntries, type StoredChallenge } from './challenges'
import { listCheckins } from './checkins'
import { listChoices } from './choices'
import { findClient, findClients } from './clients'
import { studioNoise } from './studio-noise'
import { seenBy } from './seen-by'
import type { InStudio } from './staff'
import { safetyFactsOf } from './suspensions'
import { listWeighIns } from './weigh-ins'

/** A client's finished check-ins, composed. */
async function recordOf(db: Queryable, who: InStudio, client: Client): Promise<FollowedRecord> {
  return followRecord({
    client,
    checkins: await listCheckins(db, who, client.id),
    calipers: await everyCaliper(db, who),
    choices: await listChoices(db, client.id),
    weighIns: await listWeighIns(db, client.id),
  })
}

/** Why a client may not take part; null: they may. Looks at their newest check-in. */
export async function barredClient(db: Queryable, who: InStudio, client: Client, today: Day): Promise<Barred | null> {
  const facts = await safetyFactsOf(db, who, client.id, today)
  return barredFrom(client, today, facts ?? {})
}

const SEXES = { female: 'Women', male: 'Men' } as const

type Entry = Awaited<ReturnType<typeof listEntries>>[number]

async function entryOf(
  db: Queryable,
  who: InStudio,
  challenge: StoredChallenge,
  entry: Entry,
  today: Day,
): Promise<{ record: EntryRecord; sex: Client['sex']; start: number | null } | null> {
  const client = await findClient(db, { studioId: who.studioId }, entry.clientId)
  if (!client) return null
  const { ends } = await recordOf(db, who, client)
  const measurings = ends.map((end) => ({ ...end.record, end }))
  const { first, last } = measuredFor(measurings, challenge)
  const breaches = first && last ? breachesOf(first, last, entry.at) : []
  const noises = (await studioNoise(db, who)).for(client.id)
  const both = first && last ? ([first.end, last.end] as const) : null
  // Somebody the gate speaks against since they were entered does not count until a coach decides.
  const barred = challenge.closedAt || entry.leftAt ? null : await barredClient(db, who, client, today)
  const runner = both && breaches.length === 0 && !barred ? runnerOf(entry.id, both, challenge.figure, noises) : null
  const started = first?.end.result
  const start = started ? (challenge.figure === 'sum' ? started.sumMm : (started.masses?.fatKg ?? null)) : null
  const { at: _, ...shown } = entry
  const record = {
    ...shown,
    category: '',
    first: first?.day ?? null,
    last: last?.day ?? null,
    breaches,
    suspended: barred && BARRED_WORDS[barred],
    paced: runner !== null && runner.counted < 1,
    runner: runner && { change: runner.change, sd: runner.sd, freedom: runner.freedom, counted: runner.counted },
  }
  return { record, sex: client.sex, start }
}

/** Category of everybody: by sex, or by which half their start lies in; empty where there are none. */
function categorised(
  found: readonly { record: EntryRecord; sex: Client['sex']; start: number | null }[],
  by: StoredChallenge['categories'],
): EntryRecord[] {
  const starts = found.flatMap(({ start }) => start ?? []).sort((a, b) => a - b)
  const middle = starts[Math.floor(starts.length / 2)] ?? 0
  return found.map(({ record, sex, start }) => {
    if (by === 'sex') return { ...record, category: SEXES[sex] }
    if (by === 'start')
      return { ...record, category: start === null ? '' : start < middle ? 'Lower start' : 'Higher start' }
    return record
  })
}

/** Everybody in a challenge with what is known of their change. */
export async function challengeEntries(
  db: Queryable,
  who: InStudio,
  challenge: StoredChallenge,
  today: Day,
): Promise<EntryRecord[]> {
  const found = []
  for (const entry of await listEntries(db, challenge.id)) {
    const one = await entryOf(db, who, challenge, entry, today)
    if (one) found.push(one)
  }
  return categorised(found, challenge.categories)
}

/** Those who take part and whose change counts, by category. */
export function groupsOf(entries: readonly EntryRecord[]): { name: string; entries: EntryRecord[] }[] {
  const running = entries.filter(({ leftAt, runner }) => leftAt === null && runner !== null)
  const names = [...new Set(running.map(({ category }) => category))].sort()
  return names.map((name) => ({ name, entries: running.filter(({ category }) => category === name) }))
}

/** A group's standing. */
export function standingOfGroup(entries: readonly EntryRecord[]) {
  return standingOf(entries.flatMap(({ id, runner }) => (runner ? [{ id, ...runner }] : [])))
}

/** A challenge as its coaches see it. */
export async function findChallengeFacts(
  db: Queryable,
  who: InStudio,
  stored: StoredChallenge,
  today: Day,
): Promise<ChallengeFacts> {
  const entries = await challengeEntries(db, who, stored, today)
  const inIt = new Set(entries.filter(({ leftAt }) => leftAt === null).map(({ clientId }) => clientId))
  // What a check-in says is looked at when they are entered.
  const candidates = (await findClients(db, who, null))
    .filter(({ id }) => !inIt.has(id))
    .map((person) => ({ id: person.id, name: person.name, barred: barredFrom(person, today) }))
  const { drawSeed, ...challenge } = stored
  const winners = drawSeed
    ? groupsOf(entries).flatMap((group) =>
        winnersOf(standingOfGroup(group.entries), challenge.prizeRule, drawSeed + group.name),
      )
    : []
  return { challenge, entries: await maskedFor(db, who, entries), candidates, winners }
}

/** Entries as somebody may see them: of clients they do not see only the change stays, without a name. */
async function maskedFor(db: Queryable, who: InStudio, entries: EntryRecord[]): Promise<EntryRecord[]> {
  const rule = seenBy(who)
  if (!rule) return entries
  const ids = entries.flatMap(({ clientId }) => clientId ?? [])
  const found = await db
    .select({ id: client.id })
    .from(client)
    .where(and(inArray(client.id, ids), rule))
  const seen = new Set(found.map(({ id }) => id))
  return entries.map((entry) => {
    if (entry.clientId !== null && seen.has(entry.clientId)) return entry
    const nobody = { clientId: null, clientName: 'Another coach’s client', alias: '', shownAs: 'hidden' as const }
    return { ...entry, ...nobody, first: null, last: null, breaches: [], suspended: null }
  })
}
