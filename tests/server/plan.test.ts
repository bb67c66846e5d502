import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { planLine } from '../../core/plan'
import { followedEnds } from '../../shared/following'
import { targetOf } from '../../shared/plan'
import type { ClientPage } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import type { PlanInput, PlanRecord } from '../../shared/schemas/plan'
import { Caller, LEAD, type Server, someClient, startedCheckin } from '../support/api'
import { enterVisit } from '../support/visits'

const FOLDS = [14, 12, 8, 10, 16, 20, 22]
const maren = someClient()
const fifteen = `${new Date().getFullYear() - 15}-01-10`

let server: Server
let coach: Caller
let checkinId = ''
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
  await coach.send('POST', '/api/clients', maren)
  checkinId = await enterVisit(coach, maren.id, { daysAgo: 60, values: FOLDS, kg: 74 })
})
afterAll(() => server.remove())

const plansOf = (clientId: string) => `/api/clients/${clientId}/plans`

function somePlan(change: Partial<PlanInput> = {}): PlanInput {
  return {
    id: uuid(),
    checkinId,
    kind: 'fat',
    value: 12,
    perWeek: 0.2,
    unit: 'kg',
    byDay: null,
    energy: null,
    ...change,
  }
}

const keep = (input: object, clientId = maren.id) => coach.send<PlanRecord[]>('POST', plansOf(clientId), input)
const refused = (input: object, clientId = maren.id) => coach.send('POST', plansOf(clientId), input)

async function history(clientId = maren.id): Promise<ClientHistory> {
  return (await coach.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)).body
}

describe('a plan', () => {
  it('is kept as entered, once however often it is sent, and the newest comes first', async () => {
    const first = somePlan({ value: 27, perWeek: 0.4, unit: 'lb', byDay: '2027-03-01' })
    await keep(first)
    const again = await keep(first)
    expect(again.status).toBe(200)
    expect(again.body).toEqual([{ ...first, at: expect.any(String), by: 'Runa Bexley', endedAt: null }])
    const { body } = await keep(somePlan({ kind: 'sum', value: 80, perWeek: 1, unit: 'mm' }))
    expect(body.map(({ kind }) => kind)).toEqual(['sum', 'fat'])
    expect((await history()).plans).toEqual(body)
  })

  it('ends once, stays on record and lets another take its place', async () => {
    const { body } = await keep(somePlan())
    const [newest] = body
    const end = () => coach.send<PlanRecord[]>('DELETE', `${plansOf(maren.id)}/${newest?.id}`)
    const ended = await end()
    expect(ended.body[0]?.endedAt).toEqual(expect.any(String))
    expect(ended.body).toHaveLength(body.length)
    expect((await end()).status).toBe(404)
    expect((await coach.send('DELETE', `${plansOf(maren.id)}/none`)).status).toBe(404)
    expect((await keep(somePlan())).body[0]?.endedAt).toBeNull()
  })

  it('is on the same line in the page as on the server', async () => {
    const facts = await history()
    const [start] = followedEnds(facts.checkins, facts)
    const [plan] = facts.plans
    if (!start || !plan) throw new Error('a plan and its start')
    const line = planLine(targetOf(plan), start)
    // 74 kg by Jackson, Pollock & Ward 1980 and Siri 1961.
    const sum = FOLDS.reduce((a, b) => a + b, 0)
    const years = new Date(Date.now() - 60 * 86_400_000).getFullYear() - 1992
    const near = [years, years - 1].map(
      (age) => 0.74 * (495 / (1.097 - 0.00046971 * sum + 0.00000056 * sum ** 2 - 0.00012828 * age) - 450),
    )
    expect(near.some((fat) => Math.abs(fat - (line?.from ?? NaN)) < 1e-6)).toBe(true)
    expect(line?.weeks).toBeCloseTo(((line?.from ?? NaN) - 12) / 0.2, 9)
  })
})

describe('a plan that cannot be kept', () => {
  it('says why at the field: shape', async () => {
    for (const [change, field, words] of [
      [{ kind: 'shape' }, 'kind', /set in/],
      [{ value: 'lean' }, 'value', /as a number/],
      [{ value: 0 }, 'value', /above zero/],
      [{ perWeek: -0.2 }, 'perWeek', /above zero/],
      [{ unit: 'mm' }, 'unit', /not set in this unit/],
      [{ kind: 'percent', unit: '%', value: 90 }, 'value', /below 75/],
      [{ byDay: '2027-02-30' }, 'byDay', /a day/],
      [{ checkinId: 'last' }, 'checkinId', /no such check-in/],
    ] as const) {
      const { status, body } = await refused({ ...somePlan(), ...change })
      expect(status, JSON.stringify(change)).toBe(422)
      const found = body.fields.find((one) => one.field === field)
      expect(found?.message, JSON.stringify(change)).toMatch(words)
    }
    expect((await refused({ ...somePlan(), hurry: true })).text).toMatch(/not asked for here: hurry/)
  })

  it('says why at the field: limits', async () => {
    const before = (await history()).plans.length
    for (const [change, field, words] of [
      [{ value: 4 }, 'value', /essential fat/],
      [{ perWeek: 0.8 }, 'perWeek', /no more than 0\.74/],
      [{ kind: 'weight', value: 40 }, 'value', /BMI of 13\.2, under 18\.5/],
      [{ perWeek: 0.001 }, 'perWeek', /two years/],
    ] as const) {
      const { status, body } = await refused({ ...somePlan(), ...change })
      expect(status, JSON.stringify(change)).toBe(422)
      expect(body.fields.find((one) => one.field === field)?.message, JSON.stringify(change)).toMatch(words)
    }
    expect((await history()).plans).toHaveLength(before)
  })

  it('is refused for people whom no deficit is for, as the record stands now', async () => {
    const young = someClient({ name: 'Junior Sculler', birthDate: '2012-05-01', guardianConsent: true })
    const wary = someClient({ name: 'Wary Rower' })
    for (const client of [young, wary]) await coach.send('POST', '/api/clients', client)
    const visits = await Promise.all(
      [young, wary].map(({ id }) => enterVisit(coach, id, { daysAgo: 10, values: FOLDS, kg: 60 })),
    )
    const under = await refused(somePlan({ checkinId: visits[0] ?? '', kind: 'sum', unit: 'mm', value: 90 }), young.id)
    expect(under.status).toBe(422)
    expect(under.body.message).toMatch(/No plan to lose is kept\. Under 18/)
    const loss = somePlan({ checkinId: visits[1] ?? '', kind: 'sum', unit: 'mm', value: 90, perWeek: 1 })
    expect((await keep(loss, wary.id)).status).toBe(200)
    const { id, ...input } = wary
    await coach.send('PATCH', `/api/clients/${id}`, { ...input, version: 1, flags: ['eating-disorder'] })
    const after = await refused({ ...loss, id: uuid() }, wary.id)
    expect(after.status).toBe(422)
    expect(after.body.message).toMatch(/registered dietitian/)
  })

  it.each<[string, object, { values: number[]; kg: number }, object, RegExp]>([
    [
      'a woman to 10.5 %',
      {},
      { values: FOLDS, kg: 60 },
      { kind: 'percent', unit: '%', value: 10.5, perWeek: 0.35 },
      /10\.5 % fat, under 13/,
    ],
    [
      'a man to 4 %',
      { sex: 'male' },
      { values: FOLDS, kg: 80 },
      { kind: 'percent', unit: '%', value: 4, perWeek: 0.3 },
      /4\.0 % fat, under 5/,
    ],
    [
      'a sum of seven folds from 102 to 30 mm',
      {},
      { values: FOLDS, kg: 74 },
      { kind: 'sum', unit: 'mm', value: 30, perWeek: 1 },
      /thinner than those|% fat, under 13/,
    ],
    [
      'to a BMI of 13.8 with weight and height alone',
      { heightCm: 170 },
      { values: [], kg: 60 },
      { kind: 'weight', unit: 'kg', value: 40, perWeek: 0.3 },
      /BMI of 13\.8/,
    ],
    [
      '6 kg gained at fifteen',
      { birthDate: fifteen, guardianConsent: true },
      { values: [], kg: 60 },
      { kind: 'weight', unit: 'kg', value: 66, perWeek: 0.3 },
      /Under 18/,
    ],
    [
      '42 kg gained',
      {},
      { values: FOLDS, kg: 74 },
      { kind: 'weight', unit: 'kg', value: 116, perWeek: 0.5 },
      /no such gain/,
    ],
    [
      '2 kg gained a week',
      {},
      { values: FOLDS, kg: 74 },
      { kind: 'weight', unit: 'kg', value: 80, perWeek: 2 },
      /gained a week/,
    ],
    [
      'a loss at 78 with a BMI of 20.3',
      { birthDate: '1948-03-14', heightCm: 172 },
      { values: [], kg: 60 },
      { kind: 'weight', unit: 'kg', value: 58, perWeek: 0.2 },
      /from 65 years/,
    ],
  ])('%s is not kept, whatever the page says', async (name, who, { values, kg }, target, sentence) => {
    const one = someClient({ name: `Not kept: ${name}`, ...who })
    expect((await coach.send('POST', '/api/clients', one)).status).toBe(201)
    const start = await enterVisit(coach, one.id, { daysAgo: 10, values, kg })
    const { status, text } = await refused(somePlan({ checkinId: start, ...target }), one.id)
    expect([status, text]).toEqual([422, expect.stringMatching(sentence)])
    expect((await history(one.id)).plans).toEqual([])
  })

  it('starts from a finished check-in of this client and nothing else', async () => {
    const other = await startedCheckin(coach, someClient({ name: 'Tobin Hale' }))
    const mine = await enterVisit(coach, other.clientId, { daysAgo: 5, values: FOLDS, kg: 80 }).catch(() => '')
    for (const start of [other.checkinId, mine || uuid(), uuid()]) {
      const { status, body } = await refused(somePlan({ checkinId: start }))
      expect(status).toBe(422)
      expect(body.fields[0]?.field).toBe('checkinId')
    }
    const open = await refused(somePlan({ checkinId: other.checkinId }), other.clientId)
    expect(open.body.fields[0]?.message).toMatch(/finished check-in/)
    expect((await refused(somePlan(), uuid())).status).toBe(404)
  })
})

describe('the demo data', () => {
  it('holds plans that core would keep', async () => {
    const demo = await startServer({ filled: 'demo' })
    try {
      const runa = new Caller(demo)
      await runa.signIn({ email: 'runa@reedwater.example', password: 'reeds-and-oars' })
      const { body } = await runa.send<ClientPage>('GET', '/api/clients')
      let found = 0
      for (const { id } of body.clients) {
        const facts = (await runa.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body
        for (const { checkinId: start, kind, value, perWeek, unit } of facts.plans) {
          const plan = { id: uuid(), checkinId: start, kind, value, perWeek, unit }
          expect((await runa.send('POST', plansOf(id), plan)).status, id).toBe(200)
          found += 1
        }
      }
      expect(found).toBeGreaterThan(1)
    } finally {
      await demo.remove()
    }
  })
})
