import { createHash } from 'node:crypto'
import { asc, eq } from 'drizzle-orm'
import { subDays } from 'date-fns'
import { addDays, daysOfWeek, instantAt, localDay } from '../../core/calendar'
import { HOME_GIRTHS } from '../../core/home'
import { seededRandom } from '../../core/simulate'
import { POSES } from '../../shared/schemas/photo'
import type { Database } from './database'
import { drawnPhotograph } from './demo-photos'
import { DEMO_ZONE } from './seed-demo'
import {
  booking,
  challenge,
  challengeEntry,
  client,
  clientLink,
  coachLine,
  handIn,
  homeGirth,
  homePhoto,
  reminderChoice,
  staff,
  studio,
  weighIn,
} from './schema'

const SEED = 20261126

/** Visits of the demo's week: day of the week from Monday (0), or today; hour and minute; length; who measures and where. */
const VISITS: readonly {
  name: string
  on: number | 'today'
  at: [number, number]
  minutes: number
  by: 0 | 1
  place: string
}[] = [
  { name: 'Tobin Hale', on: 'today', at: [17, 15], minutes: 30, by: 0, place: 'Bench by the window' },
  { name: 'Petra Lindqvane', on: 'today', at: [18, 0], minutes: 30, by: 0, place: 'Bench by the window' },
  { name: 'Oskar Brandeth', on: 'today', at: [18, 15], minutes: 30, by: 1, place: 'Back room' },
  { name: 'Edrik Vane', on: 0, at: [17, 30], minutes: 30, by: 1, place: 'Back room' },
  { name: 'Maren Osk', on: 1, at: [7, 0], minutes: 30, by: 0, place: 'Bench by the window' },
  { name: 'Liv Ambersen', on: 2, at: [16, 45], minutes: 15, by: 1, place: 'Back room' },
  { name: 'Sanna Quill', on: 4, at: [17, 0], minutes: 30, by: 0, place: 'Bench by the window' },
  { name: 'Edrik Vane', on: 4, at: [17, 45], minutes: 30, by: 1, place: 'Back room' },
  { name: 'Maren Osk', on: 5, at: [9, 0], minutes: 45, by: 0, place: 'Bench by the window' },
  { name: 'Tobin Hale', on: 5, at: [9, 45], minutes: 30, by: 1, place: 'Back room' },
]

/** Who hands in from afar, with what the tape said by week, cm, the newest last. */
const FROM_AFAR = {
  name: 'Maren Osk',
  girths: { shoulders: [107.2, 106.9, 107.1, 106.8], abdomen: [81.6, 80.7, 80.1, 79.2], hip: [98.3, 98, 97.4, 97.1] },
  words: 'Two long outings this week, slept little on Thursday.',
  answer: 'Steady. Keep the breakfast as it is; we measure together on Saturday.',
}

/** Bookings of the demo's week and what came in from afar. `keep` stores the bytes of a photograph. */
export async function seedDemoWeek(
  db: Database,
  keep: (id: string, bytes: Buffer) => Promise<void>,
  now = new Date(),
): Promise<void> {
  if ((await db.select({ id: booking.id }).from(booking).limit(1)).length > 0) return
  const [home] = await db.select({ id: studio.id }).from(studio)
  const people = await db.select({ id: staff.id, name: staff.name }).from(staff).orderBy(asc(staff.email))
  const ids = new Map(
    (await db.select({ id: client.id, name: client.name }).from(client)).map((one) => [one.name, one.id]),
  )
  const [ivo, runa] = people
  if (!home || !ivo || !runa) return
  const random = seededRandom(SEED)
  const today = localDay(now, DEMO_ZONE)
  const week = daysOfWeek(today)
  await db.insert(booking).values(
    VISITS.flatMap(({ name, on, at: [hour, minute], minutes, by, place }) => {
      const clientId = ids.get(name)
      const day = on === 'today' ? today : (week[on] ?? today)
      // Today is told above; of the days gone by those visits took place.
      if (!clientId || (on !== 'today' && day <= today)) return []
      return {
        id: random.uuid(),
        studioId: home.id,
        clientId,
        assessorId: by === 0 ? runa.id : ivo.id,
        place,
        startsAt: instantAt(day, 60 * hour + minute, DEMO_ZONE),
        minutes,
        bookedBy: runa.id,
      }
    }),
  )
  await seedChallenge(db, ids, { studioId: home.id, coachId: runa.id, today, now })
  const clientId = ids.get(FROM_AFAR.name)
  if (clientId) await seedFromAfar(db, keep, { clientId, coachId: runa.id, today, now })
}

/** A challenge that has run for most of a year, long enough for a loss to be real: who is in it and how they are shown. */
const CHALLENGE = {
  name: 'Once around the lake, a year',
  beganDaysAgo: 360,
  days: 371,
  entries: [
    { name: 'Maren Osk', shownAs: 'name', alias: '' },
    { name: 'Tobin Hale', shownAs: 'alias', alias: 'Heron' },
    { name: 'Petra Lindqvane', shownAs: 'name', alias: '' },
    { name: 'Oskar Brandeth', shownAs: 'name', alias: '' },
  ],
} as const

async function seedChallenge(
  db: Database,
  ids: ReadonlyMap<string, string>,
  { studioId, coachId, today, now }: { studioId: string; coachId: string; today: string; now: Date },
): Promise<void> {
  const random = seededRandom(SEED + 2)
  const id = random.uuid()
  const startsOn = addDays(today, -CHALLENGE.beganDaysAgo)
  await db.insert(challenge).values({
    id,
    studioId,
    name: CHALLENGE.name,
    startsOn,
    endsOn: addDays(startsOn, CHALLENGE.days),
    figure: 'sum',
    categories: 'none',
    prizeRule: 'share',
    madeBy: coachId,
    at: subDays(now, CHALLENGE.beganDaysAgo + 12).toISOString(),
  })
  await db.insert(challengeEntry).values(
    CHALLENGE.entries.flatMap(({ name, ...shown }) => {
      const clientId = ids.get(name)
      if (!clientId) return []
      const at = subDays(now, CHALLENGE.beganDaysAgo + 10).toISOString()
      return { ...shown, id: random.uuid(), challengeId: id, clientId, consentOn: startsOn, enteredBy: coachId, at }
    }),
  )
  // Somebody wants to be told of a visit by mail.
  const clientId = ids.get(CHALLENGE.entries[0].name)
  if (clientId)
    await db.insert(reminderChoice).values({
      id: random.uuid(),
      clientId,
      email: 'maren@lake.example',
      visits: true,
      handIns: true,
      handInWeekday: 7,
      setBy: coachId,
    })
}

async function seedFromAfar(
  db: Database,
  keep: (id: string, bytes: Buffer) => Promise<void>,
  { clientId, coachId, today, now }: { clientId: string; coachId: string; today: string; now: Date },
): Promise<void> {
  const random = seededRandom(SEED + 1)
  const linkId = random.uuid()
  await db.insert(clientLink).values({
    id: linkId,
    clientId,
    // Nobody holds the token this stands for: the demo's coach renews the link to open it.
    tokenHash: createHash('sha256').update(random.uuid()).digest('hex'),
    scope: ['weigh-ins', 'girths', 'photographs', 'take-home'],
    expiresAt: addDays(today, 60) + 'T00:00:00Z',
    madeBy: coachId,
    at: subDays(now, 30).toISOString(),
    firstOpenedAt: subDays(now, 30).toISOString(),
    lastOpenedAt: subDays(now, 1).toISOString(),
    pinHash: 'none',
  })
  const last = FROM_AFAR.girths.abdomen.length - 1
  for (let i = 0; i <= last; i += 1) {
    const day = addDays(today, -1 - 7 * (last - i))
    const handInId = random.uuid()
    await db.insert(handIn).values({
      id: handInId,
      clientId,
      linkId,
      day,
      receivedAt: `${day}T06:40:00Z`,
      conditions: i === last ? { sleep: 'short', training: 'more' } : {},
      fit: i === last ? 'looser' : 'same',
      words: i === last ? FROM_AFAR.words : '',
      seenAt: i === last ? null : `${day}T09:00:00Z`,
      seenBy: i === last ? null : coachId,
    })
    await db.insert(homeGirth).values(
      HOME_GIRTHS.flatMap((site) => {
        const cm = FROM_AFAR.girths[site as keyof typeof FROM_AFAR.girths][i] ?? 0
        return [0.2, -0.2].map((off, k) => ({
          id: random.uuid(),
          handInId,
          site,
          trial: k + 1,
          value: Math.round(10 * (cm + off)) / 10,
          unit: 'cm' as const,
        }))
      }),
    )
    for (const pose of i >= last - 1 ? POSES : []) {
      const id = random.uuid()
      const { bytes, ...size } = await drawnPhotograph(pose, 1 - 0.008 * (i - last), i % 2 === 0 ? 10 : -6)
      await keep(id, bytes)
      const digest = createHash('sha256').update(bytes).digest('hex')
      await db
        .insert(homePhoto)
        .values({ id, handInId, pose, ...size, byteLength: bytes.length, digest, takenAt: `${day}T06:30:00Z` })
    }
    if (i === last - 1)
      await db.insert(coachLine).values({
        id: random.uuid(),
        clientId,
        handInId,
        words: FROM_AFAR.answer,
        at: `${day}T09:01:00Z`,
        writtenBy: coachId,
      })
  }
  // The last mornings came in by the phone.
  await db.update(weighIn).set({ source: 'link', enteredBy: null }).where(eq(weighIn.clientId, clientId))
}
