import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { addDays } from '../../core/calendar'
import type { RegisteredCaliper } from '../../shared/schemas/caliper'
import type { DrillRound } from '../../shared/schemas/drill'
import type { ClientHistory } from '../../shared/schemas/following'
import type { MethodAgreement, OtherRecord } from '../../shared/schemas/other-method'
import type { Progress } from '../../shared/schemas/progress'
import { followRecord } from '../../shared/followed-record'
import { Caller, LEAD, type Server, someClient } from '../support/api'
import { wordsOf } from '../support/pdf'
import { enterVisit } from '../support/visits'

let server: Server
let lead: Caller
let ivo: Caller
let ids = { lead: '', ivo: '' }
const IVO = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', password: 'the-other-oar-holds', role: 'coach' }
const today = new Date().toISOString().slice(0, 10)
const FOLDS = [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24]

beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  lead = new Caller(server)
  await lead.signIn(LEAD)
  const me = await lead.send<{ staff: { id: string } }>('GET', '/api/me')
  const { body } = await lead.addPerson(IVO)
  ids = { lead: me.body.staff.id, ivo: body.id }
  ivo = new Caller(server)
  await ivo.signIn(IVO)
})
afterAll(() => server.remove())

async function someone(change: Record<string, unknown> = {}): Promise<string> {
  const client = someClient({ name: `Rower ${uuid().slice(-5)}`, ...change })
  await lead.send('POST', '/api/clients', client)
  return client.id
}

describe('drills', () => {
  const round = (change: Record<string, unknown> = {}) => ({
    id: uuid(),
    drill: 'count',
    level: 1,
    score: 0.31,
    detail: { took: 2.31 },
    at: new Date().toISOString(),
    ...change,
  })

  it('keep a round once, for who played it alone', async () => {
    const one = round()
    expect((await ivo.send('POST', '/api/drills', one)).status).toBe(201)
    expect((await ivo.send<DrillRound[]>('POST', '/api/drills', one)).body).toHaveLength(1)
    expect((await lead.send<DrillRound[]>('GET', '/api/drills')).body).toEqual([])
  })

  it('refuse what is no round', async () => {
    for (const [change, field] of [
      [{ drill: 'juggle' }, 'drill'],
      [{ score: -1 }, 'score'],
      [{ level: 9 }, 'level'],
      [{ score: Number.MAX_VALUE }, 'score'],
    ] as const) {
      const { status, body } = await ivo.send('POST', '/api/drills', round(change))
      expect([status, body.fields[0]?.field]).toEqual([422, field])
    }
  })
})

describe('calipers', () => {
  const steps = (off: number) => [0, 10, 20, 30, 40].map((blockMm) => ({ blockMm, readMm: blockMm + off }))
  const register = async () => (await lead.send<RegisteredCaliper[]>('GET', '/api/calipers/register')).body

  it('have a kind, a log of block steps, and a correction that is offered only where a line explains it', async () => {
    const id = uuid()
    await lead.send('POST', '/api/calipers', {
      id,
      name: 'Travel',
      kind: 'plastic-click',
      jawPressure: 8,
      openingMm: 60,
    })
    const check = (given: object) =>
      lead.send('POST', `/api/calipers/${id}/checks`, { id: uuid(), checkedOn: today, ...given })
    expect((await check({})).body.fields[0]?.message).toBe('Note what it read at a step of the block at least.')
    expect((await check({ steps: [{ blockMm: -1, readMm: 4 }] })).status).toBe(422)
    const none = await lead.send('POST', `/api/calipers/${id}/correction`, { id: uuid(), taken: true })
    expect(none.body.message).toMatch(/offers no correction/)
    expect((await check({ steps: steps(0.8), pressure: 9.5 })).status).toBe(201)
    const [one] = (await register()).filter((caliper) => caliper.id === id)
    expect(one).toMatchObject({ kind: 'plastic-click', deviationMm: 0.8, retired: false })
    expect(one?.checks[0]).toMatchObject({ steps: steps(0.8), pressure: 9.5 })
    const taken = await lead.send<RegisteredCaliper[]>('POST', `/api/calipers/${id}/correction`, {
      id: uuid(),
      taken: true,
    })
    expect(taken.body.find((caliper) => caliper.id === id)?.corrections).toEqual([
      { fromDay: today, correction: { offsetMm: expect.closeTo(0.8, 6), gain: expect.closeTo(1, 6) } },
    ])
  })

  it('that are corrected are so from that day on, in what a page and the list work from; readings stay', async () => {
    const id = uuid()
    await lead.send('POST', '/api/calipers', { id, name: 'Worn' })
    await lead.send('POST', `/api/calipers/${id}/checks`, { id: uuid(), checkedOn: today, steps: steps(1) })
    const clientId = await someone()
    await enterVisit(lead, clientId, { daysAgo: 20, values: FOLDS, kg: 70, caliperId: id })
    await enterVisit(lead, clientId, { daysAgo: 0, values: FOLDS, kg: 70, caliperId: id })
    await lead.send('POST', `/api/calipers/${id}/correction`, { id: uuid(), taken: true })
    const { body } = await lead.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)
    const sums = followRecord(body).ends.map(({ result }) => result.sumMm ?? 0)
    expect((sums[0] ?? 0) - (sums[1] ?? 0)).toBeCloseTo(7, 6)
    expect(body.checkins.at(-1)?.readings.find(({ site }) => site === 'triceps')?.value).toBe(16.5)
    const list = await lead.send<{ clients: { id: string; sum: { value: number } | null }[] }>('GET', '/api/clients')
    const line = list.body.clients.find((one) => one.id === clientId)
    expect(line?.sum?.value).toBeCloseTo(sums[1] ?? NaN, 6)
    // Put away, its history stays corrected.
    await lead.send('PATCH', `/api/calipers/${id}`, { retired: true })
    const after = await lead.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)
    expect(followRecord(after.body).ends.at(-1)?.result.sumMm).toBeCloseTo(sums[1] ?? NaN, 6)
    const offered = await lead.send<{ id: string }[]>('GET', '/api/calipers')
    expect(offered.body.map((one) => one.id)).not.toContain(id)
    // Given up, nothing is taken off any more.
    await lead.send('POST', `/api/calipers/${id}/correction`, { id: uuid(), taken: false })
    const plain = await lead.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)
    expect(followRecord(plain.body).ends.at(-1)?.result.sumMm).toBeCloseTo(sums[0] ?? NaN, 6)
  })

  it('that are nowhere are not found', async () => {
    expect((await lead.send('PATCH', `/api/calipers/${uuid()}`, { retired: true })).status).toBe(404)
    expect((await lead.send('POST', `/api/calipers/${uuid()}/correction`, { id: uuid(), taken: false })).status).toBe(
      404,
    )
  })
})

describe('other methods', () => {
  const scale = (change: Record<string, unknown> = {}) => ({
    id: uuid(),
    method: 'bia-hand-foot',
    device: 'Scale by the door',
    day: today,
    percent: 24.5,
    told: { visceral: 6 },
    conditions: { hydration: 'usual', implant: 'no' },
    ...change,
  })

  it('are noted with device and conditions, once, struck and gone from the list', async () => {
    const path = `/api/clients/${await someone()}/methods`
    const one = scale()
    expect((await ivo.send('POST', path, one)).status).toBe(201)
    const { body } = await ivo.send<OtherRecord[]>('POST', path, one)
    expect(body).toMatchObject([{ device: 'Scale by the door', told: { visceral: 6 }, by: 'Ivo Tarn' }])
    expect((await ivo.send<OtherRecord[]>('DELETE', `${path}/${one.id}`)).body).toEqual([])
    expect((await ivo.send('DELETE', `${path}/${one.id}`)).status).toBe(404)
  })

  it('refuse an implanted device, X-rays in pregnancy, numbers no device tells', async () => {
    const path = `/api/clients/${await someone()}/methods`
    const fault = async (change: Record<string, unknown>, at = path) => {
      const { status, body } = await lead.send('POST', at, scale(change))
      return [status, body.fields[0]?.message]
    }
    expect(await fault({ conditions: { implant: 'yes' } })).toEqual([422, expect.stringContaining('implanted device')])
    expect(await fault({ percent: 0 })).toEqual([422, 'A percentage of fat lies between 1 and 75.'])
    expect(await fault({ told: { soul: 21 } })).toEqual([422, 'This method tells no such number.'])
    expect(await fault({ told: { visceral: 900 } })).toEqual([422, 'Visceral figure lies between 0 and 60.'])
    expect(await fault({ device: ' ' })).toEqual([422, 'Name the device: another one is another line.'])
    expect(await fault({ day: addDays(today, 5) })).toEqual([422, expect.any(String)])
    const expecting = `/api/clients/${await someone({ sex: 'female', flags: ['pregnant'] })}/methods`
    expect(await fault({ method: 'dxa', told: {}, conditions: {} }, expecting)).toEqual([
      409,
      'No X-rays in pregnancy.',
    ])
    const silent = `/api/clients/${await someone({ consentOn: null })}/methods`
    expect((await lead.send('POST', silent, scale())).status).toBe(409)
  })

  it('agree with the folds by device, everybody once, from three clients on', async () => {
    const device = 'Tank at the lake'
    const agreement = async () =>
      (await lead.send<MethodAgreement[]>('GET', '/api/methods/agreement')).body.find((one) => one.device === device)
    for (let i = 0; i < 3; i += 1) {
      const clientId = await someone()
      await enterVisit(lead, clientId, { daysAgo: 3, values: FOLDS.map((mm) => mm + 2 * i), kg: 70 })
      const { body } = await lead.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)
      const estimate = followRecord(body).ends[0]?.result.estimate
      const percent = estimate && 'percent' in estimate ? estimate.percent : NaN
      const tank = { method: 'hydrostatic', device, told: {}, conditions: {} }
      await lead.send(
        'POST',
        `/api/clients/${clientId}/methods`,
        scale({ ...tank, percent: 40, day: addDays(today, -60) }),
      )
      await lead.send('POST', `/api/clients/${clientId}/methods`, scale({ ...tank, percent: percent + 3 }))
      if (i === 1) expect(await agreement()).toMatchObject({ clients: 2, agreement: null })
    }
    const found = await agreement()
    expect(found?.clients).toBe(3)
    expect(found?.agreement?.bias.value).toBeCloseTo(3, 6)
    // Never one history with the folds.
    expect(JSON.stringify((await lead.send('GET', `/api/clients/${await someone()}/history`)).body)).not.toContain(
      device,
    )
  })
})

describe('progress', () => {
  it('is one’s own for a coach, everybody’s for the lead, with repeats by site', async () => {
    const clientId = await someone()
    for (const daysAgo of [30, 20, 10, 5, 1]) await enterVisit(ivo, clientId, { daysAgo, values: FOLDS, kg: 70 })
    const own = (await ivo.send<Progress[]>('GET', '/api/progress')).body
    expect(own.map(({ staffId }) => staffId)).toEqual([ids.ivo])
    expect(own[0]).toMatchObject({ people: 1, checkins: 5 })
    expect(own[0]?.sites.find(({ site }) => site === 'thigh')).toMatchObject({ repeats: 5, now: { belowMarks: true } })
    const all = (await lead.send<Progress[]>('GET', '/api/progress')).body
    expect(all.map(({ staffId }) => staffId)).toEqual(expect.arrayContaining([ids.ivo, ids.lead]))
  })

  it('has a plan only a lead sets, for a day to come', async () => {
    const plan = (change: Record<string, unknown> = {}) => ({
      id: uuid(),
      staffId: ids.ivo,
      people: 20,
      byDay: addDays(today, 60),
      ...change,
    })
    expect((await ivo.send('POST', '/api/training-plans', plan())).status).toBe(403)
    const past = await lead.send('POST', '/api/training-plans', plan({ byDay: today }))
    expect([past.status, past.body.fields[0]?.field]).toEqual([422, 'byDay'])
    expect((await lead.send('POST', '/api/training-plans', plan({ staffId: uuid() }))).status).toBe(422)
    expect((await lead.send('POST', '/api/training-plans', plan({ people: 0 }))).body.fields[0]?.message).toBe(
      'At least one person.',
    )
    const { body } = await lead.send<Progress[]>('POST', '/api/training-plans', plan())
    expect(body.find(({ staffId }) => staffId === ids.ivo)?.plan).toMatchObject({ people: 20, fromDay: today, done: 0 })
  })

  it('is printed: one’s own, for a lead anybody’s', async () => {
    const { status, bytes, headers } = await ivo.bytes(`/api/progress/${ids.ivo}/record`)
    expect([status, headers.get('content-type')]).toEqual([200, 'application/pdf'])
    const words = (await wordsOf(bytes)).join(' ')
    expect(words).toContain('Ivo Tarn')
    expect(words).toContain('Repeats by site')
    expect(words).toContain('Thigh')
    expect((await ivo.bytes(`/api/progress/${ids.lead}/record`)).status).toBe(403)
    expect((await lead.bytes(`/api/progress/${ids.ivo}/record`)).status).toBe(200)
    expect((await lead.bytes(`/api/progress/${uuid()}/record`)).status).toBe(404)
  })
})
