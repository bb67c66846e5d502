import { statSync } from 'node:fs'
import { join } from 'node:path'
import sharp from 'sharp'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { addDays } from '../../core/calendar'
import { seededRandom } from '../../core/simulate'
import type { MeasuringFacts } from '../../shared/schemas/checkin'
import type { Client } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import { Caller, LEAD, someClient, someReading, startedCheckin, type Server } from '../support/api'
import { enterVisit } from '../support/visits'

let server: Server
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
})
afterAll(() => server.remove())

/** One thing sent: how, and whether the facts hold it wholly, not at all, or by halves. */
interface Act {
  name: string
  send: () => Promise<{ status: number }>
  held: (facts: Held) => 'whole' | 'none' | 'half'
}

/** What the application holds after a start. */
interface Held {
  client: (id: string) => Client | null
  history: ClientHistory
  open: MeasuringFacts['checkin'] | null
  photo: (id: string) => boolean
}

describe('nothing acknowledged is ever lost, and nothing is stored by halves', () => {
  // KILLS=200 npm run test:kills takes some twenty minutes; a few do for every day.
  const kills = Number(process.env.KILLS ?? 5)

  it(
    `holds every kind of fact after ${kills} kills at random moments`,
    { timeout: 90_000 + kills * 15_000 },
    async () => {
      const coach = new Caller(server)
      await coach.signIn(LEAD)
      const random = seededRandom(kills)
      const rower = someClient({ name: 'Killed Rower', photoConsentOn: '2026-01-10' })
      await coach.send('POST', '/api/clients', rower)
      const visit = await enterVisit(coach, rower.id, {
        daysAgo: 7,
        values: [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24],
        kg: 60,
      })
      const picture = await sharp({ create: { width: 60, height: 90, channels: 3, background: '#998877' } })
        .jpeg()
        .toBuffer()
      const made = { acts: [] as { act: Act; acknowledged: boolean }[] }
      const counts = new Map<string, number>()

      for (let life = 0; life < kills; life += 1) {
        const { checkinId } = await startedCheckin(coach, rower)
        const acts = shuffled(actsOf(coach, { rower: rower.id, visit, checkinId, picture, life }), random)
        const before = Math.floor(3 * random.next())
        for (const act of acts.slice(0, before)) await attempt(act)
        // More are under way when the process dies: acknowledged or not, they must not harm the others.
        const underWay = Promise.all(acts.slice(before, before + 3).map(attempt))
        await new Promise((wake) => setTimeout(wake, 40 * random.next()))
        await server.kill()
        await underWay
        await server.start()
        const held = await heldBy(
          coach,
          rower.id,
          checkinId,
          made.acts.map(({ act }) => act),
        )
        for (const { act, acknowledged } of made.acts) {
          const state = act.held(held)
          expect(state, `${act.name}, life ${life}`).not.toBe('half')
          if (acknowledged) expect(state, `${act.name}, acknowledged in life ${life}`).toBe('whole')
        }
        made.acts = []
        await coach.send('PATCH', `/api/checkins/${checkinId}`, { finished: true })
        await coach.send('DELETE', `/api/checkins/${checkinId}`)
      }
      expect([...counts.values()].reduce((sum, count) => sum + count, 0)).toBeGreaterThan(0)

      async function attempt(act: Act): Promise<void> {
        const status = await act.send().then(
          (answer) => answer.status,
          () => 0,
        )
        if (status >= 200 && status < 300) counts.set(act.name, (counts.get(act.name) ?? 0) + 1)
        made.acts.push({ act, acknowledged: status >= 200 && status < 300 })
      }
    },
  )

  it('takes a delivery twice as if it came once, and keeps struck readings', async () => {
    const coach = new Caller(server)
    await coach.signIn(LEAD)
    const { checkinId } = await startedCheckin(coach)
    const reading = someReading()
    const delivery = {
      readings: [reading, reading],
      strikes: [{ readingId: reading.id, struckAt: new Date().toISOString() }],
    }
    for (let i = 0; i < 3; i += 1) await coach.send('POST', `/api/checkins/${checkinId}/events`, delivery)
    const { checkin } = (await coach.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`)).body
    expect(checkin.readings).toHaveLength(1)
    expect(checkin.readings[0]).toMatchObject(reading)
    expect(checkin.strikes).toHaveLength(1)
  })

  it('keeps the session secret for the owner only', () => {
    expect(statSync(join(server.dataDir, 'session-secret')).mode & 0o777).toBe(0o600)
  })
})

function shuffled<One>(list: One[], random: { next: () => number }): One[] {
  return list
    .map((one) => [random.next(), one] as const)
    .sort(([a], [b]) => a - b)
    .map(([, one]) => one)
}

/** One act of every kind of fact. */
function actsOf(
  coach: Caller,
  about: { rower: string; visit: string; checkinId: string; picture: Buffer; life: number },
): Act[] {
  const { rower, visit, checkinId, picture, life } = about
  const events = (body: object) => coach.send('POST', `/api/checkins/${checkinId}/events`, body)
  const readings = [someReading({ site: 'chest', value: 8 }), someReading({ site: 'thigh', value: 20 })]
  const flagged = someClient({ name: 'With Flags', flags: ['pregnant', 'eating-disorder'] })
  const weighIns = [0, 1, 2].map((i) => ({
    id: uuid(),
    day: addDays('2000-01-01', life * 3 + i),
    value: 70 + i,
    unit: 'kg',
    dry: true,
    source: 'pasted',
  }))
  const plan = { id: uuid(), checkinId: visit, kind: 'sum', value: 90, perWeek: 1, unit: 'mm', byDay: null }
  const choice = { id: uuid(), conversion: life % 2 === 0 ? 'brozek' : 'siri', equationId: null }
  const photo = uuid()
  const all = (found: number, of: number) => (found === 0 ? 'none' : found === of ? 'whole' : 'half')
  const query = new URLSearchParams({ id: photo, pose: 'front', takenAt: new Date().toISOString() })
  return [
    {
      name: 'readings',
      send: () => events({ readings, strikes: [] }),
      held: ({ open }) => all(readings.filter(({ id }) => open?.readings.some((one) => one.id === id)).length, 2),
    },
    {
      name: 'client with flags',
      send: () => coach.send('POST', '/api/clients', flagged),
      held: ({ client }) => {
        const found = client(flagged.id)
        return !found ? 'none' : found.flags.length === 2 ? 'whole' : 'half'
      },
    },
    {
      name: 'weigh-ins',
      send: () => coach.send('POST', `/api/clients/${rower}/weigh-ins`, { weighIns }),
      held: ({ history }) => all(weighIns.filter(({ id }) => history.weighIns.some((one) => one.id === id)).length, 3),
    },
    {
      name: 'plan',
      send: () => coach.send('POST', `/api/clients/${rower}/plans`, plan),
      held: ({ history }) => (history.plans.some(({ id }) => id === plan.id) ? 'whole' : 'none'),
    },
    {
      name: 'choice',
      send: () => coach.send('POST', `/api/clients/${rower}/choices`, choice),
      held: ({ history }) => (history.choices[0]?.choices.conversion === choice.conversion ? 'whole' : 'none'),
    },
    {
      name: 'photograph',
      send: () => coach.sendBytes(`/api/checkins/${visit}/photos?${query}`, picture),
      // A row without its picture would be a half.
      held: ({ history, photo: there }) =>
        !history.photos.some(({ id }) => id === photo) ? 'none' : there(photo) ? 'whole' : 'half',
    },
    {
      name: 'finishing',
      send: async () => {
        const stored = await events({ readings: [someReading({ value: 11 })], strikes: [] })
        if (stored.status !== 200) return stored
        return coach.send('PATCH', `/api/checkins/${checkinId}`, { finished: true })
      },
      held: ({ open }) => (open?.finishedAt ? 'whole' : 'none'),
    },
  ]
}

async function heldBy(coach: Caller, rower: string, checkinId: string, acts: readonly Act[]): Promise<Held> {
  const history = (await coach.send<ClientHistory>('GET', `/api/clients/${rower}/history`)).body
  const open = (await coach.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`)).body.checkin
  const { body } = await coach.send<{ clients: { id: string }[] }>('GET', '/api/clients?q=With%20Flags')
  const clients = new Map<string, Client>()
  if (acts.some(({ name }) => name === 'client with flags')) {
    for (const { id } of body.clients) clients.set(id, (await coach.send<Client>('GET', `/api/clients/${id}`)).body)
  }
  const photos = new Set<string>()
  for (const { id } of history.photos) if ((await coach.picture(`/api/photos/${id}`)).status === 200) photos.add(id)
  return { client: (id) => clients.get(id) ?? null, history, open, photo: (id) => photos.has(id) }
}
