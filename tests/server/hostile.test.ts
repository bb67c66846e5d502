import { readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { StaffMember } from '../../shared/schemas/account'
import type { ClientHistory } from '../../shared/schemas/following'
import { Caller, LEAD, someClient, someReading, startedCheckin, type Server } from '../support/api'
import { HOSTILE_TEXTS, HOSTILE_TIMES, hostileBody } from '../support/hostile'
import { enterVisit } from '../support/visits'

const RUNS = Number(process.env.HOSTILE_RUNS ?? 40)
const API = fileURLToPath(new URL('../../server/api', import.meta.url))

let server: Server
let coach: Caller
let routes: [string, () => unknown][] = []
let ids = { client: '', checkin: '', visit: '', staff: '' }

beforeAll(async () => {
  server = await startServer()
  coach = new Caller(server)
  await coach.setUp()
  const { clientId, checkinId } = await startedCheckin(coach, someClient({ photoConsentOn: '2026-01-10' }))
  const other = someClient({ name: 'Finished Rower' })
  await coach.send('POST', '/api/clients', other)
  const visit = await enterVisit(coach, other.id, { daysAgo: 7, values: [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24], kg: 60 })
  const ivo = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', password: 'the-other-oar-holds', role: 'coach' }
  const { body } = await coach.send<StaffMember>('POST', '/api/staff', ivo)
  ids = { client: clientId, checkin: checkinId, visit, staff: body.id }
  const spare = await startedCheckin(coach, someClient({ name: 'Spare Rower' }))
  const caliper = { id: uuid(), name: 'Steel', resolutionMm: 0.5 }
  await coach.send('POST', '/api/calipers', caliper)
  const now = () => new Date().toISOString()
  const day = now().slice(0, 10)
  const reading = someReading()
  await coach.send('POST', `/api/checkins/${checkinId}/events`, { readings: [reading], strikes: [] })
  const { id: _, ...form } = someClient()
  const fresh = () => uuid()
  routes = [
    ['POST /api/sign-in', () => ({ email: LEAD.email, password: 'x' })],
    [
      'POST /api/setup',
      () => ({ ...LEAD, studioName: 'A', name: 'B', massUnit: 'kg', lengthUnit: 'cm', timeZone: 'UTC' }),
    ],
    ['POST /api/password-reset', () => ({ token: 'x'.repeat(43), password: 'copper-meadow-violin' })],
    ['PATCH /api/me', () => ({ massUnit: 'kg', lengthUnit: null })],
    ['PUT /api/me/habits', () => ({ sounds: true })],
    ['PUT /api/me/password', () => ({ old: 'x', password: 'short' })],
    ['PATCH /api/studio', () => ({ name: 'Reedwater', massUnit: 'kg', lengthUnit: 'cm', timeZone: 'UTC' })],
    ['POST /api/staff', () => ({ ...ivo, password: 'short' })],
    [`PATCH /api/staff/${ids.staff}`, () => ({ role: 'coach' })],
    ['POST /api/calipers', () => ({ ...caliper, id: fresh() })],
    [`POST /api/calipers/${caliper.id}/checks`, () => ({ id: fresh(), checkedOn: day, deviationMm: 0.1 })],
    ['POST /api/clients', () => ({ ...form, id: fresh() })],
    [`PATCH /api/clients/${other.id}`, () => ({ ...form, version: 1 })],
    [`POST /api/clients/${clientId}/checkins`, () => ({ id: fresh(), protocolId: 'laboratory-7', startedAt: now() })],
    [`PUT /api/clients/${clientId}/landmarks/triceps`, () => ({ note: 'A mole.' })],
    [`POST /api/clients/${clientId}/choices`, () => ({ id: fresh(), conversion: 'siri', equationId: null })],
    [`POST /api/clients/${other.id}/pins`, () => ({ id: fresh(), checkinId: visit })],
    [`PUT /api/clients/${clientId}/worthwhile`, () => ({ fatKg: 1, sumPercent: null })],
    [
      `POST /api/clients/${clientId}/weigh-ins`,
      () => ({ weighIns: [{ id: fresh(), day, value: 71.4, unit: 'kg', dry: true, source: 'typed' }] }),
    ],
    [
      `POST /api/clients/${other.id}/plans`,
      () => ({ id: fresh(), checkinId: visit, kind: 'sum', value: 90, perWeek: 1, unit: 'mm', byDay: day }),
    ],
    [`POST /api/clients/${clientId}/neutral-leaves`, () => ({ id: fresh(), reason: 'The doctor asked.' })],
    [`POST /api/checkins/${spare.checkinId}/void`, () => ({ reason: 'Measured twice.' })],
    [`PATCH /api/checkins/${checkinId}`, () => ({ note: 'strap moved', keptWords: null })],
    [
      `POST /api/checkins/${checkinId}/events`,
      () => ({
        readings: [someReading({ method: null })],
        strikes: [{ readingId: reading.id, struckAt: now() }],
        skips: [{ id: fresh(), site: 'chest', reason: 'A graze.', at: now() }],
        remarks: [{ id: fresh(), readingId: reading.id, words: 'Skin moist.', at: now() }],
      }),
    ],
  ]
})
afterAll(() => server.remove())

/** Routes with a body, as "METHOD path" with every id as one letter. */
function withBodies(): string[] {
  return readdirSync(API, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(post|patch|put)\.ts$/.test(file))
    .map((file) =>
      file.replace(
        /^(.*?)(?:\/index)?\.(post|patch|put)\.ts$/,
        (_, path, method) => `${method.toUpperCase()} /api/${path}`,
      ),
    )
    .map((route) => route.replace(/\[\w+\]/g, '*').replace(/\/index$/, ''))
}

describe('whatever is sent', () => {
  it('is tried at every route that reads JSON', () => {
    const tried = routes.map(([route]) => route.replace(/[\da-f-]{36}/g, '*').replace('/triceps', '/*'))
    // Without a body of JSON: signing out, making a link, and a picture's bytes.
    const bare = [
      'POST /api/sign-out',
      'POST /api/staff/*/password-link',
      'POST /api/checkins/*/photos',
      'PATCH /api/photos/*',
    ]
    expect(withBodies().filter((route) => !tried.includes(route) && !bare.includes(route))).toEqual([])
  })

  it(
    'is answered without a failure of ours, in bodies made from what each route takes',
    { timeout: 300_000 },
    async () => {
      for (const [route, fits] of routes) {
        const [method = '', path = ''] = route.split(' ')
        // A password is slow to look at, and a changed own one would end this session.
        const runs = /sign-in|password/.test(path) ? 8 : RUNS
        await fc.assert(
          fc.asyncProperty(
            fc.constant(null).chain(() => hostileBody(fits())),
            async (body) => {
              const { status, text } = await coach.send(method, path, body)
              expect(status, `${route} with ${JSON.stringify(body)}: ${text}`).toBeLessThan(500)
            },
          ),
          { numRuns: runs },
        )
      }
      expect((await coach.send('GET', '/api/me')).status).toBe(200)
    },
  )

  it('is answered in addresses and questions', { timeout: 120_000 }, async () => {
    const values = [...HOSTILE_TEXTS, ...HOSTILE_TIMES].map((text) => {
      try {
        return encodeURIComponent(text)
      } catch {
        // Half a character cannot be written in an address; its bytes can.
        return '%ED%A0%80'
      }
    })
    for (const value of values) {
      const paths = [
        `/api/clients?q=${value.slice(0, 2000)}`,
        `/api/clients?from=${value.slice(0, 2000)}`,
        `/api/record?day=${value.slice(0, 2000)}`,
        `/api/record?kind=${value.slice(0, 2000)}`,
        `/api/clients/${value.slice(0, 2000)}`,
        `/api/clients/${ids.client}/take-home?from=${value.slice(0, 2000)}`,
        `/sign-in?next=${value.slice(0, 2000)}`,
      ]
      for (const path of paths) {
        const { status } = await coach.bytes(path)
        expect(status, path).toBeLessThan(500)
      }
    }
  })

  it('leaves every history readable: nothing of it has bent a fact', async () => {
    for (const client of (await coach.send<{ clients: { id: string }[] }>('GET', '/api/clients')).body.clients) {
      const { status, body } = await coach.send<ClientHistory>('GET', `/api/clients/${client.id}/history`)
      expect(status).toBe(200)
      for (const { readings } of body.checkins) {
        for (const one of readings) {
          expect(one.id).toMatch(/^[\da-f-]{36}$/)
          expect(Number.isFinite(one.value)).toBe(true)
        }
      }
    }
  })

  it('reads back as it was written, where text is taken', async () => {
    await fc.assert(
      fc.asyncProperty(fc.string({ unit: 'binary', minLength: 1, maxLength: 60 }), async (notes) => {
        const client = someClient({ notes })
        const { status } = await coach.send('POST', '/api/clients', client)
        if (status !== 201) {
          expect(notes).toMatch(/\u0000/)
          return
        }
        const { body } = await coach.send<{ notes: string }>('GET', `/api/clients/${client.id}`)
        expect(body.notes).toBe(notes)
      }),
      { numRuns: 30 },
    )
  })
})
