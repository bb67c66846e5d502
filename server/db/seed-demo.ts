import { addDays, setHours, setMinutes, startOfDay, subDays, subMinutes, subYears } from 'date-fns'
import { localDay, type Day } from '../../core/calendar'
import { DEFAULT_CHOICES } from '../../core/composition/facts'
import { along, seededRandom, simulateDiary, simulateVisits, type Random } from '../../core/simulate'
import { PROTOCOLS, type ProtocolId } from '../../core/protocols'
import { isEmpty } from '../repositories/staff'
import type { Database, Transaction } from './database'
import { seedDemoRecord } from './demo-record'
import {
  DEMO_CALIPERS,
  DEMO_CLIENTS,
  DEMO_CONDITIONS,
  DEMO_PASSWORD,
  DEMO_STAFF,
  DEMO_STUDIO,
  type DemoClient,
} from './demo-people'
import {
  caliper,
  caliperCheck,
  cautionFlag,
  checkin,
  client,
  clientChoice,
  clientSchedule,
  intake,
  landmarkNote,
  plan,
  reading,
  staff,
  studio,
  weighIn,
} from './schema'

const SEED = 20261123

/** A trained assessor's technical error, share of the fold (common practice: at or under 5 %). */
const TECHNICAL_ERROR = 0.035

/** Where the club is: the zone of the machine the demo runs on, so that today is today. */
export const DEMO_ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'

function isoDay(instant: Date | string): Day {
  return localDay(instant, DEMO_ZONE)
}

/** Visits start in the early evening, a little apart; one that is under way today started a quarter of an hour ago. */
function visitStart(now: Date, daysAgo: number, index: number): Date {
  if (daysAgo === 0) return subMinutes(now, 15)
  return setMinutes(setHours(startOfDay(subDays(now, daysAgo)), 17), 10 + ((index * 7) % 40))
}

async function seedClient(
  db: Transaction,
  random: Random,
  person: DemoClient,
  context: { now: Date; studioId: string; coachId: string; otherCoachId: string; caliperId: string },
): Promise<void> {
  const { now, studioId, coachId, otherCoachId, caliperId } = context
  const clientId = random.uuid()
  const starts = person.visitDays.map((days, i) => visitStart(now, days, i))
  const first = starts[0] ?? now
  await db.insert(client).values({
    id: clientId,
    studioId,
    name: person.name,
    sex: person.course.sex,
    birthDate: isoDay(subDays(subYears(now, person.age), 40 + Math.floor(random.next() * 250))),
    heightCm: person.heightCm,
    notes: person.notes,
    consentOn: person.consent ? isoDay(first) : null,
    athlete: person.athlete ?? null,
    photoConsentOn: person.photographedAt ? isoDay(first) : null,
    archivedAt: person.archived ? subDays(now, 150).toISOString() : null,
    createdAt: first.toISOString(),
  })
  const flags = (person.flags ?? []).map((flag) => ({ clientId, flag }))
  if (flags.length > 0) await db.insert(cautionFlag).values(flags)
  const landmarks = Object.entries(person.landmarks ?? {}).map(([site, note]) => ({ clientId, site, note }))
  if (landmarks.length > 0) await db.insert(landmarkNote).values(landmarks)
  for (const [i, visit] of visitsOf(random, person, starts).entries()) {
    const checkinId = random.uuid()
    const measuredBy = i < (person.otherCoachFor ?? 0) ? otherCoachId : coachId
    const isLast = i === starts.length - 1
    await db.insert(checkin).values({
      id: checkinId,
      clientId,
      protocolId: visit.protocolId,
      side: 'right',
      startedBy: measuredBy,
      assessorId: measuredBy,
      caliperId,
      conditions: { ...DEMO_CONDITIONS, ...(isLast ? person.lastConditions : {}) },
      startedAt: visit.startedAt,
      day: isoDay(visit.startedAt),
      finishedAt: visit.finishedAt,
    })
    await db.insert(reading).values(visit.readings.map((fact) => ({ ...fact, checkinId, takenBy: measuredBy })))
    if (person.plan?.fromVisit === i) await seedPlan(db, person.plan, { clientId, checkinId, visit, measuredBy })
  }
  await seedDiary(db, random, person, { clientId, coachId, now })
  await seedEnergy(db, person, { clientId, coachId, now })
  await seedSchedule(db, person, { clientId, coachId, now })
}

/** When a client is measured. Drawn apart, as above. */
async function seedSchedule(
  db: Transaction,
  { schedule, name }: DemoClient,
  { clientId, coachId, now }: { clientId: string; coachId: string; now: Date },
): Promise<void> {
  if (!schedule) return
  const { cadenceDays, event } = schedule
  const random = seededRandom(SEED + 100 + name.length)
  await db.insert(clientSchedule).values({
    id: random.uuid(),
    clientId,
    schedule: {
      cadenceDays,
      pause: null,
      events: event
        ? [{ id: random.uuid(), kind: 'race', day: isoDay(addDays(now, event.inDays)), name: event.name }]
        : [],
    },
    at: subDays(now, 30).toISOString(),
    setBy: coachId,
  })
}

/** A log of intake and how active the client is. Drawn apart, so that everybody's readings stay what they were. */
async function seedEnergy(
  db: Transaction,
  { energy, name }: DemoClient,
  { clientId, coachId, now }: { clientId: string; coachId: string; now: Date },
): Promise<void> {
  if (!energy) return
  const random = seededRandom(SEED + name.length)
  await db.insert(intake).values(
    Array.from({ length: energy.days }, (_, i) => ({
      id: random.uuid(),
      clientId,
      day: isoDay(subDays(now, energy.days - i)),
      kcal: Math.round((energy.kcal + 260 * random.normal()) / 10) * 10,
      source: 'pasted' as const,
      enteredBy: coachId,
    })),
  )
  await db.insert(clientChoice).values({
    id: random.uuid(),
    clientId,
    choices: { ...DEFAULT_CHOICES, activity: energy.activity },
    at: subDays(now, energy.days).toISOString(),
    chosenBy: coachId,
  })
}

/** A plan set at a visit. Its id is drawn apart, so that everybody's readings stay what they were. */
async function seedPlan(
  db: Transaction,
  { fromVisit, ...target }: NonNullable<DemoClient['plan']>,
  about: { clientId: string; checkinId: string; visit: { startedAt: string }; measuredBy: string },
): Promise<void> {
  const { clientId, checkinId, visit, measuredBy } = about
  const id = seededRandom(SEED + 1 + fromVisit).uuid()
  await db.insert(plan).values({ ...target, id, clientId, checkinId, at: visit.startedAt, setBy: measuredBy })
}

/** A person's visits; the newest ones by another set of sites where the club has changed it. */
function visitsOf(random: Random, { course, protocolId, later, unfinishedAfter }: DemoClient, starts: Date[]) {
  const by = (id: ProtocolId) =>
    simulateVisits(random, {
      course,
      protocol: PROTOCOLS[id],
      technicalError: TECHNICAL_ERROR,
      starts,
      ...(unfinishedAfter === undefined ? {} : { unfinishedAfter }),
    }).map((visit) => ({ ...visit, protocolId: id }))
  const first = by(protocolId ?? 'laboratory-7')
  if (!later) return first
  const change = starts.length - later.visits
  return [...first.slice(0, change), ...by(later.protocolId).slice(change)]
}

async function seedDiary(
  db: Transaction,
  random: Random,
  { diaryDays, course, visitDays }: DemoClient,
  { clientId, coachId, now }: { clientId: string; coachId: string; now: Date },
): Promise<void> {
  if (!diaryDays) return
  const days = Array.from({ length: diaryDays }, (_, i) => isoDay(subDays(now, diaryDays - 1 - i)))
  const whole = visitDays[0] ?? diaryDays
  const start = Math.max(0, 1 - diaryDays / whole)
  const diary = simulateDiary(random, days, (share) =>
    along(course.weightKg, start + (1 - start) * share, course.wave / 4),
  )
  await db.insert(weighIn).values(
    diary.map(({ day, weightKg }) => ({
      id: random.uuid(),
      clientId,
      day,
      value: weightKg,
      unit: 'kg' as const,
      source: 'pasted' as const,
      enteredBy: coachId,
    })),
  )
}

/** How passwords are hashed: scrypt in the server, something cheap in tests. */
type Hash = (password: string) => Promise<string>

/** Fills an empty database with the rowing club's demo data, dates counted back from `now`. Does nothing otherwise. */
export async function seedDemo(db: Database, hash: Hash, now = new Date()): Promise<void> {
  if (!(await isEmpty(db))) return
  const random = seededRandom(SEED)
  const passwordHash = await hash(DEMO_PASSWORD)
  const studioId = random.uuid()
  const people = DEMO_STAFF.map((person) => ({ ...person, id: random.uuid(), studioId, passwordHash }))
  await db.transaction(async (tx) => {
    await tx.insert(studio).values({
      id: studioId,
      name: DEMO_STUDIO,
      timeZone: DEMO_ZONE,
      energyAcceptedAt: subDays(now, 300).toISOString(),
    })
    await tx.insert(staff).values(people)
    const calipers = DEMO_CALIPERS.map((one) => ({ ...one, id: random.uuid() }))
    await tx.insert(caliper).values(calipers.map(({ id, name }) => ({ id, name, studioId })))
    await tx.insert(caliperCheck).values(
      calipers.map(({ id, checkedDaysAgo, deviationMm }) => ({
        id: random.uuid(),
        caliperId: id,
        checkedOn: isoDay(subDays(now, checkedDaysAgo)),
        deviationMm,
        checkedBy: people[0]?.id ?? '',
      })),
    )
    const caliperId = calipers[0]?.id ?? ''
    for (const [i, person] of DEMO_CLIENTS.entries()) {
      const coach = people[i % people.length]
      const other = people[(i + 1) % people.length]
      if (!coach || !other) continue
      await seedClient(tx, random, person, { now, studioId, coachId: coach.id, otherCoachId: other.id, caliperId })
    }
    await seedDemoRecord(tx)
  })
}
