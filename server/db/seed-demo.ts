import { setHours, setMinutes, startOfDay, subDays, subMinutes, subYears } from 'date-fns'
import { seededRandom, simulateVisits, type Random } from '../../core/simulate'
import { PROTOCOLS } from '../../core/sites'
import { isEmpty } from '../repositories/staff'
import type { Database, Queryable } from './database'
import {
  DEMO_CALIPERS,
  DEMO_CLIENTS,
  DEMO_CONDITIONS,
  DEMO_PASSWORD,
  DEMO_STAFF,
  DEMO_STUDIO,
  type DemoClient,
} from './demo-people'
import { caliper, caliperCheck, cautionFlag, checkin, client, landmarkNote, reading, staff, studio } from './schema'

const SEED = 20261123

/** A trained assessor's technical error, share of the fold (common practice: at or under 5 %). */
const TECHNICAL_ERROR = 0.035

function isoDay(date: Date): string {
  return date.toISOString().slice(0, 10)
}

/** Visits start in the early evening, a little apart; one that is under way today started a quarter of an hour ago. */
function visitStart(now: Date, daysAgo: number, index: number): Date {
  if (daysAgo === 0) return subMinutes(now, 15)
  return setMinutes(setHours(startOfDay(subDays(now, daysAgo)), 17), 10 + ((index * 7) % 40))
}

async function seedClient(
  db: Queryable,
  random: Random,
  person: DemoClient,
  context: { now: Date; studioId: string; coachId: string; caliperId: string },
): Promise<void> {
  const { now, studioId, coachId, caliperId } = context
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
    archivedAt: person.archived ? subDays(now, 150).toISOString() : null,
    createdAt: first.toISOString(),
  })
  const flags = (person.flags ?? []).map((flag) => ({ clientId, flag }))
  if (flags.length > 0) await db.insert(cautionFlag).values(flags)
  const landmarks = Object.entries(person.landmarks ?? {}).map(([site, note]) => ({ clientId, site, note }))
  if (landmarks.length > 0) await db.insert(landmarkNote).values(landmarks)
  const series = simulateVisits(random, {
    course: person.course,
    protocol: PROTOCOLS[person.protocolId ?? 'laboratory-7'],
    technicalError: TECHNICAL_ERROR,
    starts,
    ...(person.unfinishedAfter === undefined ? {} : { unfinishedAfter: person.unfinishedAfter }),
  })
  for (const visit of series) {
    const checkinId = random.uuid()
    await db.insert(checkin).values({
      id: checkinId,
      clientId,
      protocolId: person.protocolId ?? 'laboratory-7',
      side: 'right',
      startedBy: coachId,
      assessorId: coachId,
      caliperId,
      conditions: DEMO_CONDITIONS,
      startedAt: visit.startedAt,
      finishedAt: visit.finishedAt,
    })
    await db.insert(reading).values(visit.readings.map((fact) => ({ ...fact, checkinId, takenBy: coachId })))
  }
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
    await tx.insert(studio).values({ id: studioId, name: DEMO_STUDIO })
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
      if (coach) await seedClient(tx, random, person, { now, studioId, coachId: coach.id, caliperId })
    }
  })
}
