import { createDecipheriv, createCipheriv, pbkdf2Sync } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { addDays, subMinutes } from 'date-fns'
import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { deviceKey, knownDevice, pin, session, staff, studio } from '../../server/db/schema'
import { checkPin, pinSecret } from '../../server/http/pin'
import { countPin, findPin, peopleOfDevice, pinWorks, setPin } from '../../server/repositories/locks'
import { findSession } from '../../server/repositories/sessions'
import { dataKeys } from '../../server/sealed/keys'
import type { Me, SessionRecord, StaffRecord } from '../../shared/schemas/account'
import type { DeviceKeyAnswer, LockState } from '../../shared/schemas/device'
import type { RecordPage } from '../../shared/schemas/record'
import { Caller, LEAD, someClient, someReading, startedCheckin, type Server } from '../support/api'
import { storeOf, testStore } from '../support/database'
import { until } from '../support/until'

const IVO = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', role: 'coach', password: 'the-other-oar-holds' }

let server: Server
/** One tablet that two coaches use. */
let tablet: Caller
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  tablet = new Caller(server)
  await tablet.signIn(LEAD)
  await tablet.addPerson(IVO)
})
afterAll(() => server.remove())

const me = async (caller = tablet) => (await caller.send<Me>('GET', '/api/me')).body
const lockState = async (caller = tablet) => (await caller.send<LockState>('GET', '/api/lock')).body
const openLock = (staffId: string, digits: string, caller = tablet) =>
  caller.send('POST', '/api/lock/open', { staffId, pin: digits })

describe('a device that locks', () => {
  let runa = ''
  let ivo = ''

  it('takes a PIN that is not the first anybody tries', async () => {
    runa = (await me()).staff.id
    for (const weak of ['1234', '8765', '0000', '123', '123456789', '12a4'])
      expect([weak, (await tablet.send('PUT', '/api/me/pin', { pin: weak })).status]).toEqual([weak, 422])
    expect((await me()).hasPin).toBe(false)
    const set = await tablet.send<Me>('PUT', '/api/me/pin', { pin: '2846' })
    expect([set.status, set.body.hasPin]).toEqual([200, true])
  })

  it('answers nothing while it is locked, whatever is asked, and goes on with the PIN as it was', async () => {
    const client = someClient()
    const { checkinId } = await startedCheckin(tablet, client)
    const stream = await tablet.open(`/api/checkins/${checkinId}/stream`)
    expect((await tablet.send('POST', '/api/lock', {})).status).toBe(200)
    // Its screens hear nothing more.
    const reader = stream.body?.getReader()
    for (let done = false; !done;) done = (await reader?.read())?.done ?? true
    const asked = [
      ['GET', '/api/me'],
      ['GET', '/api/clients'],
      ['GET', `/api/clients/${client.id}/history`],
      ['GET', '/api/me/device-key'],
      ['POST', `/api/checkins/${checkinId}/events`, { readings: [someReading()], strikes: [] }],
      ['PUT', '/api/me/pin', { pin: '9402' }],
      ['DELETE', '/api/me/sessions'],
    ] as const
    for (const [method, path, body] of asked) {
      const refused = await tablet.send(method, path, body)
      expect([path, refused.status, refused.body.locked]).toEqual([path, 423, true])
    }
    const wrong = await openLock(runa, '2847')
    expect([wrong.status, wrong.body.fields[0]]).toEqual([
      422,
      { field: 'pin', message: 'This is not your PIN. 4 more tries, then the password is asked for.' },
    ])
    expect((await openLock(runa, '2846')).status).toBe(200)
    expect((await me()).staff.id).toBe(runa)
    const sent = await tablet.send('POST', `/api/checkins/${checkinId}/events`, {
      readings: [someReading()],
      strikes: [],
    })
    expect(sent.status).toBe(200)
  })

  it('lets only those go on by PIN who have signed in on it themselves', async () => {
    const elsewhere = new Caller(server)
    await elsewhere.signIn(IVO)
    ivo = (await me(elsewhere)).staff.id
    await elsewhere.send('PUT', '/api/me/pin', { pin: '730514' })
    await tablet.send('POST', '/api/lock', {})
    expect((await lockState()).people.map(({ name }) => name)).toEqual(['Runa Bexley'])
    const refused = await openLock(ivo, '730514')
    expect(refused.body.fields[0]?.message).toContain('sign in on this device with your password first')
    // A stranger without a session learns nothing of it at all.
    expect((await new Caller(server).send('GET', '/api/lock')).status).toBe(401)
    expect((await openLock(runa, '2846', new Caller(server))).status).toBe(401)
    // By password he takes the tablet over; from now on both are known on it.
    await tablet.signIn(IVO)
    await tablet.send('POST', '/api/lock', {})
    expect(await lockState()).toMatchObject({
      lockedAt: expect.any(String) as string,
      staffId: ivo,
      people: [
        { id: ivo, name: 'Ivo Tarn', hasPin: true },
        { id: runa, name: 'Runa Bexley', hasPin: true },
      ],
    })
  })

  it('is taken over by PIN with a session of one’s own, which proves nothing that is guarded', async () => {
    expect((await openLock(runa, '2846')).status).toBe(200)
    const now = await me()
    expect(now.staff.id).toBe(runa)
    expect((await tablet.send('POST', '/api/calendar-links', { of: 'studio' })).body.confirm).toBe(true)
    await tablet.send('POST', '/api/me/confirm', { password: LEAD.password })
    expect((await tablet.send('POST', '/api/calendar-links', { of: 'studio' })).status).toBe(201)
    const said = (await tablet.send<RecordPage>('GET', '/api/record?kind=session.by-pin')).body.lines
    expect(said.map(({ words, by }) => [words, by])).toEqual([['went on at a locked device by PIN', 'Runa Bexley']])
  })

  it('after five wrong ones asks for the password, which makes the PIN good again', async () => {
    await tablet.send('POST', '/api/lock', {})
    const said: string[] = []
    for (let i = 0; i < 6; i += 1) {
      const { status, body } = await openLock(runa, '4444')
      if (status === 429) {
        await new Promise((done) => setTimeout(done, 1_100))
        i -= 1
      } else said.push(body.fields[0]?.message ?? '')
    }
    expect(said.slice(3)).toEqual([
      'This is not your PIN. One more try, then the password is asked for.',
      'This is not your PIN, and it was the fifth time. Please sign in with your password.',
      'There is no PIN, or it was wrong too often. Please sign in with your password.',
    ])
    expect((await lockState()).people.find(({ id }) => id === runa)?.hasPin).toBe(false)
    await tablet.signIn(LEAD)
    await tablet.send('POST', '/api/lock', {})
    await until(
      () => openLock(runa, '2846'),
      ({ status }) => status !== 429,
    )
    expect((await me()).staff.id).toBe(runa)
    expect((await tablet.send<Me>('DELETE', '/api/me/pin')).body.hasPin).toBe(false)
  })

  it('gives the key it seals with to whoever is signed in, one for the studio, and to nobody else', async () => {
    const [own, again] = [await tablet.send<DeviceKeyAnswer>('GET', '/api/me/device-key'), new Caller(server)]
    await again.signIn(IVO)
    const other = (await again.send<DeviceKeyAnswer>('GET', '/api/me/device-key')).body
    expect(own.body.key).toBe(other.key)
    expect(Buffer.from(own.body.key, 'base64')).toHaveLength(32)
    // Nothing that a PIN could be tried against, for a person with one.
    expect(Object.keys(other)).toEqual(['key'])
    expect((await new Caller(server).send('GET', '/api/me/device-key')).status).toBe(401)
    // It is a key as the Web Cryptography API takes one: AES-256-GCM, there and back.
    const key = Buffer.from(other.key, 'base64')
    const seal = createCipheriv('aes-256-gcm', key, Buffer.alloc(12))
    const sealed = Buffer.concat([seal.update('12.5'), seal.final()])
    const open = createDecipheriv('aes-256-gcm', key, Buffer.alloc(12)).setAuthTag(seal.getAuthTag())
    expect(Buffer.concat([open.update(sealed), open.final()]).toString()).toBe('12.5')
  })
})

describe('a sign-in on a device its person did not know', () => {
  it('is said on their others, by mail, and in the record; theirs or not, they decide', async () => {
    const [home, away] = [new Caller(server), new Caller(server)]
    await home.signIn(IVO)
    await away.signIn(IVO)
    const sessions = async (caller: Caller) => (await caller.send<SessionRecord[]>('GET', '/api/me/sessions')).body
    expect((await tablet.send<{ mails: unknown[] }>('GET', '/api/mail')).body.mails).toEqual([])
    const id = (await sessions(away)).find(({ own }) => own)?.id ?? ''
    expect((await me(home)).strange).toMatchObject({ id, device: expect.any(String) as string })
    const mails = () => {
      const folder = join(server.dataDir, 'mail')
      return readdirSync(folder).map((name) => readFileSync(join(folder, name), 'utf8'))
    }
    const told = await until(
      () => Promise.resolve(mails().filter((text) => text.includes(IVO.email))),
      (found) => found.length > 0,
    )
    expect(told[0]).toMatch(/^Subject: A sign-in on a new device, Reedwater Rowing Club/m)
    // Somebody else cannot say that for him.
    await tablet.send('POST', `/api/me/sessions/${id}/known`, {})
    expect((await me(home)).strange?.id).toBe(id)
    const known = await home.send<Me>('POST', `/api/me/sessions/${id}/known`, {})
    expect(known.body.strange?.id).not.toBe(id)
    // Saying so ends nothing.
    expect((await sessions(away)).find(({ own }) => own)?.id).toBe(id)
    const record = (await tablet.send<RecordPage>('GET', '/api/record?kind=session.strange')).body.lines
    expect(record[0]).toMatchObject({ words: 'signed in on a device new to them', by: 'Ivo Tarn' })
  })
})

describe('a studio that asks for a second proof', () => {
  it('opens nothing but their own account to whoever has none, and lets nobody lose the last', async () => {
    await tablet.signIn(LEAD)
    expect((await tablet.send('PUT', '/api/studio/rules', { secondRequired: true })).status).toBe(200)
    const ivo = new Caller(server)
    await ivo.signIn(IVO)
    expect((await me(ivo)).lacksSecond).toBe(true)
    const refused = await ivo.send('GET', '/api/clients')
    expect([refused.status, refused.body.second]).toEqual([403, true])
    expect((await tablet.send('GET', '/api/clients')).status).toBe(403)
    const { authenticator } = await import('otplib')
    for (const caller of [ivo, tablet]) {
      const { secret } = (await caller.send<{ secret: string }>('POST', '/api/me/second-factor', {})).body
      const code = authenticator.generate(secret)
      expect((await caller.send('POST', '/api/me/second-factor/confirm', { code })).status).toBe(200)
      expect((await caller.send('GET', '/api/clients')).status).toBe(200)
    }
    const kept = await ivo.send('DELETE', '/api/me/second-factor')
    expect([kept.status, kept.body.message]).toEqual([
      409,
      'Your studio asks for a second proof: please set another one up before this one goes.',
    ])
    expect((await tablet.send<StaffRecord[]>('GET', '/api/staff')).body.map(({ hasCode }) => hasCode)).toEqual([
      true,
      true,
    ])
    expect((await tablet.send('PUT', '/api/studio/rules', { secondRequired: false })).status).toBe(200)
    expect((await ivo.send('DELETE', '/api/me/second-factor')).status).toBe(200)
  })
})

describe('what is stored of it', () => {
  it('is sealed where there is a key: PINs bound to their person, the key of devices', async () => {
    await server.end()
    const store = await storeOf(server)
    const [kept] = await store.database.select().from(pin)
    expect(kept?.secret).not.toContain('730514')
    expect((await store.database.select().from(deviceKey)).length).toBe(1)
    await store.close()
    await server.start()
    const before = process.env.DATA_KEY
    process.env.DATA_KEY = 'A'.repeat(43)
    try {
      const sealed = await pinSecret('one', '2846')
      expect(sealed).not.toContain('scrypt')
      expect(await checkPin('one', sealed, '2846')).toEqual({ right: true, isOld: false })
      expect(await checkPin('one', sealed, '2847')).toEqual({ right: false, isOld: false })
      await expect(checkPin('another', sealed, '2846')).rejects.toThrow()
      expect(dataKeys().current).not.toBeNull()
    } finally {
      if (before === undefined) delete process.env.DATA_KEY
      else process.env.DATA_KEY = before
    }
  })

  it('is made with scrypt and a key the database does not hold; an older one opens and is stored anew', async () => {
    const before = process.env.NUXT_SESSION_PASSWORD
    const salt = Buffer.alloc(16, 1)
    const hash = pbkdf2Sync('2846', salt, 1000, 32, 'sha256').toString('base64')
    const old = JSON.stringify({ salt: salt.toString('base64'), iterations: 1000, hash })
    process.env.NUXT_SESSION_PASSWORD = 'o'.repeat(40)
    try {
      expect(await checkPin('one', old, '2846')).toEqual({ right: true, isOld: true })
      expect(await checkPin('one', old, '2847')).toEqual({ right: false, isOld: true })
      const made = await pinSecret('one', '2846')
      expect(await checkPin('one', made, '2846')).toEqual({ right: true, isOld: false })
      // Somebody who has the database alone tries every PIN for nothing: without the key the right one is wrong.
      process.env.NUXT_SESSION_PASSWORD = 'p'.repeat(40)
      expect((await checkPin('one', made, '2846')).right).toBe(false)
    } finally {
      if (before === undefined) delete process.env.NUXT_SESSION_PASSWORD
      else process.env.NUXT_SESSION_PASSWORD = before
    }
  })

  it('counts tries before they are looked at, forgets people after a studio’s days, and locks what is left unused', async () => {
    const store = await testStore()
    const db = store.database
    const [studioId, staffId, sessionId] = [uuid(), uuid(), uuid()]
    await db.insert(studio).values({ id: studioId, name: 'Reedwater', sessionDays: 7 })
    await db
      .insert(staff)
      .values({ id: staffId, studioId, name: 'Runa', email: 'r@x.example', passwordHash: '', role: 'lead' })
    await db.transaction((tx) => setPin(tx, staffId, 'kept'))
    const tries = await Promise.all(Array.from({ length: 8 }, () => db.transaction((tx) => countPin(tx, staffId))))
    expect(tries.filter((left) => left !== null).sort()).toEqual([0, 1, 2, 3, 4])
    expect(await findPin(db, staffId)).toBeNull()
    await db.transaction((tx) => pinWorks(tx, staffId))
    expect(await findPin(db, staffId)).toBe('kept')
    const now = new Date()
    await db.insert(knownDevice).values({ id: uuid(), staffId, tokenHash: 'one', at: now.toISOString() })
    const known = async (at: Date) => (await peopleOfDevice(db, { studioId }, 'one', at)).length
    expect([await known(addDays(now, 6)), await known(addDays(now, 8))]).toEqual([1, 0])
    // Unused for longer than an hour, a session is locked where a studio wants its devices locked.
    const seenAt = subMinutes(now, 61).toISOString()
    const startedAt = seenAt
    await db.insert(session).values({ id: sessionId, staffId, device: 'Chromium', startedAt, seenAt })
    const lockedAt = async (at = now) => (await findSession(db, sessionId, at))?.lockedAt ?? null
    expect(await lockedAt()).toBeNull()
    await db.update(studio).set({ lockMinutes: 5 }).where(eq(studio.id, studioId))
    expect(await lockedAt()).not.toBeNull()
    expect(await lockedAt(subMinutes(now, 2))).toBeNull()
    await store.close()
  })
})
