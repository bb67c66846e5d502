import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import { FLAGS, type Flag } from '../../core/cautions'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { energyOf } from '../../shared/energy'
import { followRecord } from '../../shared/followed-record'
import type { Me } from '../../shared/schemas/account'
import type { ClientHistory, IntakeRecord } from '../../shared/schemas/following'
import type { PlanInput, PlanRecord } from '../../shared/schemas/plan'
import { Caller, LEAD, type Server, someClient } from '../support/api'
import { enterVisit } from '../support/visits'

const FOLDS = [14, 12, 8, 10, 16, 20, 22]
const UNITS = { mass: 'kg', length: 'cm' } as const
const maren = someClient()

let server: Server
let lead: Caller
let checkinId = ''
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  lead = new Caller(server)
  await lead.signIn(LEAD)
  await lead.send('POST', '/api/clients', maren)
  checkinId = await enterVisit(lead, maren.id, { daysAgo: 60, values: FOLDS, kg: 74 })
})
afterAll(() => server.remove())

const today = new Date().toISOString().slice(0, 10)
const log = (given: object[], clientId = maren.id) =>
  lead.send<IntakeRecord[]>('POST', `/api/clients/${clientId}/intakes`, { intakes: given })
const some = (daysAgo: number, kcal: number) => ({ id: uuid(), day: addDays(today, -daysAgo), kcal, source: 'typed' })
const offer = (offered: boolean) => lead.send<Me>('PUT', '/api/studio/energy', { offered })
const historyOf = async (clientId: string) =>
  (await lead.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)).body

function somePlan(change: Partial<PlanInput> = {}, energy: Partial<PlanInput['energy']> = {}): PlanInput {
  return {
    id: uuid(),
    checkinId,
    kind: 'fat',
    value: 12,
    perWeek: 0.2,
    unit: 'kg',
    byDay: null,
    energy: { intakeKcal: 1900, restingKcal: 1550, dailyKcal: 2300, dailySd: 150, breaks: [], ...energy },
    ...change,
  }
}
const keep = (input: object, clientId = maren.id) =>
  lead.send<PlanRecord[]>('POST', `/api/clients/${clientId}/plans`, input)

describe('energy and macros', () => {
  it('are not offered until a lead has accepted the page, and not by a coach', async () => {
    expect((await lead.send<Me>('GET', '/api/me')).body.energySince).toBeNull()
    const refused = await lead.send('POST', `/api/clients/${maren.id}/intakes`, { intakes: [some(1, 2000)] })
    expect(refused.status).toBe(403)
    expect(refused.body.message).toContain('This studio does not offer energy')
    expect((await keep(somePlan())).status).toBe(403)
    await lead.addPerson({
      name: 'Ivo Marsh',
      email: 'ivo@reedwater.example',
      password: 'a-quiet-blade-at-dawn',
      role: 'coach',
    })
    const coach = new Caller(server)
    await coach.signIn({ email: 'ivo@reedwater.example', password: 'a-quiet-blade-at-dawn' })
    expect((await coach.send('PUT', '/api/studio/energy', { offered: true })).status).toBe(403)
    expect((await offer(true)).body.energySince).toEqual(expect.any(String))
    expect((await lead.send('GET', '/api/record')).text).toContain('energy.offered')
  })
})

describe('a day’s intake', () => {
  it('is kept once a day, struck and logged anew', async () => {
    const first = some(3, 2100)
    expect((await log([first, some(2, 1900)])).body.map(({ kcal }) => kcal)).toEqual([2100, 1900])
    expect((await log([first])).body).toHaveLength(2)
    const taken = await lead.send('POST', `/api/clients/${maren.id}/intakes`, { intakes: [some(3, 1500)] })
    expect(taken.status).toBe(409)
    expect(taken.body.message).toContain('hold an intake already')
    await lead.send('DELETE', `/api/clients/${maren.id}/intakes/${first.id}`)
    expect((await log([some(3, 1500)])).body[0]?.kcal).toBe(1500)
    expect((await historyOf(maren.id)).intakes).toHaveLength(2)
  })

  it.each([
    [200, 'is it the whole day?'],
    [20_000, 'More than 10,000 kcal in a day'],
    [1800.5, 'a whole number of kcal'],
  ])('of %s kcal gets a sentence, and nothing is stored', async (kcal, sentence) => {
    const { status, text } = await lead.send('POST', `/api/clients/${maren.id}/intakes`, { intakes: [some(9, kcal)] })
    expect(status).toBe(422)
    expect(text).toContain(sentence)
    expect((await historyOf(maren.id)).intakes).toHaveLength(2)
  })

  it('of a day to come is refused', async () => {
    const { status } = await lead.send('POST', `/api/clients/${maren.id}/intakes`, { intakes: [some(-2, 2000)] })
    expect(status).toBe(422)
  })
})

describe('a plan by what is eaten', () => {
  it('is kept with what it was set with', async () => {
    const input = somePlan()
    const { body } = await keep(input)
    expect(body[0]).toMatchObject({ id: input.id, energy: input.energy })
  })

  it.each([
    ['under the floor', { intakeKcal: 1100 }, 'is under 1,200 for women'],
    ['under resting', { intakeKcal: 1500 }, 'is under resting expenditure'],
    ['too fast', { intakeKcal: 1560, dailyKcal: 3000 }, 'no more than'],
    ['too little left', { intakeKcal: 1560, dailyKcal: 2500 }, 'for each kg of lean mass'],
  ])('%s is refused with the sentence', async (_, energy, sentence) => {
    const { status, text } = await lead.send('POST', `/api/clients/${maren.id}/plans`, somePlan({}, energy))
    expect(status).toBe(422)
    expect(text).toContain(sentence)
  })

  it('is not for a sum of folds', async () => {
    const { status, text } = await lead.send(
      'POST',
      `/api/clients/${maren.id}/plans`,
      somePlan({ kind: 'sum', unit: 'mm', value: 80, perWeek: 1 }),
    )
    expect(status).toBe(422)
    expect(text).toContain('planned by its pace')
  })

  const NO_DEFICIT: readonly Flag[] = ['eating-disorder', 'neutral-wish', 'pregnant']
  // Every caution that allows no deficit, at every door that leads to one.
  const people = [
    ...(Object.keys(FLAGS) as Flag[])
      .filter((flag) => NO_DEFICIT.includes(flag))
      .map((flag) => ({
        name: flag,
        change: { flags: [flag] },
        kg: 74,
      })),
    { name: 'under 18', change: { birthDate: addDays(today, -15 * 365), guardianConsent: true }, kg: 74 },
    { name: 'underweight', change: { heightCm: 199 }, kg: 72 },
  ]
  it.each(people)('to lose is refused at every door to somebody $name', async ({ name, change, kg }) => {
    const person = someClient(change as never)
    await lead.send('POST', '/api/clients', person)
    const visit = await enterVisit(lead, person.id, { daysAgo: 40, values: FOLDS, kg })
    const targets: Partial<PlanInput>[] = [
      { kind: 'fat', value: 12 },
      { kind: 'weight', value: kg - 3 },
      { kind: 'percent', value: 16, unit: '%' },
      { kind: 'sum', value: 80, perWeek: 1, unit: 'mm', energy: null },
      { kind: 'weight', value: kg - 3, energy: null },
      // By the side: a gain on paper, a deficit on the plate.
      { kind: 'weight', value: kg + 3 },
    ]
    for (const target of targets) {
      const { status } = await keep(somePlan({ checkinId: visit, ...target }), person.id)
      expect(status, JSON.stringify(target)).toBe(422)
    }
    const history = await historyOf(person.id)
    expect(history.plans).toEqual([])
    const held = energyOf(followRecord(history), history.intakes, { today, units: UNITS })
    // Under 18 there is no expenditure at all: every equation was made on adults.
    if (name === 'under 18') expect(held).toBeNull()
    else expect(held?.personal.length).toBeGreaterThan(0)
  })
})
