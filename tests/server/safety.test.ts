import fc from 'fast-check'
import { strFromU8, unzipSync } from 'fflate'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import { FLAGS, type Flag } from '../../core/cautions'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { ChallengeFacts } from '../../shared/schemas/challenge'
import type { Floor } from '../../shared/schemas/checkin'
import type { Client, ClientInput } from '../../shared/schemas/client'
import type { DataJob } from '../../shared/schemas/data'
import type { ClientHistory } from '../../shared/schemas/following'
import type { ClientHome, FromHome } from '../../shared/schemas/link'
import type { PlanRecord } from '../../shared/schemas/plan'
import { Caller, LEAD, someClient, type Server } from '../support/api'
import { endOf } from '../support/data'
import { wordsOf } from '../support/pdf'
import { enterVisit } from '../support/visits'

/*
 * The gate at every door of the server: what it stops is never stored, what it comes up against later is suspended until a
 * coach decides, and nothing that a client in neutral mode may reach holds a number about their body. Limits as in
 * core/safety/limits.ts, whose sources are named there (recalled).
 */

const FOLDS = [24, 22, 14, 18, 28, 36, 40]
const today = new Date().toISOString().slice(0, 10)
const years = (count: number) => addDays(today, -Math.round(365.25 * count))

let server: Server
let coach: Caller
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
  await coach.send('PUT', '/api/studio/energy', { offered: true })
})
afterAll(() => server.remove())

/** Somebody measured once or more, the last visit two days ago. */
async function measured(change: Partial<ClientInput> = {}, { kg = 74, visits = 1, values = FOLDS } = {}) {
  const client = someClient({ photoConsentOn: '2026-01-10', ...change })
  const added = await coach.send('POST', '/api/clients', client)
  expect(added.status, added.text).toBe(201)
  let checkinId = ''
  for (let i = visits - 1; i >= 0; i -= 1)
    checkinId = await enterVisit(coach, client.id, { daysAgo: 2 + 28 * i, values, kg })
  return { id: client.id, checkinId }
}
const plan = (checkinId: string, change: object = {}) => ({
  id: uuid(),
  checkinId,
  kind: 'weight',
  value: 70,
  perWeek: 0.3,
  unit: 'kg',
  byDay: null,
  energy: null,
  ...change,
})
const historyOf = async (id: string) => (await coach.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body
const floor = async () => (await coach.send<Floor>('GET', '/api/floor')).body
async function change(id: string, changed: Partial<ClientInput>) {
  const { id: _, archived: _archived, ...record } = (await coach.send<Client>('GET', `/api/clients/${id}`)).body
  const answer = await coach.send('PATCH', `/api/clients/${id}`, { ...record, ...changed })
  expect(answer.status, answer.text).toBe(200)
}
const makeLink = (id: string, scope: string[], reason?: string) =>
  coach.send<{ link: string; fromHome: FromHome }>('POST', `/api/clients/${id}/links`, {
    scope,
    days: 30,
    ...(reason ? { reason } : {}),
  })
async function phoneOf(id: string, scope: string[], reason?: string) {
  const { status, text, body } = await makeLink(id, scope, reason)
  expect(status, text).toBe(201)
  const phone = new Caller(server)
  await phone.send('POST', '/api/link/pin', { token: body.link.split('#')[1], pin: '4719' })
  return phone
}
const weighIn = () => ({ id: uuid(), day: today, value: 73.4, unit: 'kg' })

describe('what was agreed and a flag comes up against', () => {
  it('is suspended with the reason on the client page, on the Floor, at the link, in the challenge, on paper', async () => {
    const { id, checkinId } = await measured({ name: 'Aila Reed' })
    expect((await coach.send('POST', `/api/clients/${id}/plans`, plan(checkinId))).status).toBe(200)
    const phone = await phoneOf(id, ['weigh-ins', 'take-home'])
    expect((await phone.send('POST', '/api/hand-in/weigh-ins', weighIn())).status).toBe(200)
    const challenge = uuid()
    await coach.send('POST', '/api/challenges', {
      id: challenge,
      name: 'Ten weeks',
      startsOn: today,
      endsOn: addDays(today, 70),
      figure: 'sum',
      categories: 'none',
      prizeRule: 'share',
      accepted: true,
    })
    const entry = { id: uuid(), clientId: id, shownAs: 'name', alias: '', team: null, consentOn: today }
    expect((await coach.send('POST', `/api/challenges/${challenge}/entries`, entry)).status).toBe(201)
    expect((await historyOf(id)).suspensions).toEqual([])

    await change(id, { flags: ['pregnant'] })
    const { suspensions = [], plans } = await historyOf(id)
    expect(suspensions.map(({ about, code, mayGoOn }) => [about, code, mayGoOn])).toEqual([
      ['plan', 'pregnant', false],
      ['challenge', 'pregnant', false],
      ['daily-weight', 'pregnant', false],
    ])
    for (const { sentence } of suspensions) expect(sentence).toContain('Pregnant')
    const waiting = (await floor()).suspended.find(({ clientId }) => clientId === id)
    expect(waiting?.suspensions).toHaveLength(3)
    // The phone asks for no weight any more, and none is taken.
    expect((await phone.send<ClientHome>('GET', '/api/hand-in')).body.scope).toEqual(['take-home'])
    expect((await phone.send('POST', '/api/hand-in/weigh-ins', weighIn())).status).toBe(403)
    const facts = (await coach.send<ChallengeFacts>('GET', `/api/challenges/${challenge}`)).body
    expect(facts.entries[0]).toMatchObject({ runner: null, suspended: expect.stringContaining('Pregnant') })
    // A stop cannot be decided away; the coach ends what was agreed.
    const decision = { id: uuid(), reason: 'She wants to go on.' }
    const refused = await coach.send('POST', `/api/clients/${id}/plans/${plans[0]?.id}/decisions`, decision)
    expect([refused.status, refused.body.message]).toEqual([409, expect.stringContaining('cannot go on')])
    await coach.send('DELETE', `/api/clients/${id}/plans/${plans[0]?.id}`)
    await coach.send('DELETE', `/api/challenges/${challenge}/entries/${entry.id}`)
    const links = (await coach.send<FromHome>('GET', `/api/clients/${id}/from-home`)).body.links
    expect(links[0]).toMatchObject({ scope: ['weigh-ins', 'take-home'], counted: ['take-home'] })
    await coach.send('PATCH', `/api/clients/${id}/links/${links[0]?.id}`, { scope: ['take-home'] })
    expect((await historyOf(id)).suspensions).toEqual([])
    expect((await floor()).suspended.map(({ clientId }) => clientId)).not.toContain(id)
  })

  it('goes on with a reason where the flag asks for care alone, until the next one', async () => {
    const { id, checkinId } = await measured({ name: 'Ida Sedge' })
    const kept = await coach.send<PlanRecord[]>('POST', `/api/clients/${id}/plans`, plan(checkinId))
    const planId = kept.body[0]?.id
    await change(id, { flags: ['fainting'] })
    expect((await historyOf(id)).suspensions).toMatchObject([{ about: 'plan', code: 'fainting', mayGoOn: true }])
    const decide = (reason: string) =>
      coach.send('POST', `/api/clients/${id}/plans/${planId}/decisions`, { id: uuid(), reason })
    expect((await decide('')).status).toBe(422)
    expect((await decide('Her sports doctor agrees.')).status).toBe(201)
    expect((await historyOf(id)).suspensions).toEqual([])
    expect((await decide('Again.')).status).toBe(404)
    await change(id, { flags: ['fainting', 'stress-fracture'] })
    expect((await historyOf(id)).suspensions).toMatchObject([{ code: 'stress-fracture' }])
  })

  it.each([
    ['turns 65', { birthDate: years(66) }, 'older'],
    ['gets a medication that lowers appetite', { flags: ['appetite-medication'] as Flag[] }, 'appetite-medication'],
    ['turns out to be under 18', { birthDate: years(17) }, 'under-18'],
  ])('counts also for somebody who %s', async (_, changed, code) => {
    // BMI 22.5: enough for a plan at 40, too little from 65 on.
    const { id, checkinId } = await measured({ birthDate: years(40) }, { kg: 68 })
    const kept = await coach.send('POST', `/api/clients/${id}/plans`, plan(checkinId, { value: 65 }))
    expect(kept.status, kept.text).toBe(200)
    await change(id, changed)
    expect((await historyOf(id)).suspensions?.[0]).toMatchObject({ about: 'plan', code })
  })

  it('counts for a weight that has fallen under a limit', async () => {
    const { id, checkinId } = await measured({ birthDate: years(40) }, { kg: 66 })
    expect((await coach.send('POST', `/api/clients/${id}/plans`, plan(checkinId, { value: 62 }))).status).toBe(200)
    await enterVisit(coach, id, { daysAgo: 0, values: FOLDS, kg: 55 })
    expect((await historyOf(id)).suspensions?.[0]).toMatchObject({ about: 'plan', code: 'bmi-now', mayGoOn: false })
  })
})

describe('a preparation for a fixed day', () => {
  const cleared = {
    day: addDays(today, 90),
    begunOn: today,
    clearedBy: 'Dr Elm',
    clearedOn: today,
    clearedUntil: addDays(today, 100),
  }
  // 17 % by seven folds: lean, and above what is never planned below.
  const LEAN = [11, 9, 6, 7, 9, 12, 14]

  it('allows with a clearance what is refused without, and is taken back with it', async () => {
    const { id, checkinId } = await measured({ athlete: true }, { kg: 66, values: LEAN })
    const target = plan(checkinId, { kind: 'percent', value: 12.2, perWeek: 0.3, unit: '%' })
    const keep = () => coach.send('POST', `/api/clients/${id}/plans`, { ...target, id: uuid() })
    const refused = await keep()
    expect([refused.status, refused.text]).toEqual([422, expect.stringContaining('under 13')])
    await change(id, { preparation: cleared })
    const kept = await keep()
    expect(kept.status, kept.text).toBe(200)
    expect((await historyOf(id)).suspensions).toEqual([])
    await change(id, { preparation: null })
    expect((await historyOf(id)).suspensions).toMatchObject([{ about: 'plan', code: 'percent-end', mayGoOn: false }])
  })

  it.each([
    ['without a doctor', { clearedBy: ' ' }, 'preparation.clearedBy'],
    ['for more than 26 weeks', { day: addDays(today, 190), clearedUntil: addDays(today, 200) }, 'preparation.day'],
    ['beyond its clearance', { clearedUntil: addDays(today, 80) }, 'preparation.clearedUntil'],
  ])('is not stored %s', async (_, change, field) => {
    const { status, body } = await coach.send('POST', '/api/clients', {
      ...someClient(),
      preparation: { ...cleared, ...change },
    })
    expect([status, body.fields.map((one) => one.field)]).toEqual([422, [field]])
  })
})

describe('a plan by a route, whatever is drawn', () => {
  it('is stored only within the limits', { timeout: 240_000 }, async () => {
    let stored = 0
    const people = fc.record({
      sex: fc.constantFrom('female' as const, 'male' as const),
      age: fc.integer({ min: 14, max: 82 }),
      heightCm: fc.integer({ min: 155, max: 195 }),
      bmi: fc.double({ min: 17, max: 38, noNaN: true }),
      flags: fc.oneof(
        { weight: 3, arbitrary: fc.constant([] as Flag[]) },
        { weight: 1, arbitrary: fc.subarray(Object.keys(FLAGS) as Flag[], { maxLength: 2 }) },
      ),
    })
    const plans = fc.record({
      share: fc.double({ min: 0.6, max: 1.4, noNaN: true }),
      pace: fc.double({ min: 0.1, max: 2, noNaN: true }),
    })
    await fc.assert(
      fc.asyncProperty(people, fc.array(plans, { minLength: 6, maxLength: 6 }), async (one, drawn) => {
        fc.pre(!one.flags.some((flag) => flag.startsWith('lymphoedema')))
        const kg = Math.round(10 * one.bmi * (one.heightCm / 100) ** 2) / 10
        const { id, checkinId } = await measured(
          { sex: one.sex, birthDate: years(one.age), heightCm: one.heightCm, flags: one.flags, guardianConsent: true },
          { kg, values: [] },
        )
        for (const { share, pace } of drawn) {
          const value = Math.round(10 * kg * share) / 10
          const { status } = await coach.send(
            'POST',
            `/api/clients/${id}/plans`,
            plan(checkinId, { value, perWeek: pace, unit: 'kg' }),
          )
          expect([200, 422]).toContain(status)
          if (status !== 200) continue
          stored += 1
          const endBmi = value / (one.heightCm / 100) ** 2
          expect(one.age).toBeGreaterThanOrEqual(18)
          if (value < kg) {
            expect(endBmi).toBeGreaterThanOrEqual(one.age >= 65 ? 23 : 18.5)
            expect(pace).toBeLessThanOrEqual(
              (one.bmi >= 30 ? Math.min(1.4, 0.012 * kg) : Math.min(0.9, 0.01 * kg)) + 0.02,
            )
            for (const flag of ['pregnant', 'breastfeeding', 'eating-disorder', 'dialysis', 'neutral-wish'] as const)
              expect(one.flags).not.toContain(flag)
          } else expect(pace).toBeLessThanOrEqual(0.01 * kg + 0.02)
        }
      }),
      { numRuns: Number(process.env.GATE_RUNS ?? 60) },
    )
    expect(stored).toBeGreaterThan(5)
  })
})

describe('a link', () => {
  it('in neutral mode opens the page to take home alone, unless a reason is given', async () => {
    const { id } = await measured({ flags: ['eating-disorder'] })
    const bare = await makeLink(id, ['weigh-ins', 'take-home'])
    expect([bare.status, bare.body]).toMatchObject([422, { fields: [{ field: 'reason' }] }])
    expect((await makeLink(id, ['take-home'])).status).toBe(201)
    const phone = await phoneOf(id, ['weigh-ins', 'take-home'], 'The care team asks for it.')
    expect((await phone.send<ClientHome>('GET', '/api/hand-in')).body.scope).toContain('weigh-ins')
    // A reason answers what it was given for, and nothing that comes up later.
    await change(id, { flags: ['eating-disorder', 'dialysis'] })
    expect((await phone.send<ClientHome>('GET', '/api/hand-in')).body.scope).toEqual(['take-home'])
  })

  it('of somebody under 18 is the guardian’s, and photographs ask another consent', async () => {
    const minor = { birthDate: years(16.5), guardianConsent: true }
    const { id, checkinId } = await measured(minor)
    expect((await makeLink(id, ['photographs'], 'Posture.')).text).toContain('guardian’s own consent')
    const picture = () =>
      coach.sendBytes(
        `/api/checkins/${checkinId}/photos?${new URLSearchParams({ id: uuid(), pose: 'front', takenAt: new Date().toISOString() })}`,
        Buffer.from('no picture'),
      )
    expect((await picture()).text).toContain('guardian’s own consent')
    await change(id, { guardianPhotoConsentOn: '2026-02-01' })
    expect((await picture()).text).not.toContain('guardian')
    expect((await makeLink(id, ['photographs'], 'Posture.')).status).toBe(201)
    await change(id, { guardianConsent: false, guardianName: '', guardianConsentOn: null })
    expect((await makeLink(id, ['take-home'])).text).toContain('the link is the guardian’s')
    await change(id, { ...minor, birthDate: years(15), guardianName: 'Hild Osk', guardianConsentOn: '2026-01-01' })
    expect((await makeLink(id, ['photographs'], 'Posture.')).text).toContain('Under 16')
  })

  it('names the guardian by name and day', async () => {
    const { status, body } = await coach.send('POST', '/api/clients', {
      ...someClient({ birthDate: years(14), guardianConsent: true }),
      guardianName: '',
      guardianConsentOn: null,
    })
    expect([status, body.fields.map(({ field }) => field)]).toEqual([422, ['guardianName', 'guardianConsentOn']])
  })
})

/** Figures about a body, as any page would say them. */
const BODY_FIGURE = /\d[\d.,]* ?(?:kg|lb|mm|cm|in\b|%|kcal|points)|\bsum of|\bBMI\b/i

describe('nothing a client in neutral mode may reach holds a number about their body', () => {
  const NEUTRAL: readonly Partial<ClientInput>[] = [
    { flags: ['eating-disorder'] },
    { flags: ['neutral-wish'] },
    { flags: ['pregnant'] },
    { flags: ['breastfeeding'] },
    { flags: ['dialysis'] },
    { birthDate: years(16), guardianConsent: true },
  ]

  it.each(NEUTRAL)('%o', { timeout: 60_000 }, async (who) => {
    const { id, checkinId } = await measured({ name: 'Neutral Rower', ...who }, { visits: 2, kg: 61.3 })
    await coach.send('PATCH', `/api/checkins/${checkinId}`, {
      keptWords: 'Well rowed. The sum of folds is down by 3.2 mm. Weight is 61.3 kg.',
    })
    for (const query of ['', '?neutral=false', '?neutral=true']) {
      const text = (await wordsOf((await coach.bytes(`/api/clients/${id}/take-home${query}`)).bytes)).join(' ')
      expect(text).toContain('Well rowed.')
      expect(text).not.toMatch(BODY_FIGURE)
    }
    const phone = await phoneOf(id, ['weigh-ins', 'girths', 'take-home'], 'The care team asks for it.')
    await phone.send('POST', '/api/hand-in/weigh-ins', { ...weighIn(), value: 61.37 })
    await phone.send('POST', '/api/hand-in/weeks', {
      id: uuid(),
      day: today,
      girths: [{ id: uuid(), site: 'hip', trial: 1, value: 97.2, unit: 'cm' }],
    })
    expect((await phone.send('GET', '/api/hand-in')).text).not.toMatch(/61\.3|97\.2/)
    const own = (await wordsOf((await phone.bytes('/api/hand-in/take-home')).bytes)).join(' ')
    expect(own).not.toMatch(BODY_FIGURE)
    // The file made for the client holds the page alone; everything goes out with a reason on record.
    const fileOf = async (figuresReason: string) => {
      const job = await endOf(
        coach,
        await coach.send<DataJob>('POST', `/api/clients/${id}/own-file`, { figuresReason }),
      )
      return unzipSync(new Uint8Array((await coach.bytes(`/api/data/jobs/${job.id}/file`)).bytes))
    }
    const bare = await fileOf('')
    expect(Object.keys(bare).sort()).toEqual(['about-this-file.txt', 'take-home.pdf'])
    expect(strFromU8(bare['about-this-file.txt'] ?? new Uint8Array())).not.toMatch(BODY_FIGURE)
    expect(Object.keys(await fileOf('Asked for in writing.'))).toContain('readings.csv')
  })

  it('nor is a log of food kept, nor percent shown of a minor by a coach', async () => {
    const { id } = await measured({ birthDate: years(16), guardianConsent: true })
    const intakes = { intakes: [{ id: uuid(), day: today, kcal: 2100, source: 'typed' }] }
    const refused = await coach.send('POST', `/api/clients/${id}/intakes`, intakes)
    expect([refused.status, refused.text]).toEqual([409, expect.stringContaining('Neutral mode')])
    const person = {
      name: 'Ivo Tarn',
      email: 'ivo.tarn@reedwater.example',
      role: 'coach',
      password: 'the-other-oar-holds',
    }
    await coach.addPerson(person)
    const other = new Caller(server)
    await other.signIn(person)
    const leave = () => ({ id: uuid(), reason: 'The doctor asked.' })
    expect((await other.send('POST', `/api/clients/${id}/neutral-leaves`, leave())).status).toBe(403)
    expect((await coach.send('POST', `/api/clients/${id}/neutral-leaves`, leave())).status).toBe(201)
  })
})
