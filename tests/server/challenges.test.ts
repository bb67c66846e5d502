import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import { challengeEntry } from '../../server/db/schema'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { Board, ChallengeFacts, ChallengeRecord } from '../../shared/schemas/challenge'
import type { MeasuringFacts, PrepareFacts } from '../../shared/schemas/checkin'
import { Caller, LEAD, type Server, someClient } from '../support/api'
import { enterVisit } from '../support/visits'
import { storeOf } from '../support/database'
import { wordsOf } from '../support/pdf'

const FOLDS = [18, 14, 12, 14, 20, 24, 26]
const today = new Date().toISOString().slice(0, 10)
const CALIPER = uuid()

let server: Server
let coach: Caller
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
  await coach.send('POST', '/api/calipers', { id: CALIPER, name: 'Steel', resolutionMm: 0.5 })
})
afterAll(() => server.remove())

const input = (change: object = {}) => ({
  id: uuid(),
  name: 'Winter lake',
  startsOn: addDays(today, -56),
  endsOn: today,
  figure: 'sum',
  categories: 'none',
  teams: [],
  prizeRule: 'share',
  accepted: true,
  ...change,
})
const make = (change: object = {}) => coach.send<ChallengeRecord[]>('POST', '/api/challenges', input(change))
const read = async (id: string) => (await coach.send<ChallengeFacts>('GET', `/api/challenges/${id}`)).body

async function rower(name: string, change: object = {}): Promise<string> {
  const client = someClient({ name, ...change })
  await coach.send('POST', '/api/clients', client)
  return client.id
}
const measuredFirst = (id: string, kg = 70) =>
  enterVisit(coach, id, { daysAgo: 56, values: FOLDS, kg, caliperId: CALIPER })
/** Measured today, every fold times `factor`. */
async function measuredLast(id: string, factor: number, kg = 69, caliperId: string | null = CALIPER) {
  const values = FOLDS.map((mm) => Math.round(2 * mm * factor) / 2)
  await enterVisit(coach, id, { daysAgo: 0, values, kg, caliperId })
}
const enter = (id: string, clientId: string, change: object = {}) =>
  coach.send<ChallengeFacts>('POST', `/api/challenges/${id}/entries`, {
    id: uuid(),
    clientId,
    shownAs: 'name',
    alias: '',
    team: null,
    consentOn: today,
    ...change,
  })
/** Entries made now are made to have been there at the start. */
async function enteredLongAgo(id: string) {
  await server.end()
  const store = await storeOf(server)
  await store.database
    .update(challengeEntry)
    .set({ at: `${addDays(today, -70)}T09:00:00Z` })
    .where(eq(challengeEntry.challengeId, id))
  await store.close()
  await server.start()
}

describe('a challenge', () => {
  const id = uuid()
  let token = ''

  it('is set up once, with its rules accepted', async () => {
    expect((await make({ id, prizeRule: 'draw' })).status).toBe(201)
    expect((await make({ id, prizeRule: 'draw' })).body).toHaveLength(1)
    for (const [wrong, sentence] of [
      [{ accepted: false }, 'accept it'],
      [{ endsOn: addDays(today, -50) }, '14 days or more'],
      [{ startsOn: addDays(today, -300), endsOn: addDays(today, -100) }, 'half a year'],
      [{ startsOn: addDays(today, -80), endsOn: addDays(today, -10) }, 'These days have been'],
      [{ teams: ['Port', 'Port'] }, 'the same name'],
      [{ figure: 'weight' }, 'sum of folds or fat mass'],
    ] as const) {
      const { status, text } = await make(wrong)
      expect(status).toBe(422)
      expect(text).toContain(sentence)
    }
  })

  it('enters who agreed, and nobody for whom losing is not', async () => {
    const [a, b, c] = [await rower('Aila Reed'), await rower('Bram Alder'), await rower('Cato Heron')]
    for (const one of [a, b, c]) await measuredFirst(one)
    await measuredLast(b, 1)
    await measuredLast(c, 1, 69, null)
    expect((await enter(id, a)).status).toBe(201)
    expect((await enter(id, b, { shownAs: 'alias', alias: 'Otter' })).status).toBe(201)
    expect((await enter(id, c, { shownAs: 'hidden' })).status).toBe(201)
    expect((await enter(id, a)).body.entries).toHaveLength(3)
    await measuredLast(a, 0.8)
    const { body: list } = await coach.send<ChallengeRecord[]>('GET', '/api/challenges')
    expect(list.find((one) => one.id === id)?.entries).toBe(3)
    for (const [change, sentence] of [
      [{ birthDate: addDays(today, -365 * 15) }, 'Under 18'],
      [{ flags: ['pregnant'] }, 'Pregnant'],
      [{ flags: ['neutral-wish'] }, 'Neutral mode'],
      [{ consentOn: null }, 'Consent'],
    ] as const) {
      const { status, text } = await enter(id, await rower(`Barred ${sentence}`, change))
      expect(status).toBe(409)
      expect(text).toContain(sentence)
    }
    const light = await rower('Light Rower')
    await enterVisit(coach, light, { daysAgo: 3, values: FOLDS, kg: 52 })
    expect((await enter(id, light)).text).toContain('BMI under 20')
    expect((await enter(id, await rower('Without Alias'), { shownAs: 'alias' })).text).toContain('Give the alias')
  })

  it('counts what was measured alike and blind, and says what was not', async () => {
    const before = await read(id)
    // Two were entered a moment ago: their last measuring was not blind.
    const late = before.entries.filter(({ clientName }) => clientName !== 'Aila Reed')
    expect(late).toHaveLength(2)
    expect(late.every(({ breaches }) => breaches.includes('not-blind'))).toBe(true)
    expect(late.every(({ runner }) => runner === null)).toBe(true)
    await enteredLongAgo(id)
    const { entries } = await read(id)
    const by = (name: string) => entries.find(({ clientName }) => clientName === name)
    expect(by('Aila Reed')?.runner?.change).toBeCloseTo(-20, 0)
    expect(by('Bram Alder')?.runner).toMatchObject({ change: 0, counted: 1 })
    expect(by('Cato Heron')).toMatchObject({ breaches: ['caliper'], runner: null })
    // 70 to 69 kg in eight weeks is slower than 1 % a week.
    expect(by('Aila Reed')?.paced).toBe(false)
  })

  it('measures blind who takes part', async () => {
    const { clientId } = (await read(id)).entries[0] ?? { clientId: '' }
    expect((await coach.send<PrepareFacts>('GET', `/api/clients/${clientId}/prepare`)).body.blind).toBe(true)
    const free = await rower('Free Rower')
    expect((await coach.send<PrepareFacts>('GET', `/api/clients/${free}/prepare`)).body.blind).toBe(false)
    const start = { id: uuid(), protocolId: 'laboratory-7', startedAt: new Date().toISOString() }
    await coach.send('POST', `/api/clients/${clientId}/checkins`, start)
    expect((await coach.send<MeasuringFacts>('GET', `/api/checkins/${start.id}`)).body.blind).toBe(true)
    await coach.send('DELETE', `/api/checkins/${start.id}`)
  })

  it('shows on a wall shares and chances only, nobody who is hidden, no figure of anybody', async () => {
    const made = (await coach.send<{ link: string }>('POST', `/api/challenges/${id}/board`, {})).body.link
    token = made.split('#')[1] ?? ''
    const wall = new Caller(server)
    const { body, text } = await wall.send<Board>('POST', '/api/board', { token })
    const [group] = body.groups
    expect(group?.rows.map(({ name, place }) => [name, place])).toEqual([
      ['Aila Reed', 1],
      // Unchanged: no loss, so no place.
      ['Otter', null],
    ])
    expect(group?.rows[0]).toMatchObject({ share: 1 })
    expect(text).not.toMatch(/Bram|Cato|fat|fold|weight|kg|percent|-20|sum/)
    expect((await wall.send('POST', '/api/board', { token: 'x'.repeat(43) })).status).toBe(404)
    expect((await wall.send('GET', `/api/challenges/${id}`)).status).toBe(401)
    await coach.send('POST', `/api/challenges/${id}/board`, {})
    expect((await wall.send('POST', '/api/board', { token })).status).toBe(404)
  })

  it('is left at once and silently, closed on its last day, and told in a protocol', async () => {
    const cato = (await read(id)).entries.find(({ clientName }) => clientName === 'Cato Heron')
    const left = await coach.send<ChallengeFacts>('DELETE', `/api/challenges/${id}/entries/${cato?.id}`)
    expect(left.body.entries.find((one) => one.id === cato?.id)?.leftAt).not.toBeNull()
    expect((await coach.send('DELETE', `/api/challenges/${id}/entries/${cato?.id}`)).status).toBe(404)
    const closed = (await coach.send<ChallengeFacts>('POST', `/api/challenges/${id}/close`, {})).body
    expect(closed.challenge.closedAt).not.toBeNull()
    expect(closed.winners).toHaveLength(1)
    expect((await coach.send<ChallengeFacts>('POST', `/api/challenges/${id}/close`, {})).body.winners).toEqual(
      closed.winners,
    )
    expect((await enter(id, await rower('Late Rower'))).text).toContain('closed')
    const { bytes, status } = await coach.bytes(`/api/challenges/${id}/protocol`)
    expect(status).toBe(200)
    const text = (await wordsOf(bytes)).join(' ').replace(/\s+/g, ' ')
    expect(text).toContain('Winter lake')
    expect(text).toContain('Otter')
    expect(text).not.toContain('Bram')
    expect(text).toContain('The prize goes to')
  })

  it('cannot be closed before its last day', async () => {
    const later = uuid()
    await make({ id: later, endsOn: addDays(today, 20) })
    expect((await coach.send('POST', `/api/challenges/${later}/close`, {})).text).toContain('until its last day')
  })
})

it('faster than 1 % of weight a week earns nothing more', async () => {
  const id = uuid()
  await make({ id, name: 'Fast lake', categories: 'sex', teams: ['Port', 'Bow'] })
  const fast = await rower('Fast Rower', { sex: 'male' })
  // 16 % of weight in eight weeks, 2 % a week: half of the change counts.
  await measuredFirst(fast, 100)
  await enter(id, fast, { team: 'Port' })
  await measuredLast(fast, 0.9, 84)
  expect((await enter(id, await rower('Teamless'), { team: 'Stern' })).text).toContain('no such team')
  await enteredLongAgo(id)
  const [entry] = (await read(id)).entries
  expect(entry).toMatchObject({ paced: true, category: 'Men', team: 'Port' })
  expect(entry?.runner?.counted).toBeCloseTo(0.5, 6)
})
