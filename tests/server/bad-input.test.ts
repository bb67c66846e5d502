import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { CheckinRecord, MeasuringFacts } from '../../shared/schemas/checkin'
import type { ClientPage } from '../../shared/schemas/client'
import { type Answer, Caller, LEAD, type Server, someClient, someReading, startedCheckin } from '../support/api'
import type { Problem } from '../../shared/schemas/problem'

let server: Server
let coach: Caller
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
})
afterAll(() => server.remove())

function expectRefusal({ status, body, text }: Answer<Problem>, field?: string): void {
  expect(status).toBeGreaterThanOrEqual(400)
  expect(status).toBeLessThan(500)
  expect(body.message).toMatch(/^[A-Z“].{8,}[.?)]$/s)
  expect(text).not.toMatch(/\bat .*\.m?[jt]s|node_modules|stack/)
  if (field) expect(body.fields.map((problem) => problem.field)).toContain(field)
}

describe('a client that cannot be', () => {
  it.each([
    ['an empty name', { name: '  ' }, 'name'],
    ['a name of 121 letters', { name: 'x'.repeat(121) }, 'name'],
    ['a third sex for the equations', { sex: 'unknown' }, 'sex'],
    ['a birth date to come', { birthDate: '2999-01-01' }, 'birthDate'],
    ['a birth date before 1900', { birthDate: '1850-01-01' }, 'birthDate'],
    ['a 30th of February', { birthDate: '1990-02-30' }, 'birthDate'],
    ['a height of 5.11', { heightCm: 5.11 }, 'heightCm'],
    ['a height in words', { heightCm: 'tall' }, 'heightCm'],
    ['a negative height', { heightCm: -174 }, 'heightCm'],
    ['consent in the future', { consentOn: '2999-01-01' }, 'consentOn'],
    ['a field nobody knows', { shoeSize: 42 }, 'body'],
  ])('refuses %s and stores nothing', async (_, change, field) => {
    const answer = await coach.send('POST', '/api/clients', { ...someClient(), ...change })
    expectRefusal(answer, field)
    const { body } = await coach.send<ClientPage>('GET', '/api/clients')
    expect(body.clients).toEqual([])
  })
})

describe('a reading that cannot be', () => {
  let checkinId = ''
  beforeAll(async () => {
    ;({ checkinId } = await startedCheckin(coach, someClient({ name: 'Tobin Hale' })))
  })

  async function stored(): Promise<CheckinRecord> {
    return (await coach.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`)).body.checkin
  }

  it.each([
    ['text', { value: 'twelve' }],
    ['0', { value: 0 }],
    ['a negative', { value: -4 }],
    ['900 mm', { value: 900 }],
    ['inches for a fold', { value: 12, unit: 'in' }],
    ['an unknown site', { site: 'elbow' }],
    ['a site outside the protocol', { site: 'biceps' }],
    ['a weight of 900 kg', { site: 'weight', value: 900, unit: 'kg' }],
    ['a height of 5.11 cm', { site: 'height', value: 5.11, unit: 'cm' }],
    ['round 0', { round: 0 }],
    ['no id', { id: 'mine' }],
    ['yesterday in words', { takenAt: 'yesterday' }],
  ])('refuses %s', async (_, change) => {
    const body = { readings: [someReading(change)], strikes: [] }
    expectRefusal(await coach.send('POST', `/api/checkins/${checkinId}/events`, body))
    expect((await stored()).readings).toEqual([])
  })

  it('stores none of a delivery when one of it is wrong', async () => {
    const body = { readings: [someReading(), someReading({ value: 900 })], strikes: [] }
    expectRefusal(await coach.send('POST', `/api/checkins/${checkinId}/events`, body))
    expect((await stored()).readings).toEqual([])
  })

  it('refuses a strike of a reading nobody took', async () => {
    const body = { readings: [], strikes: [{ readingId: someReading().id, struckAt: new Date().toISOString() }] }
    expectRefusal(await coach.send('POST', `/api/checkins/${checkinId}/events`, body))
  })

  it('refuses a reading whose id belongs to another check-in', async () => {
    const elsewhere = await startedCheckin(coach, someClient({ name: 'Edrik Vane' }))
    const reading = someReading()
    await coach.send('POST', `/api/checkins/${elsewhere.checkinId}/events`, { readings: [reading], strikes: [] })
    expectRefusal(await coach.send('POST', `/api/checkins/${checkinId}/events`, { readings: [reading], strikes: [] }))
    expect((await stored()).readings).toEqual([])
  })

  it('cannot finish an empty check-in, nor throw away one with readings', async () => {
    expectRefusal(await coach.send('PATCH', `/api/checkins/${checkinId}`, { finished: true }))
    await coach.send('POST', `/api/checkins/${checkinId}/events`, { readings: [someReading()], strikes: [] })
    expectRefusal(await coach.send('DELETE', `/api/checkins/${checkinId}`))
    expect((await stored()).readings).toHaveLength(1)
  })
})

describe('a request that cannot be', () => {
  it('refuses a body over 1 MB', async () => {
    expectRefusal(await coach.send('POST', '/api/clients', { ...someClient(), notes: 'x'.repeat(1_100_000) }))
  })

  it('refuses broken JSON and no body at all', async () => {
    expectRefusal(await coach.send('POST', '/api/clients', undefined, '{"name": '), 'body')
    expectRefusal(await coach.send('POST', '/api/clients', undefined, ''), 'body')
    expectRefusal(await coach.send('POST', '/api/clients', undefined, 'null'))
  })

  it.each([
    ['GET', '/api/clients/not-an-id'],
    ['GET', '/api/clients/0190a000-0000-7000-8000-000000000000/history'],
    ['GET', "/api/checkins/1' or '1'='1"],
    ['GET', '/api/nothing-here'],
  ])('%s %s is 404', async (method, path) => {
    const answer = await coach.send(method, path)
    expectRefusal(answer)
    expect(answer.status).toBe(404)
  })

  it.each([
    ['PUT', '/api/clients'],
    ['DELETE', '/api/me'],
    ['PATCH', '/api/floor'],
  ])('%s %s is not taken', async (method, path) => {
    const answer = await coach.send(method, path, {})
    expectRefusal(answer)
    expect(answer.status).toBe(405)
  })

  it('finds names with wildcards and quotes in them literally', async () => {
    const { body } = await coach.send<ClientPage>(
      'GET',
      `/api/clients?q=${encodeURIComponent("%_'; drop table client;--")}`,
    )
    expect(body.clients).toEqual([])
    expect((await coach.send<ClientPage>('GET', '/api/clients?q=hale')).body.clients.map(({ name }) => name)).toEqual([
      'Tobin Hale',
    ])
  })
})

describe('measuring somebody', () => {
  it('waits for consent, and for an archived client to come back', async () => {
    const client = someClient({ name: 'Liv Ambersen', consentOn: null })
    await coach.send('POST', '/api/clients', client)
    const start = { id: someReading().id, protocolId: 'laboratory-7', startedAt: new Date().toISOString() }
    const without = await coach.send('POST', `/api/clients/${client.id}/checkins`, start)
    expectRefusal(without)
    expect(without.body.message).toContain('consent')
    await coach.send('PATCH', `/api/clients/${client.id}`, { archived: true })
    const archived = await coach.send('POST', `/api/clients/${client.id}/checkins`, start)
    expect(archived.body.message).toContain('archived')
  })

  it('says that the clock of a device is wrong, and refuses people and calipers of nowhere', async () => {
    const client = someClient({ name: 'Tam Osier' })
    await coach.send('POST', '/api/clients', client)
    const start = { id: someReading().id, protocolId: 'laboratory-7', startedAt: new Date().toISOString() }
    const path = `/api/clients/${client.id}/checkins`
    const ahead = await coach.send('POST', path, { ...start, startedAt: '2999-01-01T00:00:00.000Z' })
    expectRefusal(ahead, 'startedAt')
    expect(ahead.body.message).toContain('clock')
    expectRefusal(await coach.send('POST', path, { ...start, caliperId: start.id }), 'caliperId')
    expectRefusal(await coach.send('POST', path, { ...start, recorderId: start.id }), 'recorderId')
    expectRefusal(await coach.send('POST', path, { ...start, conditions: { moon: 'full' } }), 'conditions')
  })

  it('brings two starts at once into one session', async () => {
    const client = someClient({ name: 'Sanna Quill' })
    await coach.send('POST', '/api/clients', client)
    const start = () =>
      coach.send<{ id: string }>('POST', `/api/clients/${client.id}/checkins`, {
        id: someReading().id,
        protocolId: 'laboratory-7',
        startedAt: new Date().toISOString(),
      })
    const [a, b] = await Promise.all([start(), start()])
    expect(a.body.id).toBe(b.body.id)
    expect([a.status, b.status].sort()).toEqual([200, 201])
  })
})
