import { readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { ClientHistory } from '../../shared/schemas/following'
import { Caller, LEAD, someClient, someReading, startedCheckin, type Server } from '../support/api'
import { HOSTILE_TEXTS, HOSTILE_TIMES, hostileBody } from '../support/hostile'
import { enterVisit } from '../support/visits'

const RUNS = Number(process.env.HOSTILE_RUNS ?? 15)
const API = fileURLToPath(new URL('../../server/api', import.meta.url))

let server: Server
let coach: Caller
let routes: [string, () => unknown][] = []
let ids = { client: '', checkin: '', visit: '', staff: '' }

beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
  const { clientId, checkinId } = await startedCheckin(coach, someClient({ photoConsentOn: '2026-01-10' }))
  const other = someClient({ name: 'Finished Rower' })
  await coach.send('POST', '/api/clients', other)
  const visit = await enterVisit(coach, other.id, { daysAgo: 7, values: [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24], kg: 60 })
  const ivo = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', password: 'the-other-oar-holds', role: 'coach' }
  const { body } = await coach.addPerson(ivo)
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
  const [booking, challenge] = [fresh(), fresh()]
  await coach.send('POST', '/api/bookings', {
    clientId,
    assessorId: null,
    minutes: 30,
    visits: [{ id: booking, startsAt: '2027-02-01T10:00:00Z' }],
  })
  const lake = { id: challenge, name: 'Lake', startsOn: '2027-01-01', endsOn: '2027-03-01' }
  await coach.send('POST', '/api/challenges', {
    ...lake,
    figure: 'sum',
    categories: 'none',
    prizeRule: 'share',
    accepted: true,
  })
  const [study, person, pen] = [fresh(), fresh(), fresh()]
  const pens = [{ id: pen, staffId: ids.staff, caliperId: null, agreedOn: day }]
  const repeat = { kind: 'repeat', protocolId: 'laboratory-7', sites: ['triceps'], referencePenId: pen }
  await coach.send('POST', '/api/studies', { id: study, name: 'Again', ...repeat, pens })
  await coach.send('POST', `/api/studies/${study}/people`, { id: person, clientId: other.id })
  routes = [
    ['POST /api/data/exports', () => ({ format: 'readings', clientId: fresh() })],
    [`POST /api/data/files/${fresh()}/look`, () => ({ plan: null })],
    [`POST /api/data/files/${fresh()}/import`, () => ({ id: fresh(), plan: null })],
    ['PUT /api/studio/retention', () => ({ clientMonths: 600, photoMonths: null })],
    ['POST /api/data/retention', () => ({ clientIds: [], photos: false })],
    ['POST /api/studies', () => ({ id: fresh(), name: 'Again', ...repeat, pens: [{ ...pens[0], id: fresh() }] })],
    [`POST /api/studies/${study}/people`, () => ({ id: fresh(), clientId: spare.clientId })],
    [`PUT /api/studies/${study}/pens/${pen}`, () => ({ agreedOn: day })],
    [`POST /api/studies/${study}/turns`, () => ({ id: fresh(), personId: person, penId: pen, startedAt: now() })],
    [`PUT /api/studies/${study}/left-out`, () => ({ reason: 'The marks stood.' })],
    [
      'POST /api/drills',
      () => ({ id: fresh(), drill: 'count', level: 1, score: 0.3, detail: { took: 2.3 }, at: now() }),
    ],
    [`PATCH /api/calipers/${caliper.id}`, () => ({ retired: false })],
    [`POST /api/calipers/${caliper.id}/correction`, () => ({ id: fresh(), taken: false })],
    [
      `POST /api/clients/${other.id}/methods`,
      () => ({ id: fresh(), method: 'dxa', device: 'Clinic', day, percent: 21, told: { bone: 2.4 }, conditions: {} }),
    ],
    ['POST /api/training-plans', () => ({ id: fresh(), staffId: ids.staff, people: 20, byDay: '2027-03-01' })],
    ['POST /api/sign-in', () => ({ email: LEAD.email, password: 'x' })],
    [
      'POST /api/setup',
      () => ({ ...LEAD, studioName: 'A', name: 'B', massUnit: 'kg', lengthUnit: 'cm', timeZone: 'UTC' }),
    ],
    ['POST /api/password-reset', () => ({ token: 'x'.repeat(43), password: 'copper-meadow-violin' })],
    ['PATCH /api/me', () => ({ massUnit: 'kg', lengthUnit: null })],
    ['PUT /api/me/habits', () => ({ sounds: true })],
    ['PUT /api/me/password', () => ({ old: 'x', password: 'short' })],
    ['POST /api/me/confirm', () => ({ password: 'x' })],
    ['PUT /api/me/pin', () => ({ pin: '2846' })],
    ['POST /api/lock/open', () => ({ staffId: ids.staff, pin: '2846' })],
    ['POST /api/me/passkeys', () => ({ name: 'Tablet', made: passkeyAnswer({ attestationObject: 'o2Nm' }) })],
    ['POST /api/sign-in/passkey', () => passkeyAnswer({ authenticatorData: 'SZYN', signature: 'MEUC' })],
    ['POST /api/me/second-factor/confirm', () => ({ code: '123456' })],
    ['PATCH /api/studio', () => ({ name: 'Reedwater', massUnit: 'kg', lengthUnit: 'cm', timeZone: 'UTC' })],
    ['POST /api/staff', () => ({ name: 'Somebody', email: 'ivo@reedwater.example', role: 'coach' })],
    ['PUT /api/mail/address', () => ({ address: 'https://reedwater.example' })],
    [`PATCH /api/staff/${ids.staff}`, () => ({ role: 'coach' })],
    ['POST /api/calipers', () => ({ ...caliper, id: fresh() })],
    [`POST /api/calipers/${caliper.id}/checks`, () => ({ id: fresh(), checkedOn: day, deviationMm: 0.1 })],
    ['POST /api/clients', () => ({ ...form, id: fresh() })],
    [`PATCH /api/clients/${other.id}`, () => ({ ...form, version: 1 })],
    [`POST /api/clients/${clientId}/checkins`, () => ({ id: fresh(), protocolId: 'laboratory-7', startedAt: now() })],
    [`PUT /api/clients/${clientId}/landmarks/triceps`, () => ({ note: 'A mole.' })],
    ['PUT /api/studio/energy', () => ({ offered: true })],
    [`POST /api/clients/${clientId}/intakes`, () => ({ intakes: [{ id: fresh(), day, kcal: 2100, source: 'typed' }] })],
    [
      `POST /api/clients/${clientId}/schedule`,
      () => ({
        id: fresh(),
        cadenceDays: 14,
        pause: { until: '2027-02-01', reason: 'holiday' },
        events: [{ id: fresh(), kind: 'race', day: '2027-03-01', name: 'Reedwater Head' }],
      }),
    ],
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
    [`POST /api/clients/${clientId}/plans/${fresh()}/decisions`, () => ({ id: fresh(), reason: 'Her doctor agrees.' })],
    [`POST /api/clients/${clientId}/own-file`, () => ({ figuresReason: '' })],
    [`POST /api/clients/${clientId}/neutral-leaves`, () => ({ id: fresh(), reason: 'The doctor asked.' })],
    [
      'POST /api/bookings',
      () => ({
        clientId,
        assessorId: null,
        place: 'Back room',
        protocolId: null,
        minutes: 30,
        visits: [{ id: fresh(), startsAt: '2027-03-01T10:00:00Z' }],
      }),
    ],
    [`PATCH /api/bookings/${booking}`, () => ({ sequence: 0, startsAt: '2027-04-01T10:00:00Z', place: '' })],
    ['POST /api/calendar-links', () => ({ of: 'me' })],
    [`POST /api/clients/${clientId}/links`, () => ({ scope: ['weigh-ins'], days: 30 })],
    [`PATCH /api/clients/${clientId}/links/${fresh()}`, () => ({ days: 30, scope: ['girths'] })],
    [`POST /api/clients/${clientId}/lines`, () => ({ id: fresh(), handInId: null, words: 'Well done.' })],
    [
      `PUT /api/clients/${clientId}/reminders`,
      () => ({ id: fresh(), email: 'rower@lake.example', visits: true, handIns: false, handInWeekday: 7 }),
    ],
    [`PUT /api/clients/${clientId}/coach`, () => ({ coachId: null })],
    ['POST /api/staff/invite', () => ({ name: 'Somebody', email: 'ivo@reedwater.example', role: 'coach' })],
    ['PUT /api/studio/rules', () => ({ coachesSee: 'all', quietFrom: 20, quietTo: 8 })],
    [
      'POST /api/absences',
      () => ({ id: fresh(), staffId: ids.staff, standInId: null, fromDay: '2027-01-01', toDay: '2027-01-05' }),
    ],
    [
      'POST /api/sets',
      () => ({
        id: fresh(),
        setId: fresh(),
        name: 'Four',
        sites: ['triceps'],
        policy: 'laboratory',
        girthPolicy: 'tape',
      }),
    ],
    [
      'POST /api/challenges',
      () => ({
        id: fresh(),
        name: 'Lake',
        startsOn: '2027-01-01',
        endsOn: '2027-03-01',
        figure: 'sum',
        categories: 'none',
        teams: [],
        prizeRule: 'share',
        accepted: true,
      }),
    ],
    [
      `POST /api/challenges/${challenge}/entries`,
      () => ({ id: fresh(), clientId, shownAs: 'alias', alias: 'Otter', team: null, consentOn: day }),
    ],
    ['POST /api/link/open', () => ({ token: 'x'.repeat(43) })],
    ['POST /api/link/pin', () => ({ token: 'x'.repeat(43), pin: '4719' })],
    ['POST /api/stop-mail', () => ({ token: 'x'.repeat(43) })],
    ['POST /api/board', () => ({ token: 'x'.repeat(43) })],
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

/** What a browser answers with, in its form and with a challenge nobody asked. */
const passkeyAnswer = (response: object) => ({
  id: 'AAAA',
  rawId: 'AAAA',
  type: 'public-key',
  clientExtensionResults: {},
  response: { clientDataJSON: Buffer.from('{"challenge":"AAAA"}').toString('base64url'), ...response },
})

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
      'POST /api/lock',
      'POST /api/me/confirm/begin',
      'POST /api/me/passkeys/begin',
      'POST /api/me/sessions/*/known',
      'POST /api/sign-in/passkey/begin',
      'POST /api/me/second-factor',
      'POST /api/me/second-factor/codes',
      'POST /api/sign-out',
      'POST /api/staff/*/password-link',
      'POST /api/checkins/*/photos',
      'POST /api/clients/*/hand-ins/*',
      'POST /api/mail/send',
      'POST /api/data/files',
      'POST /api/data/backups',
      'POST /api/data/damage/accept',
      'POST /api/data/imports/*/take-back',
      'POST /api/challenges/*/board',
      'POST /api/challenges/*/close',
      'POST /api/studies/*/close',
      // With a client’s session: tests/server/client-link.
      'POST /api/hand-in/weigh-ins',
      'POST /api/hand-in/weeks',
      'POST /api/hand-in/photos',
      'POST /api/hand-in/leave',
      'POST /api/hand-in/leave-challenge',
      'POST /api/hand-in/reminders',
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
        const runs = /sign-in|password|pin$|lock/.test(path) ? 8 : RUNS
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
          expect(notes).toContain('\u0000')
          return
        }
        const { body } = await coach.send<{ notes: string }>('GET', `/api/clients/${client.id}`)
        expect(body.notes).toBe(notes)
      }),
      { numRuns: 30 },
    )
  })
})
