import { readFileSync } from 'node:fs'
import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { PROTOCOLS } from '../../core/protocols'
import type { MeasuringFacts } from '../../shared/schemas/checkin'
import type { ClientHistory } from '../../shared/schemas/following'
import { Caller, LEAD, someClient, someReading, startedCheckin, type Server } from '../support/api'
import { behindProxy, type BehindProxy } from '../support/behind-proxy'
import { makeDatabase, storeOf } from '../support/database'
import { until } from '../support/until'

/** Two processes on one PostgreSQL database, and one address before both. Project `postgres` alone runs this file. */
let one: Server
let other: Server
let proxy: BehindProxy
const coach = { one: null as unknown as Caller, other: null as unknown as Caller, proxy: null as unknown as Caller }

beforeAll(async () => {
  // A database without anything in it, and both started in the same moment.
  const env = { DATABASE_URL: await makeDatabase('template0'), NUXT_SESSION_PASSWORD: 'o'.repeat(40) }
  ;[one, other] = await Promise.all([startServer({ env }), startServer({ env })])
  proxy = await behindProxy([one.address, other.address])
  coach.one = new Caller(one)
  coach.other = new Caller(other)
  coach.proxy = new Caller(proxy)
  await coach.one.setUp()
  await coach.other.signIn(LEAD)
  await coach.proxy.signIn(LEAD)
})
afterAll(async () => {
  await proxy.close()
  await Promise.all([one.remove(), other.remove()])
})

/** Waits until this is so. */
const holds = (so: () => boolean | Promise<boolean>) => until(async () => so(), Boolean)

/** What a screen at this process hears of a check-in. */
async function screenOf(caller: Caller, checkinId: string): Promise<{ heard: () => string; ended: Promise<void> }> {
  const stream = await caller.open(`/api/checkins/${checkinId}/stream`)
  const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader()
  let heard = ''
  const ended = (async () => {
    for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) heard += part.value
  })().catch(() => undefined)
  await holds(() => heard.includes('beat'))
  return { heard: () => heard, ended }
}

describe('two processes on one database', () => {
  it('started together bring it to the schema once', async () => {
    const store = await storeOf(one)
    const { rows } = await store.database.execute<{ count: number }>(
      sql`select count(*)::int as count from drizzle.__drizzle_migrations`,
    )
    await store.close()
    const journal = JSON.parse(readFileSync('server/db/migrations/meta/_journal.json', 'utf8')) as {
      entries: unknown[]
    }
    expect(rows[0]?.count).toBe(journal.entries.length)
  })

  it('show a reading sent to one at a screen of the other, and back', async () => {
    const { checkinId } = await startedCheckin(coach.one, someClient({ name: 'Heard Rower' }))
    const there = await screenOf(coach.other, checkinId)
    const here = await screenOf(coach.one, checkinId)
    const [first, second] = [someReading(), someReading({ round: 2 })]
    await coach.one.send('POST', `/api/checkins/${checkinId}/events`, { readings: [first], strikes: [] })
    await coach.other.send('POST', `/api/checkins/${checkinId}/events`, { readings: [second], strikes: [] })
    for (const screen of [there, here])
      await holds(() => [first, second].every(({ id }) => screen.heard().includes(id)))
  })

  it('show what is too long for a notice as a change to ask for', async () => {
    const { checkinId } = await startedCheckin(coach.one, someClient({ name: 'Long Rower' }))
    const there = await screenOf(coach.other, checkinId)
    const sites = PROTOCOLS['laboratory-7'].sites
    const readings = Array.from({ length: 70 }, (_, i) =>
      someReading({ site: sites[i % 7], round: 1 + Math.floor(i / 7) }),
    )
    const sent = await coach.one.send('POST', `/api/checkins/${checkinId}/events`, { readings, strikes: [] })
    expect(sent.status).toBe(200)
    await holds(() => there.heard().includes('"changed"'))
  })

  it('end a session everywhere at once', async () => {
    const { checkinId } = await startedCheckin(coach.one, someClient({ name: 'Ended Rower' }))
    const leaving = new Caller(one)
    await leaving.signIn(LEAD)
    const elsewhere = new Caller(other)
    elsewhere.takeCookies(leaving)
    const screen = await screenOf(elsewhere, checkinId)
    await leaving.send('POST', '/api/sign-out')
    await screen.ended
    expect((await elsewhere.send('GET', '/api/me')).status).toBe(401)
  })

  it('count wrong passwords together', async () => {
    const wrong = { email: 'nobody@reedwater.example', password: 'not-this-one-either' }
    const statuses: number[] = []
    for (let i = 0; i < 6; i += 1) {
      const at = i % 2 === 0 ? one : other
      statuses.push((await new Caller(at).send('POST', '/api/sign-in', wrong)).status)
    }
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429])
  })

  it('are asked again on another connection when the database closes theirs, and lose nothing', async () => {
    const store = await storeOf(one)
    const closeAll = () =>
      store.database.execute(
        sql`select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()`,
      )
    for (let i = 0; i < 5; i += 1) {
      const client = someClient({ name: `Rower after a restart ${i}` })
      await closeAll()
      expect((await coach.one.send('GET', '/api/clients')).status).toBe(200)
      await closeAll()
      expect((await coach.one.send('POST', '/api/clients', client)).status).toBe(201)
      expect((await coach.other.send('GET', `/api/clients/${client.id}`)).status).toBe(200)
    }
    await store.close()
  })

  it('know a set made at the other', async () => {
    const set = {
      id: uuid(),
      setId: uuid(),
      name: 'Two folds',
      sites: PROTOCOLS['laboratory-7'].sites.slice(0, 2),
      policy: 'two-reading',
      girthPolicy: 'two-reading',
    }
    const policies = PROTOCOLS['laboratory-7']
    const made = await coach.one.send('POST', '/api/sets', {
      ...set,
      policy: policies.policy,
      girthPolicy: policies.girthPolicy,
    })
    expect(made.status, made.text).toBe(201)
    const rower = someClient({ name: 'Set Rower' })
    await coach.other.send('POST', '/api/clients', rower)
    const start = () =>
      coach.other.send<{ id: string }>('POST', `/api/clients/${rower.id}/checkins`, {
        id: uuid(),
        protocolId: set.id,
        startedAt: new Date().toISOString(),
      })
    await holds(async () => (await start()).status < 300)
  })

  it('asked the same in one moment do it once', async () => {
    const rower = someClient({ name: 'Raced Rower' })
    await coach.one.send('POST', '/api/clients', rower)
    const begun = await Promise.all(
      [coach.one, coach.other, coach.one, coach.other].map((caller) =>
        caller.send<{ id: string }>('POST', `/api/clients/${rower.id}/checkins`, {
          id: uuid(),
          protocolId: 'laboratory-7',
          startedAt: new Date().toISOString(),
        }),
      ),
    )
    expect(begun.map(({ status }) => status < 300)).toEqual([true, true, true, true])
    expect(new Set(begun.map(({ body }) => body.id)).size).toBe(1)
    const day = '2026-11-02'
    const weighed = await Promise.all(
      [coach.one, coach.other, coach.one, coach.other].map((caller, i) =>
        caller.send('POST', `/api/clients/${rower.id}/weigh-ins`, {
          weighIns: [{ id: uuid(), day, value: 70 + i, unit: 'kg', dry: true, source: 'typed' }],
        }),
      ),
    )
    expect(weighed.map(({ status }) => status).filter((status) => status >= 500)).toEqual([])
    const { body } = await coach.one.send<ClientHistory>('GET', `/api/clients/${rower.id}/history`)
    expect(body.weighIns.filter((one) => one.day === day)).toHaveLength(1)
  })

  it('lose nothing when one of them is killed while readings come in', async () => {
    const { checkinId } = await startedCheckin(coach.proxy, someClient({ name: 'Killed Rower' }))
    const sites = PROTOCOLS['laboratory-7'].sites
    const readings = Array.from({ length: 60 }, (_, i) =>
      someReading({ site: sites[i % 7], round: 1 + Math.floor(i / 7), value: 10 + i / 10 }),
    )
    const acknowledged: string[] = []
    for (const [i, reading] of readings.entries()) {
      if (i === 20) void one.kill()
      // What was not acknowledged is sent again, as a device does it.
      await holds(async () => {
        const sent = await coach.proxy
          .send('POST', `/api/checkins/${checkinId}/events`, { readings: [reading], strikes: [] })
          .catch(() => null)
        return sent?.status === 200
      })
      acknowledged.push(reading.id)
    }
    const { body } = await coach.other.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`)
    expect(body.checkin.readings.map(({ id }) => id).sort()).toEqual([...acknowledged].sort())
    await one.start()
    const again = await new Caller(one).send('GET', '/api/health')
    expect(again.status).toBe(200)
  })
})
