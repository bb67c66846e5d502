import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import type { ClientSchedule } from '../../core/schedule'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { Floor } from '../../shared/schemas/checkin'
import type { ClientPage } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import { Caller, LEAD, type Server, someClient } from '../support/api'
import { enterVisit } from '../support/visits'

const FOLDS = [14, 12, 8, 10, 16, 20, 22]
const today = new Date().toISOString().slice(0, 10)

let server: Server
let coach: Caller
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
})
afterAll(() => server.remove())

async function measured(name: string, daysAgo: number): Promise<string> {
  const client = someClient({ name })
  await coach.send('POST', '/api/clients', client)
  await enterVisit(coach, client.id, { daysAgo, values: FOLDS, kg: 74 })
  return client.id
}
const set = (id: string, change: object) =>
  coach.send<ClientSchedule>('POST', `/api/clients/${id}/schedule`, {
    id: uuid(),
    cadenceDays: null,
    pause: null,
    events: [],
    ...change,
  })
const floor = async () => (await coach.send<Floor>('GET', '/api/floor')).body
const line = async (name: string) =>
  (await coach.send<ClientPage>('GET', `/api/clients?q=${encodeURIComponent(name)}`)).body.clients[0]

describe('a client’s schedule', () => {
  it('decides floor, list and page alike', async () => {
    const id = await measured('Sanna Quill', 10)
    expect((await line('Sanna'))?.nextOn).toBe(addDays(today, 18))
    expect((await floor()).due).toEqual([])
    const { body } = await set(id, { cadenceDays: 7 })
    expect(body.cadenceDays).toBe(7)
    expect((await line('Sanna'))?.due).toBe(true)
    expect((await line('Sanna'))?.nextOn).toBe(addDays(today, -3))
    const [due] = (await floor()).due
    expect(due).toMatchObject({ clientId: id, overdue: false, next: { reason: 'cadence', cadenceDays: 7 } })
    const history = (await coach.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body
    expect(history.schedule).toEqual(body)
    expect((await coach.send<ClientPage>('GET', '/api/clients?filter=due')).body.total).toBe(1)
  })

  it('rests in a pause and comes closer before a day that does not move', async () => {
    const id = await measured('Petra Lindqvane', 40)
    expect((await floor()).due.map(({ clientId }) => clientId)).toContain(id)
    await set(id, { pause: { until: addDays(today, 20), reason: 'holiday' } })
    expect((await floor()).due.map(({ clientId }) => clientId)).not.toContain(id)
    expect((await line('Petra'))?.nextOn).toBe(addDays(today, 21))
    const race = { id: uuid(), kind: 'race', day: addDays(today, 12), name: 'Reedwater Head' }
    await set(id, { events: [race] })
    const { events, due } = await floor()
    expect(events).toEqual([{ clientId: id, clientName: 'Petra Lindqvane', event: race }])
    expect(due.find(({ clientId }) => clientId === id)).toMatchObject({ next: { reason: 'event' }, overdue: true })
  })

  it.each([
    ['a cadence of nothing', { cadenceDays: 0 }, 'a day or more'],
    [
      'an event that has been',
      { events: [{ id: uuid(), kind: 'race', day: addDays(today, -2), name: 'Head' }] },
      'has been',
    ],
    ['a nameless event', { events: [{ id: uuid(), kind: 'race', day: addDays(today, 2), name: ' ' }] }, 'a name'],
    ['a pause that has ended', { pause: { until: addDays(today, -2), reason: 'holiday' } }, 'has ended'],
    ['a reason of nobody’s', { pause: { until: addDays(today, 2), reason: 'weather' } }, 'Say why it rests.'],
  ])('refuses %s with its sentence', async (_, change, sentence) => {
    const id = await measured('Ada Reedmere', 3)
    const { status, text } = await set(id, change)
    expect(status).toBe(422)
    expect(text).toContain(sentence)
  })

  it('keeps an event that has gone by meanwhile, and one sending however often it comes', async () => {
    const id = await measured('Liv Ambersen', 3)
    const schedule = { id: uuid(), cadenceDays: 14, pause: null, events: [] }
    const send = () => coach.send<ClientSchedule>('POST', `/api/clients/${id}/schedule`, schedule)
    expect((await send()).body).toEqual((await send()).body)
    expect((await coach.send('POST', `/api/clients/${id}/schedule`, { ...schedule, cadenceDays: 21 })).status).toBe(409)
  })
})
