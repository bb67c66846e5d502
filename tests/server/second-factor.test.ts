import { authenticator } from 'otplib'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { secondFactor, staff, studio } from '../../server/db/schema'
import { takeCode } from '../../server/http/second-factor'
import { sealText, unsealText } from '../../server/sealed/sealed-text'
import { dataKeys } from '../../server/sealed/keys'
import type { RecordPage } from '../../shared/schemas/record'
import type { RecoveryCodes, SecondFactorBegun, SecondFactorState, StaffRecord } from '../../shared/schemas/account'
import { Caller, LEAD, type Server } from '../support/api'
import { storeOf, testStore } from '../support/database'

const IVO = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', role: 'coach', password: 'the-other-oar-holds' }
let server: Server
let lead: Caller
let ivo: Caller
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  lead = new Caller(server)
  await lead.signIn(LEAD)
  await lead.addPerson(IVO)
  ivo = new Caller(server)
  await ivo.signIn(IVO)
})
afterAll(() => server.remove())

const signIn = (code?: string, caller = new Caller(server)) =>
  caller.send('POST', '/api/sign-in', { email: IVO.email, password: IVO.password, ...(code ? { code } : {}) })
const state = async () => (await ivo.send<SecondFactorState>('GET', '/api/me/second-factor')).body
/** What a phone shows some steps from now. */
const shown = (secret: string, steps = 0) =>
  authenticator.clone({ epoch: Date.now() + steps * 30_000 }).generate(secret)
const step = () => Math.floor(Date.now() / 30_000)

/** Sends what a phone shows, once more where the clock went on to another step in between. */
async function sendShown<Sent extends { status: number }>(
  secret: string,
  steps: number,
  send: (code: string) => Promise<Sent>,
): Promise<Sent> {
  for (;;) {
    const at = step()
    const answer = await send(shown(secret, steps))
    if (answer.status === 200 || step() === at) return answer
  }
}

describe('a second proof', () => {
  let secret = ''
  let codes: string[] = []

  it('counts once the first code was right, and gives ten codes on paper', async () => {
    expect(await state()).toEqual({ since: null, codesLeft: 0 })
    const begun = await ivo.send<SecondFactorBegun>('POST', '/api/me/second-factor', {})
    secret = begun.body.secret
    expect(begun.body.uri).toMatch(/^otpauth:\/\/totp\/Oak%20Pinch:ivo%40reedwater\.example\?secret=[A-Z2-7]{32}&/)
    // Until then the password is enough.
    expect((await signIn()).status).toBe(200)
    const wrong = await ivo.send('POST', '/api/me/second-factor/confirm', { code: '000000' })
    expect([wrong.status, wrong.body.fields[0]?.field]).toEqual([422, 'code'])
    expect((await ivo.send('POST', '/api/me/second-factor/confirm', { code: 'abc' })).status).toBe(422)
    const on = await sendShown(secret, -1, (code) =>
      ivo.send<RecoveryCodes>('POST', '/api/me/second-factor/confirm', { code }),
    )
    codes = on.body.codes
    expect(on.body).toMatchObject({ since: expect.any(String) as string, codesLeft: 10 })
    expect(new Set(codes).size).toBe(10)
    expect((await ivo.send('POST', '/api/me/second-factor', {})).status).toBe(409)
    const people = (await lead.send<StaffRecord[]>('GET', '/api/staff')).body
    expect(people.map(({ name, hasCode }) => [name, hasCode])).toEqual([
      ['Ivo Tarn', true],
      ['Runa Bexley', false],
    ])
  })

  it('is asked for at the sign-in: by the phone once, by paper once; nobody comes in without', async () => {
    const asked = await signIn()
    expect([asked.status, asked.body.fields[0]?.field]).toEqual([401, 'code'])
    const caller = new Caller(server)
    expect((await signIn(shown(secret), caller)).status).toBe(200)
    expect((await caller.send('GET', '/api/me')).status).toBe(200)
    expect((await signIn(shown(secret))).status).toBe(401)
    // Typed as it is read off paper.
    expect((await signIn(` ${codes[0]?.toUpperCase().replace('-', ' ')}`)).status).toBe(200)
    expect((await signIn(codes[0])).status).toBe(401)
    expect((await state()).codesLeft).toBe(9)
    expect((await signIn('zzzzz-zzzzz')).status).toBe(401)
    // A wrong password says nothing of codes.
    const wrong = await ivo.send('POST', '/api/sign-in', {
      email: IVO.email,
      password: 'not it at all',
      code: codes[1],
    })
    expect([wrong.status, wrong.body.fields[0]?.field]).toEqual([401, 'password'])
    const said = (await lead.send<RecordPage>('GET', '/api/record')).body.lines.map(({ words }) => words)
    expect(said).toContain('signed in with a code on paper')
    expect(said).toContain('added a second proof to their account')
  })

  it('is not guessed: codes count as wrong passwords do', async () => {
    const tried = await Promise.all(Array.from({ length: 14 }, (_, i) => signIn(String(100_000 + i))))
    expect(new Set(tried.map(({ status }) => status))).toEqual(new Set([401, 429]))
    expect(tried.filter(({ status }) => status === 429).length).toBeGreaterThan(6)
  })

  it('gets new paper, is taken away by its person, and by a lead from whoever has lost both', async () => {
    const fresh = (await ivo.send<RecoveryCodes>('POST', '/api/me/second-factor/codes', {})).body
    expect(fresh.codesLeft).toBe(10)
    expect(fresh.codes).not.toContain(codes[1])
    expect((await ivo.send<SecondFactorState>('DELETE', '/api/me/second-factor')).body).toEqual({
      since: null,
      codesLeft: 0,
    })
    const again = (await ivo.send<SecondFactorBegun>('POST', '/api/me/second-factor', {})).body.secret
    expect(again).not.toBe(secret)
    expect((await ivo.send('POST', '/api/me/second-factor/confirm', { code: shown(again) })).status).toBe(200)
    const [person] = (await lead.send<StaffRecord[]>('GET', '/api/staff')).body
    expect((await ivo.send('DELETE', `/api/staff/${person?.id}/second-factor`)).status).toBe(403)
    expect((await lead.send('DELETE', `/api/staff/${person?.id}/second-factor`)).status).toBe(200)
    expect((await lead.send('DELETE', `/api/staff/${person?.id}/second-factor`)).status).toBe(404)
    // Signed out everywhere.
    expect((await ivo.send('GET', '/api/me')).status).toBe(401)
  })

  it('lies in the database sealed where there is a key, bound to its person, and paper as hashes', async () => {
    const keys = dataKeys({ DATA_KEY: 'A'.repeat(43) })
    const kept = sealText('GEZDGNBVGY3TQOJQ', 'second factor of one', keys)
    expect(kept).not.toContain('GEZD')
    expect(unsealText(kept, 'second factor of one', keys)).toBe('GEZDGNBVGY3TQOJQ')
    expect(() => unsealText(kept, 'second factor of another', keys)).toThrow()
    expect(() => unsealText(kept, 'second factor of one', dataKeys({}))).toThrow('name it in DATA_KEY')
    expect(unsealText('GEZDGNBVGY3TQOJQ', 'any', dataKeys({}))).toBe('GEZDGNBVGY3TQOJQ')
    await lead.send('POST', '/api/me/second-factor', {})
    await server.end()
    const store = await storeOf(server)
    const [row] = await store.database.select().from(secondFactor)
    expect(row).toMatchObject({ confirmedAt: null, lastStep: 0 })
    await store.close()
    await server.start()
    expect((await new Caller(server).send('POST', '/api/sign-in', LEAD)).status).toBe(200)
  })
})

describe('the codes', () => {
  it('are those of RFC 6238, taken once, a step early or late, and never an older one after a newer', async () => {
    const store = await testStore()
    const [studioId, staffId] = [uuid(), uuid()]
    await store.database.insert(studio).values({ id: studioId, name: 'Reedwater' })
    await store.database
      .insert(staff)
      .values({ id: staffId, studioId, name: 'Runa', email: 'r@x.example', passwordHash: '', role: 'lead' })
    // RFC 6238, appendix B: the ASCII secret "12345678901234567890" in base32; the last six of its eight digits.
    const secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ'
    await store.database.insert(secondFactor).values({ staffId, secret })
    const take = (code: string, seconds: number) =>
      store.database.transaction((tx) => takeCode(tx, staffId, code, seconds * 1000))
    expect(await take('287082', 59)).toBe(true)
    expect(await take('287082', 59)).toBe(false)
    expect(await take('081804', 1_111_111_109)).toBe(true)
    expect(await take('050471', 1_111_111_111)).toBe(true)
    expect(await take('081804', 1_111_111_111)).toBe(false)
    // A step late, a step early, and two steps are too many.
    expect(await take('005924', 1_234_567_890 + 30)).toBe(true)
    expect(await take('279037', 2_000_000_000 - 30)).toBe(true)
    expect(await take('353130', 20_000_000_000 - 61)).toBe(false)
    expect(await take('353130', 20_000_000_000 + 89)).toBe(false)
    await store.close()
  })
})
