import { addDays, addMinutes, setHours, startOfDay, subDays } from 'date-fns'
import { and, asc, desc, eq, isNotNull, isNull, like } from 'drizzle-orm'
import { localDay } from '../../core/calendar'
import type { DrillId } from '../../core/drills'
import { PROTOCOLS } from '../../core/protocols'
import { seededRandom, simulatePeople, simulateTurn, type Random, type SimulatedPen } from '../../core/simulate'
import { orderFor } from '../../core/study'
import type { Database } from './database'
import { DEMO_ZONE } from './seed-demo'
import {
  caliper,
  caliperCheck,
  checkin,
  client,
  drillRound,
  otherMeasurement,
  reading,
  staff,
  study,
  studyPen,
  studyPerson,
  studyTurn,
  trainingPlan,
} from './schema'

const SEED = 20261127
const PROTOCOL = PROTOCOLS['laboratory-7']
const MINUTES_A_TURN = 9

/** How the two coaches measure: invented. The second reads folds a little deeper, and marks less surely. */
const HANDS = {
  runa: { bias: 0, reading: 0.03, mark: 0.025 },
  ivo: { bias: 0.05, reading: 0.045, mark: 0.05 },
} as const

interface DemoStudy {
  id: string
  studioId: string
  name: string
  kind: 'repeat' | 'assessors'
  pens: SimulatedPen[]
  people: string[]
  daysAgo: number
  /** Turns measured so far; all of them: it is closed. */
  turns: number
}

/** Writes a study with its turns, as measured on an afternoon. */
async function seedStudy(db: Database, random: Random, now: Date, made: DemoStudy): Promise<void> {
  const { id, kind, pens, people } = made
  const start = setHours(startOfDay(subDays(now, made.daysAgo)), 15)
  const wanted = people.length * (kind === 'repeat' ? 2 : pens.length)
  const closed = made.turns >= wanted
  const penIds = pens.map(() => random.uuid())
  await db.insert(study).values({
    id,
    studioId: made.studioId,
    name: made.name,
    kind,
    protocolId: PROTOCOL.id,
    sites: [...PROTOCOL.sites],
    referencePenId: penIds[0] ?? id,
    madeBy: pens[0]?.id ?? '',
    at: subDays(start, 3).toISOString(),
    closedAt: closed ? addMinutes(start, 400).toISOString() : null,
    closedOn: closed ? localDay(start, DEMO_ZONE) : null,
  })
  const agreedOn = localDay(subDays(start, 3), DEMO_ZONE)
  await db
    .insert(studyPen)
    .values(pens.map((pen, place) => ({ id: penIds[place] ?? '', studyId: id, place, staffId: pen.id, agreedOn })))
  const bodies = simulatePeople(random, people.length, PROTOCOL)
  const inIt = people.map((clientId, place) => ({ id: random.uuid(), studyId: id, clientId, place }))
  await db.insert(studyPerson).values(inIt)
  // Everybody's first turn, then everybody's second: the marks have gone by then.
  const order = [0, 1].flatMap((turn) =>
    inIt.map((person, i) => ({
      person,
      body: bodies[i] ?? {},
      turn,
      pen: kind === 'repeat' ? 0 : (orderFor(i, 2)[turn] ?? 0),
    })),
  )
  for (const [i, { person, body, turn, pen }] of order.slice(0, made.turns).entries()) {
    const startedAt = addMinutes(start, i * MINUTES_A_TURN)
    const hand = pens[pen]
    if (!hand) continue
    const { readings } = simulateTurn(random, { protocol: PROTOCOL, person: body, pen: hand, startedAt })
    const checkinId = random.uuid()
    await db.insert(checkin).values({
      id: checkinId,
      clientId: person.clientId,
      protocolId: PROTOCOL.id,
      side: 'right',
      startedBy: hand.id,
      assessorId: hand.id,
      studyId: id,
      startedAt: startedAt.toISOString(),
      day: localDay(startedAt, DEMO_ZONE),
      finishedAt: addMinutes(startedAt, MINUTES_A_TURN - 1).toISOString(),
    })
    await db.insert(reading).values(readings.map((one) => ({ ...one, checkinId, takenBy: hand.id })))
    const trial = kind === 'repeat' && turn === 1 ? 2 : 1
    await db.insert(studyTurn).values({ checkinId, studyId: id, personId: person.id, penId: penIds[pen] ?? '', trial })
  }
}

/** How often each coach has played which drill, where they began and where they are: invented. */
const PLAYED: readonly { drill: DrillId; by: 0 | 1; rounds: number; from: number; to: number; scatter: number }[] = [
  { drill: 'find-site', by: 0, rounds: 26, from: 2.1, to: 0.7, scatter: 0.45 },
  { drill: 'read-dial', by: 0, rounds: 18, from: 1.4, to: 0.5, scatter: 0.35 },
  { drill: 'count', by: 0, rounds: 30, from: 0.55, to: 0.16, scatter: 0.13 },
  { drill: 'call-write', by: 0, rounds: 8, from: 70, to: 94, scatter: 8 },
  { drill: 'find-site', by: 1, rounds: 12, from: 2.6, to: 1.3, scatter: 0.5 },
  { drill: 'count', by: 1, rounds: 9, from: 0.7, to: 0.35, scatter: 0.16 },
]

async function seedDrills(db: Database, random: Random, now: Date, staffIds: readonly string[]): Promise<void> {
  const rounds = PLAYED.flatMap(({ drill, by, rounds: count, from, to, scatter }) =>
    Array.from({ length: count }, (_, i) => {
      const share = i / (count - 1)
      const score = from + (to - from) * (1 - (1 - share) ** 2) + scatter * random.normal() * (1 - share / 2)
      return {
        id: random.uuid(),
        staffId: staffIds[by] ?? '',
        drill,
        level: 1 + Math.floor(share * 2.5),
        score: Math.min(drill === 'call-write' ? 100 : 1000, Math.max(0.02, Math.round(score * 100) / 100)),
        at: subDays(now, Math.round((count - i) * 1.7)).toISOString(),
      }
    }),
  )
  await db.insert(drillRound).values(rounds)
}

/** What the travel caliper read on the block over the years, mm: it wears, evenly. */
const WORN = [
  { daysAgo: 780, steps: [0.1, 10.1, 20.2, 30.2, 40.1] },
  { daysAgo: 430, steps: [0.4, 10.5, 20.6, 30.6, 40.7] },
]

async function seedChecks(db: Database, random: Random, now: Date, staffId: string): Promise<void> {
  const [worn] = await db.select({ id: caliper.id }).from(caliper).where(like(caliper.name, 'Travel%'))
  if (!worn) return
  await db.update(caliper).set({ kind: 'plastic', openingMm: 60 }).where(eq(caliper.id, worn.id))
  await db.insert(caliperCheck).values(
    WORN.map(({ daysAgo, steps }) => ({
      id: random.uuid(),
      caliperId: worn.id,
      checkedOn: localDay(subDays(now, daysAgo + 1), DEMO_ZONE),
      deviationMm: Math.max(...steps.map((read, i) => Math.round(10 * (read - 10 * i)) / 10)),
      steps: steps.map((readMm, i) => ({ blockMm: 10 * i, readMm })),
      checkedBy: staffId,
    })),
  )
}

/** What the club's scale said of some, percent: invented. */
const SCALE = [
  { name: 'Maren Osk', percents: [27.4, 26.8, 26.1] },
  { name: 'Tobin Hale', percents: [19.8, 20.3] },
  { name: 'Petra Lindqvane', percents: [30.2, 29.7] },
  { name: 'Oskar Brandeth', percents: [24.1] },
] as const

async function seedScale(db: Database, random: Random, now: Date, staffId: string): Promise<void> {
  const people = await db.select({ id: client.id, name: client.name }).from(client)
  const visits = await db
    .select({ clientId: checkin.clientId, day: checkin.day })
    .from(checkin)
    .where(and(isNotNull(checkin.finishedAt), isNull(checkin.studyId)))
    .orderBy(desc(checkin.day))
  const rows = SCALE.flatMap(({ name, percents }) => {
    const person = people.find((one) => one.name === name)
    const days = visits.filter(({ clientId }) => clientId === person?.id).map(({ day }) => day)
    return [...percents].reverse().flatMap((percent, i) =>
      person && days[2 * i]
        ? [
            {
              id: random.uuid(),
              clientId: person.id,
              method: 'bia-hand-foot' as const,
              device: 'Scale by the boathouse door',
              day: days[2 * i] ?? localDay(now, DEMO_ZONE),
              percent,
              told: { visceral: 5, water: 54.2 },
              conditions: { hydration: 'usual', implant: 'no' },
              enteredBy: staffId,
            },
          ]
        : [],
    )
  })
  await db.insert(otherMeasurement).values(rows)
}

/** The demo's bench: a study of both coaches, closed, and a repeat study under way. */
export async function seedDemoBench(db: Database, now = new Date()): Promise<void> {
  if ((await db.select({ id: study.id }).from(study).limit(1)).length > 0) return
  const people = await db.select({ id: staff.id, studioId: staff.studioId }).from(staff).orderBy(asc(staff.email))
  const [ivo, runa] = people
  if (!ivo || !runa) return
  const measured = await db
    .select({ id: client.id })
    .from(client)
    .where(isNotNull(client.consentOn))
    .orderBy(asc(client.name))
  const ids = measured.map(({ id }) => id)
  const random = seededRandom(SEED)
  const pens = { runa: { id: runa.id, ...HANDS.runa }, ivo: { id: ivo.id, ...HANDS.ivo } }
  await seedDrills(db, seededRandom(SEED + 1), now, [runa.id, ivo.id])
  await seedChecks(db, seededRandom(SEED + 2), now, runa.id)
  await seedScale(db, seededRandom(SEED + 3), now, runa.id)
  await db.insert(trainingPlan).values({
    id: random.uuid(),
    studioId: runa.studioId,
    staffId: ivo.id,
    people: 20,
    fromDay: localDay(subDays(now, 40), DEMO_ZONE),
    byDay: localDay(addDays(now, 50), DEMO_ZONE),
    note: 'Juniors and volunteers on Saturdays.',
    setBy: runa.id,
  })
  const here = { studioId: runa.studioId, people: ids }
  await seedStudy(db, random, now, {
    ...here,
    id: random.uuid(),
    name: 'September, both coaches',
    kind: 'assessors',
    pens: [pens.runa, pens.ivo],
    daysAgo: 62,
    turns: 2 * ids.length,
  })
  await seedStudy(db, random, now, {
    ...here,
    id: random.uuid(),
    name: 'Runa again, summer',
    kind: 'repeat',
    pens: [pens.runa],
    daysAgo: 120,
    turns: 2 * ids.length,
  })
  await seedStudy(db, random, now, {
    ...here,
    id: random.uuid(),
    name: 'Ivo again',
    kind: 'repeat',
    pens: [pens.ivo],
    daysAgo: 2,
    turns: ids.length + 2,
  })
}
