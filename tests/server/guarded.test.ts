import { addDays, addHours } from 'date-fns'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { session, staff, studio } from '../../server/db/schema'
import { findSession, noteSeen } from '../../server/repositories/sessions'
import type { RecordPage } from '../../shared/schemas/record'
import type { Me, StaffRecord } from '../../shared/schemas/account'
import { Caller, LEAD, someClient, type Server } from '../support/api'
import { testStore } from '../support/database'

describe('what is guarded', () => {
  let server: Server
  let lead: Caller
  const client = someClient()
  beforeAll(async () => {
    // A proof holds for four seconds.
    server = await startServer({ filled: 'studio', env: { CONFIRM_AFTER_MINUTES: String(4 / 60) } })
    lead = new Caller(server)
    await lead.signIn(LEAD)
    await lead.send('POST', '/api/clients', client)
  })
  afterAll(() => server.remove())
  const staleness = () => new Promise((done) => setTimeout(done, 4_200))
  const confirm = (password: string) => lead.send('POST', '/api/me/confirm', { password })

  it('asks whoever is signed in for a fresh proof, and does nothing without one', async () => {
    await staleness()
    const guarded = [
      [
        'POST',
        '/api/staff',
        { name: 'Ivo Tarn', email: 'ivo@reedwater.example', role: 'coach', password: 'the-other-oar-holds' },
      ],
      ['POST', '/api/staff/invite', { name: 'Ivo Tarn', email: 'ivo@reedwater.example', role: 'coach' }],
      ['PATCH', `/api/staff/${uuid()}`, { role: 'lead' }],
      ['POST', `/api/staff/${uuid()}/password-link`, {}],
      ['POST', '/api/data/exports', { format: 'archive', clientId: null }],
      ['POST', '/api/data/retention', {}],
      ['PUT', '/api/studio/retention', { clientMonths: 1, photoMonths: null }],
      ['POST', `/api/clients/${client.id}/own-file`, {}],
      ['DELETE', `/api/clients/${client.id}`, { name: client.name }],
      ['POST', `/api/clients/${client.id}/links`, { scope: ['weigh-ins'], sites: [], days: 14 }],
      ['POST', '/api/calendar-links', { of: 'studio' }],
      ['POST', `/api/challenges/${uuid()}/board`, {}],
    ] as const
    for (const [method, path, body] of guarded) {
      const refused = await lead.send(method, path, body)
      expect([path, refused.status, refused.body.confirm]).toEqual([path, 403, true])
    }
    expect((await lead.send<StaffRecord[]>('GET', '/api/staff')).body).toHaveLength(1)
    expect((await lead.send('GET', `/api/clients/${client.id}`)).status).toBe(200)
    // What is not guarded goes on.
    expect((await lead.send('PATCH', '/api/me', { massUnit: 'lb', lengthUnit: null })).status).toBe(200)
  })

  it('is done after the password, which is on record, and for a while only', async () => {
    const wrong = await confirm('not the password at all')
    expect([wrong.status, wrong.body.fields]).toEqual([
      422,
      [{ field: 'password', message: 'This is not your password.' }],
    ])
    expect((await lead.send('POST', '/api/calendar-links', { of: 'studio' })).status).toBe(403)
    expect((await confirm(LEAD.password)).status).toBe(200)
    expect((await lead.send('POST', '/api/calendar-links', { of: 'studio' })).status).toBe(201)
    const said = (await lead.send<RecordPage>('GET', '/api/record?kind=session.confirmed')).body.lines
    expect(said.map(({ words, by }) => [words, by])).toEqual([['confirmed who they are', 'Runa Bexley']])
    await staleness()
    expect((await lead.send('POST', '/api/calendar-links', { of: 'studio' })).status).toBe(403)
  })

  it('holds for one session alone, and guessing it is slowed down', async () => {
    const elsewhere = new Caller(server)
    await elsewhere.signIn(LEAD)
    await staleness()
    expect((await confirm(LEAD.password)).status).toBe(200)
    expect((await elsewhere.send('POST', '/api/calendar-links', { of: 'me' })).status).toBe(403)
    const tried = await Promise.all(Array.from({ length: 12 }, (_, i) => confirm(`guess ${i} of some`)))
    expect(tried.filter(({ status }) => status === 429).length).toBeGreaterThan(4)
    expect(new Set(tried.map(({ status }) => status))).toEqual(new Set([422, 429]))
  })

  it('limits of sessions are a lead’s to set, within bounds', async () => {
    const set = (rules: object) => lead.send<Me>('PUT', '/api/studio/rules', rules)
    expect((await set({ sessionIdleHours: 8, sessionDays: 7 })).body.rules).toMatchObject({
      sessionIdleHours: 8,
      sessionDays: 7,
    })
    for (const rules of [{ sessionIdleHours: 0 }, { sessionIdleHours: 721 }, { sessionDays: 31 }, { sessionDays: 1.5 }])
      expect((await set(rules)).status).toBe(422)
  })
})

describe('a session', () => {
  it('ends unused after the studio’s hours, and after its days however much it is used', async () => {
    const store = await testStore()
    const db = store.database
    const [studioId, staffId, id] = [uuid(), uuid(), uuid()]
    const began = new Date('2026-11-02T08:00:00Z')
    await db.insert(studio).values({ id: studioId, name: 'Reedwater', sessionIdleHours: 24, sessionDays: 7 })
    await db
      .insert(staff)
      .values({ id: staffId, studioId, name: 'Runa', email: 'r@x.example', passwordHash: '', role: 'lead' })
    const at = began.toISOString()
    await db.insert(session).values({ id, staffId, device: 'Chromium', startedAt: at, seenAt: at, confirmedAt: at })
    const runs = async (when: Date) => (await findSession(db, id, when)) !== null
    expect(await runs(addHours(began, 23))).toBe(true)
    expect(await runs(addHours(began, 25))).toBe(false)
    // Used every half day it runs for its seven days, and no longer.
    for (let hours = 0; hours <= 200; hours += 12) {
      const now = addHours(began, hours)
      const found = await findSession(db, id, now)
      expect(found !== null, `${hours} hours`).toBe(hours < 7 * 24)
      // That it is used is noted long before it would run out.
      if (found && hours > 0) expect(found.stale).toBe(true)
      if (found) await db.transaction((tx) => noteSeen(tx, id, now.toISOString()))
    }
    await db.update(studio).set({ sessionIdleHours: 1, sessionDays: 30 })
    const last = addDays(began, 8)
    await db.transaction((tx) => noteSeen(tx, id, last.toISOString()))
    expect((await findSession(db, id, new Date(+last + 6 * 60_000)))?.stale).toBe(false)
    expect((await findSession(db, id, new Date(+last + 8 * 60_000)))?.stale).toBe(true)
    expect(await runs(addHours(last, 1.1))).toBe(false)
    // Begun or used under a clock ahead of its time: set right, nobody is let in by it, however long the studio allows.
    for (const [startedAt, seenAt] of [
      [addDays(last, 400), addDays(last, 400)],
      [began, addDays(last, 400)],
    ] as const) {
      await db.update(session).set({ startedAt: startedAt.toISOString(), seenAt: seenAt.toISOString() })
      expect(await runs(addHours(last, 0.5))).toBe(false)
    }
    // Clocks of two processes differ by some seconds.
    const ahead = new Date(+last + 60_000).toISOString()
    await db.update(session).set({ startedAt: ahead, seenAt: ahead })
    expect(await runs(last)).toBe(true)
    await store.close()
  })
})
