import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { chosenShare, searchedShare } from '../../core/following'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { followRecord, spanOfRecord } from '../../shared/followed-record'
import type { ClientPage } from '../../shared/schemas/client'
import type { ClientHistory, PinnedStart } from '../../shared/schemas/following'
import { Caller, LEAD, type Server, someClient } from '../support/api'
import { enterVisit } from '../support/visits'

const FOLDS = [20, 14, 9, 11, 15, 20, 29]
const scaled = (share: number) => FOLDS.map((mm) => Math.round(mm * share * 2) / 2)

let server: Server
let coach: Caller
const client = someClient({ name: 'Svea Holm' })
const visits: string[] = []
const history = async (id = client.id) => (await coach.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body

beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
  await coach.send('POST', '/api/clients', client)
  for (const [daysAgo, share] of [
    [112, 1],
    [84, 0.9],
    [56, 0.8],
    [28, 0.7],
  ] as const) {
    visits.push(await enterVisit(coach, client.id, { daysAgo, values: scaled(share), kg: 70 }))
  }
})
afterAll(() => server.remove())

describe('the pinned start', () => {
  it('is the first check-in until one is pinned', async () => {
    const facts = await history()
    expect(facts.pins).toEqual([])
    const record = followRecord(facts)
    expect([record.pinned, spanOfRecord(record).fromIndex, spanOfRecord(record).searched]).toEqual([0, 0, false])
    // Elsewhere it was searched for: the second of four has a sixth of what all of those share.
    const found = spanOfRecord(record, { fromId: visits[1] ?? null, toId: visits[3] ?? null })
    expect([found.searched, found.share]).toEqual([true, searchedShare(2)])
    // The page knows before it has judged.
    const unjudged = spanOfRecord(record, { fromId: visits[1] ?? null }, { judged: false })
    expect([unjudged.span, unjudged.share, spanOfRecord(record).share]).toEqual([
      null,
      searchedShare(2),
      chosenShare(1),
    ])
  })

  it('is stored once however often it is sent, newest first, and is the client’s own check-in', async () => {
    const pin = { id: uuid(), checkinId: visits[3] }
    const send = (body: unknown) => coach.send<PinnedStart[]>('POST', `/api/clients/${client.id}/pins`, body)
    expect((await send(pin)).body).toHaveLength(1)
    expect((await send(pin)).body).toEqual([expect.objectContaining({ checkinId: visits[3] })])
    // It was set after its first reading: list and page go on from the first check-in.
    const { body } = await coach.send<ClientPage>('GET', '/api/clients?q=Svea')
    expect(body.clients[0]?.sum?.change?.since).toBe((await history()).checkins.map(({ day }) => day).sort()[0])
    const page = spanOfRecord(followRecord(await history()))
    expect([page.fromIndex, page.searched]).toEqual([0, false])
    const other = someClient({ name: 'Nils Other' })
    await coach.send('POST', '/api/clients', other)
    const theirs = await coach.send<{ message: string }>('POST', `/api/clients/${other.id}/pins`, pin)
    expect([theirs.status, theirs.body.message]).toEqual([422, 'This client has no such check-in.'])
    expect((await send({ id: uuid(), checkinId: 'none' })).status).toBe(422)
  })

  it('counts only when it was set before its check-in’s first reading', async () => {
    // The next check-in, whatever it brings.
    const next = { id: uuid(), checkinId: null }
    const set = await coach.send<PinnedStart[]>('POST', `/api/clients/${client.id}/pins`, next)
    expect(set.body[0]).toMatchObject({ checkinId: null })
    visits.push(await enterVisit(coach, client.id, { daysAgo: 0, values: scaled(0.7), kg: 70 }))
    const facts = await history()
    const begins = facts.checkins.find(({ id }) => id === visits[4])
    const firstReading = begins?.readings.map(({ takenAt }) => takenAt).sort()[0] ?? ''
    const pinnedAt = (at: string, checkinId: string | null = null) =>
      followRecord({ ...facts, pins: [{ checkinId, at, by: '' }] })
    // A moment before the first reading it leads, with a share of its own; at that moment it does not.
    const before = pinnedAt(new Date(Date.parse(firstReading) - 1).toISOString())
    expect([before.pinned, before.pinnedShare]).toEqual([4, chosenShare(2)])
    expect(pinnedAt(firstReading).pinned).toBe(0)
    // A pin moved later, to whatever check-in, is a searched start: nothing leads but the first.
    for (const id of visits) expect(pinnedAt('2999-01-01T00:00:00.000Z', id).pinned).toBe(0)
    // Set on a check-in that had begun without a reading yet it counts.
    expect(pinnedAt('2020-01-01T00:00:00.000Z', visits[3]).pinned).toBe(3)
    // What comes after it moves list and page.
    expect(spanOfRecord(before).fromIndex).toBe(3)
    expect(spanOfRecord(before).searched).toBe(true)
  })
})

describe('the smallest change worth acting on', () => {
  it('is the studio’s until a client has their own', async () => {
    const studio = { name: 'Reedwater', massUnit: 'kg', lengthUnit: 'cm', timeZone: 'UTC' }
    expect((await history()).worthwhile).toEqual({
      own: { fatKg: null, sumPercent: null },
      studio: { fatKg: 0.5, sumPercent: 5 },
    })
    await coach.send('PATCH', '/api/studio', { ...studio, worthwhileFatKg: 1, worthwhileSumPercent: 8 })
    expect(followRecord(await history()).worthwhile).toEqual({ fatKg: 1, sumPercent: 8 })
    const set = await coach.send('PUT', `/api/clients/${client.id}/worthwhile`, { fatKg: 0.3, sumPercent: null })
    expect(set.status).toBe(200)
    expect(followRecord(await history()).worthwhile).toEqual({ fatKg: 0.3, sumPercent: 8 })
    const bad = await coach.send('PUT', `/api/clients/${client.id}/worthwhile`, { fatKg: -1, sumPercent: null })
    expect([bad.status, bad.text.includes('not below zero')]).toEqual([422, true])
  })
})

describe('the noise of a client', () => {
  it('is given at times of their record, assumed where nobody else has been measured', async () => {
    const { noises } = await history()
    expect(noises.length).toBeGreaterThan(1)
    expect(noises.map(({ until }) => until)).toEqual(noises.map(({ until }) => until).sort())
    for (const { noises: held } of noises) expect(held).toEqual({})
    const { body } = await coach.send<ClientPage>('GET', '/api/clients?q=Svea')
    // Followed from the newest check-in: the list claims no change.
    expect(body.clients[0]?.sum?.change).toBeNull()
  })
})
