import fc from 'fast-check'
import { eq } from 'drizzle-orm'
import sharp from 'sharp'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import { clientLink } from '../../server/db/schema'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { Floor } from '../../shared/schemas/checkin'
import type { Client, ClientInput } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import type { ClientHome, FromHome, LinkDoor } from '../../shared/schemas/link'
import type { RecordPage } from '../../shared/schemas/record'
import { Caller, LEAD, type Server, someClient, someReading, startedCheckin } from '../support/api'
import { storeOf } from '../support/database'
import { hostileBody } from '../support/hostile'
import { allRoutes } from '../support/routes'
import { enterVisit } from '../support/visits'

const PIN = '4719'
const SCOPE = ['weigh-ins', 'girths', 'photographs', 'take-home']
const today = new Date().toISOString().slice(0, 10)

let server: Server
let coach: Caller
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
})
afterAll(() => server.remove())

interface AtHome {
  id: string
  token: string
  phone: Caller
}
const makeLink = async (id: string, link: object = {}) =>
  coach.send<{ link: string; fromHome: FromHome }>('POST', `/api/clients/${id}/links`, {
    scope: SCOPE,
    days: 30,
    ...link,
  })
const tokenOf = (link: string) => link.split('#')[1] ?? ''

async function invited(change: Partial<ClientInput> = {}, link: object = {}): Promise<{ id: string; token: string }> {
  const client = someClient({ photoConsentOn: '2026-01-10', ...change })
  await coach.send('POST', '/api/clients', client)
  return { id: client.id, token: tokenOf((await makeLink(client.id, link)).body.link) }
}
async function atHome(change: Partial<ClientInput> = {}, link: object = {}): Promise<AtHome> {
  const made = await invited(change, link)
  const phone = new Caller(server)
  expect((await phone.send('POST', '/api/link/pin', { token: made.token, pin: PIN })).status).toBe(200)
  return { ...made, phone }
}
const weighIn = (change: object = {}) => ({ id: uuid(), day: today, value: 71.4, unit: 'kg', ...change })
const girth = (site: string, trial: number, value: number) => ({ id: uuid(), site, trial, value, unit: 'cm' })
const week = (change: object = {}) => ({
  id: uuid(),
  day: today,
  girths: [girth('abdomen', 1, 80), girth('abdomen', 2, 80.4), girth('hip', 1, 97), girth('hip', 2, 97.2)],
  ...change,
})
const home = async (phone: Caller) => (await phone.send<ClientHome>('GET', '/api/hand-in')).body
const fromHome = async (id: string) => (await coach.send<FromHome>('GET', `/api/clients/${id}/from-home`)).body
const photoPath = (handInId: string, id = uuid()) =>
  `/api/hand-in/photos?${new URLSearchParams({ id, handInId, pose: 'front', takenAt: new Date().toISOString() })}`

describe('a link', () => {
  it('shows a first name and the studio before its PIN, and nothing else', async () => {
    const { token } = await invited({ name: 'Maren Osk' })
    const stranger = new Caller(server)
    expect((await stranger.send<LinkDoor>('POST', '/api/link/open', { token })).body).toEqual({
      studioName: 'Reedwater Rowing Club',
      firstName: 'Maren',
      pin: 'choose',
    })
    expect((await stranger.send('GET', '/api/hand-in')).status).toBe(401)
  })

  it('takes the PIN of its first opening, asks for it on another phone, and notes when it was opened', async () => {
    const { id, token, phone } = await atHome()
    expect((await home(phone)).firstName).toBe('Maren')
    const second = new Caller(server)
    expect((await second.send<LinkDoor>('POST', '/api/link/open', { token })).body.pin).toBe('give')
    const wrong = await second.send('POST', '/api/link/pin', { token, pin: '2222' })
    expect(wrong.status).toBe(422)
    expect(wrong.text).toContain('not the PIN')
    expect((await second.send('POST', '/api/link/pin', { token, pin: PIN })).status).toBe(200)
    expect((await home(second)).firstName).toBe('Maren')
    const [link] = (await fromHome(id)).links
    expect(link).toMatchObject({ hasPin: true, locked: false })
    expect(link?.firstOpenedAt).not.toBeNull()
  })

  it.each([
    ['123', 'Four to eight digits'],
    ['1111', 'Everybody tries this one'],
    ['2345', 'Everybody tries this one'],
    ['12ab', 'Four to eight digits'],
  ])('does not take %s for a PIN', async (pin, sentence) => {
    const { token } = await invited()
    const { status, text } = await new Caller(server).send('POST', '/api/link/pin', { token, pin })
    expect(status).toBe(422)
    expect(text).toContain(sentence)
  })

  it('is locked by five wrong PINs in a row, sent one by one or together, until the coach renews it', async () => {
    const { id, token, phone } = await atHome()
    const guess = (pin: string) => new Caller(server).send('POST', '/api/link/pin', { token, pin })
    // A right one in between begins the count anew.
    for (const pin of ['2213', '2214', '2215']) expect((await guess(pin)).status).toBe(422)
    expect((await guess(PIN)).status).toBe(200)
    const answers = await Promise.all(Array.from({ length: 9 }, (_, i) => guess(String(3001 + i))))
    expect(answers.filter(({ status }) => status === 422)).toHaveLength(5)
    expect(answers.filter(({ status }) => status === 410)).toHaveLength(4)
    const locked = await guess(PIN)
    expect(locked.status).toBe(410)
    expect(locked.text).toContain('locked until your coach renews it')
    // Also for the phone that was let in.
    expect((await phone.send('GET', '/api/hand-in')).text).toContain('locked until')
    expect((await fromHome(id)).links[0]?.locked).toBe(true)
    const renewed = tokenOf((await makeLink(id)).body.link)
    expect((await guess(PIN)).text).toContain('This link was ended')
    expect((await new Caller(server).send('POST', '/api/link/pin', { token: renewed, pin: '8841' })).status).toBe(200)
  })

  it('ends at once for every phone when it is ended, and says so', async () => {
    const { id, token, phone } = await atHome()
    const [link] = (await fromHome(id)).links
    expect((await coach.send('DELETE', `/api/clients/${id}/links/${link?.id}`)).status).toBe(200)
    const answer = await phone.send('GET', '/api/hand-in')
    expect(answer.status).toBe(401)
    const opened = await phone.send('POST', '/api/link/open', { token })
    expect(opened.status).toBe(410)
    expect(opened.text).toContain('This link was ended')
  })

  it('runs out by its day, with a sentence that says nothing is lost', async () => {
    const { id, token, phone } = await atHome()
    await phone.send('POST', '/api/hand-in/weigh-ins', weighIn())
    const [link] = (await fromHome(id)).links
    const { id: _, archived: _archived, ...record } = (await coach.send<Client>('GET', `/api/clients/${id}`)).body
    await coach.send('PATCH', `/api/clients/${id}`, { ...record, flags: ['pregnant'] })
    const suspended = async () =>
      (await coach.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body.suspensions
    expect(await suspended()).toHaveLength(1)
    await server.end()
    const store = await storeOf(server)
    await store.database
      .update(clientLink)
      .set({ expiresAt: new Date(Date.now() - 60_000).toISOString() })
      .where(eq(clientLink.id, link?.id ?? ''))
    await store.close()
    await server.start()
    const opened = await new Caller(server).send('POST', '/api/link/open', { token })
    expect(opened.status).toBe(410)
    expect(opened.text).toContain('has run out')
    // It asks for no daily weight any more, so nobody has to decide about one.
    expect(await suspended()).toEqual([])
    await coach.send('PATCH', `/api/clients/${id}`, {
      ...record,
      version: (await coach.send<Client>('GET', `/api/clients/${id}`)).body.version,
    })
    expect((await phone.send('GET', '/api/hand-in')).text).toContain('Nothing you have handed in is lost')
    const { body } = await coach.send<FromHome>('PATCH', `/api/clients/${id}/links/${link?.id}`, { days: 14 })
    expect(Date.parse(body.links[0]?.expiresAt ?? '')).toBeGreaterThan(Date.now() + 13 * 86_400_000)
    expect((await home(phone)).weighIns).toHaveLength(1)
  })

  it('opens what it was made for', async () => {
    const { id, phone } = await atHome({}, { scope: ['girths'] })
    expect((await phone.send('POST', '/api/hand-in/weigh-ins', weighIn())).status).toBe(403)
    expect((await phone.send('GET', '/api/hand-in/take-home')).status).toBe(403)
    const [link] = (await fromHome(id)).links
    await coach.send('PATCH', `/api/clients/${id}/links/${link?.id}`, { scope: ['weigh-ins'] })
    expect((await phone.send('POST', '/api/hand-in/weigh-ins', weighIn())).status).toBe(200)
    expect((await phone.send('POST', '/api/hand-in/weeks', week())).status).toBe(403)
    expect((await phone.send('POST', '/api/hand-in/weeks', week({ girths: [], words: 'Well.' }))).status).toBe(201)
  })

  it('is nobody’s without consent', async () => {
    const client = someClient({ consentOn: null })
    await coach.send('POST', '/api/clients', client)
    expect((await makeLink(client.id)).status).toBe(409)
  })
})

describe('with a client’s session', () => {
  it('nothing but their own is reached: every route is walked', async () => {
    const { phone } = await atHome()
    const other = await startedCheckin(coach, someClient({ name: 'Somebody Else', notes: 'a secret of theirs' }))
    await coach.send('POST', `/api/checkins/${other.checkinId}/events`, { readings: [someReading()], strikes: [] })
    const closed: string[] = []
    for (const route of allRoutes(other.clientId)) {
      const [method = 'GET', path = ''] = route.split(' ')
      if (
        path.startsWith('/api/hand-in') ||
        /\/api\/(link|sign-|setup|health|ready|metrics|password-reset|stop-mail|board)/.test(path)
      )
        continue
      const { status, text } = await phone.send(method, path, method === 'GET' ? undefined : {})
      expect(status, route).toBe(401)
      expect(text).not.toMatch(/Somebody Else|secret of theirs/)
      closed.push(route)
    }
    expect(closed.length).toBeGreaterThan(50)
    for (const path of ['/clients', `/clients/${other.clientId}`, '/studio']) {
      expect((await phone.bytes(path)).headers.get('location') ?? '/sign-in').toContain('/sign-in')
    }
  })

  it('another’s photographs and weeks are not there', async () => {
    const [mine, theirs] = [await atHome({ name: 'One Rower' }), await atHome({ name: 'Other Rower' })]
    const own = week()
    await theirs.phone.send('POST', '/api/hand-in/weeks', own)
    const bytes = await sharp({ create: { width: 40, height: 60, channels: 3, background: '#987' } })
      .jpeg()
      .toBuffer()
    const photo = uuid()
    expect((await theirs.phone.sendBytes(photoPath(own.id, photo), bytes)).status).toBe(201)
    expect((await theirs.phone.picture(`/api/hand-in/photos/${photo}`)).status).toBe(200)
    expect((await mine.phone.send('GET', `/api/hand-in/photos/${photo}`)).status).toBe(404)
    expect((await mine.phone.sendBytes(photoPath(own.id), bytes)).status).toBe(404)
    expect((await coach.picture(`/api/home-photos/${photo}`)).status).toBe(200)
    expect((await mine.phone.send('GET', `/api/home-photos/${photo}`)).status).toBe(401)
  })

  it('a coach’s session does not open a client’s own place', async () => {
    expect((await coach.send('GET', '/api/hand-in')).status).toBe(401)
  })

  it('this phone can be signed out, and no other', async () => {
    const { token, phone } = await atHome()
    const second = new Caller(server)
    await second.send('POST', '/api/link/pin', { token, pin: PIN })
    await phone.send('POST', '/api/hand-in/leave', {})
    expect((await phone.send('GET', '/api/hand-in')).status).toBe(401)
    expect((await second.send('GET', '/api/hand-in')).status).toBe(200)
  })
})

describe('a link asks and lets go', () => {
  it('for the places its coach has chosen, the usual three otherwise', async () => {
    expect((await home((await atHome()).phone)).sites).toEqual(['shoulders', 'abdomen', 'hip'])
    const { phone } = await atHome({}, { sites: ['waist', 'thigh-girth'] })
    expect((await home(phone)).sites).toEqual(['waist', 'thigh-girth'])
    const { id } = await invited()
    expect((await makeLink(id, { sites: ['elbow'] })).status).toBe(422)
  })

  it('of a challenge with one press, and only one’s own', async () => {
    const [{ id, phone }, other] = [await atHome(), await atHome()]
    const challenge = {
      id: uuid(),
      name: 'Lake',
      startsOn: today,
      endsOn: addDays(today, 60),
      figure: 'sum',
      categories: 'none',
      prizeRule: 'share',
      accepted: true,
    }
    expect((await coach.send('POST', '/api/challenges', challenge)).status).toBe(201)
    const entry = { id: uuid(), clientId: id, shownAs: 'name', consentOn: today }
    expect((await coach.send('POST', `/api/challenges/${challenge.id}/entries`, entry)).status).toBe(201)
    expect((await home(phone)).challenges).toEqual([{ entryId: entry.id, name: 'Lake' }])
    const leave = (who: Caller) => who.send<ClientHome>('POST', '/api/hand-in/leave-challenge', { entryId: entry.id })
    expect((await leave(other.phone)).status).toBe(404)
    expect((await leave(phone)).body.challenges).toEqual([])
    expect((await leave(phone)).status).toBe(404)
  })
})

describe('what is handed in', () => {
  it('arrives once, however often it is sent: weight into the diary with its source, the first of a day counting', async () => {
    const { id, phone } = await atHome()
    const first = weighIn({ value: 71.2 })
    const send = (one: object) => phone.send<{ counts: boolean }>('POST', '/api/hand-in/weigh-ins', one)
    expect((await send(first)).body.counts).toBe(true)
    const second = weighIn({ value: 70.4 })
    expect((await send(second)).body.counts).toBe(false)
    expect((await send(first)).body.counts).toBe(true)
    expect((await send(second)).body.counts).toBe(false)
    expect((await send({ ...first, value: 72 })).status).toBe(409)
    const { weighIns } = (await coach.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body
    expect(weighIns).toEqual([{ id: first.id, day: today, value: 71.2, unit: 'kg', dry: true, source: 'link' }])
  })

  it('a week waits on the floor until it is looked at; tape, pictures and words are there, and the answer comes back', async () => {
    const { id, phone } = await atHome({ name: 'Petra Lindqvane' })
    for (const [back, cm] of [
      [14, 82.4],
      [7, 81.5],
    ] as const)
      await phone.send(
        'POST',
        '/api/hand-in/weeks',
        week({ day: addDays(today, -back), girths: [girth('abdomen', 1, cm), girth('abdomen', 2, cm)] }),
      )
    const own = week({ fit: 'looser', words: 'Slept little.', conditions: { sleep: 'short' } })
    expect((await phone.send('POST', '/api/hand-in/weeks', own)).status).toBe(201)
    expect((await phone.send('POST', '/api/hand-in/weeks', own)).status).toBe(201)
    const waits = async () =>
      (await coach.send<Floor>('GET', '/api/floor')).body.handIns.filter(({ clientId }) => clientId === id)
    expect((await waits()).map((one) => one.id)).toContain(own.id)
    expect(await waits()).toHaveLength(3)
    for (const value of [71, 71.6, 71.2].entries())
      await phone.send('POST', '/api/hand-in/weigh-ins', weighIn({ day: addDays(today, -value[0]), value: value[1] }))
    const { weeks } = await fromHome(id)
    expect(weeks).toHaveLength(3)
    // By hand: the mean of 71, 71.6 and 71.2; the navel 80.2 of 80 and 80.4, 1.3 less than a week before.
    expect(weeks[0]?.weight?.weightKg).toBeCloseTo(71.2667, 3)
    expect(weeks[0]?.weight?.sinceLast).toBeNull()
    const navel = weeks[0]?.changes.find(({ site }) => site === 'abdomen')
    expect(navel?.cm).toBeCloseTo(80.2, 9)
    expect(navel?.sinceLast).toBeCloseTo(-1.3, 9)
    expect(navel?.change).toMatchObject({ visits: 3 })
    expect(weeks[0]).toMatchObject({ fit: 'looser', words: 'Slept little.', conditions: { sleep: 'short' } })
    for (const one of weeks) await coach.send('POST', `/api/clients/${id}/hand-ins/${one.id}`, {})
    expect(await waits()).toEqual([])
    const line = { id: uuid(), handInId: own.id, words: 'Sleep first, then the rest.' }
    expect((await coach.send('POST', `/api/clients/${id}/lines`, line)).status).toBe(201)
    expect((await home(phone)).lines).toMatchObject([{ words: line.words, handInId: own.id, by: 'Runa Bexley' }])
    expect((await home(phone)).weeks[0]?.girths).toHaveLength(4)
  })

  it('holds no figure for who is to see none', async () => {
    const { id, phone } = await atHome({ flags: ['neutral-wish'] }, { reason: 'The care team asks for it.' })
    await enterVisit(coach, id, { daysAgo: 5, values: [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24], kg: 61 })
    await phone.send('POST', '/api/hand-in/weigh-ins', weighIn({ value: 61.37 }))
    const answer = await phone.send<ClientHome>('POST', '/api/hand-in/weeks', week())
    expect(answer.text).not.toMatch(/61\.3|80\.4|97\.2/)
    const { text, body } = await phone.send<ClientHome>('GET', '/api/hand-in')
    expect(text).not.toMatch(/61\.3|80\.4|97\.2/)
    expect(body).toMatchObject({ neutral: true, weighIns: [{ kg: null }] })
    expect(body.weeks[0]?.girths.every(({ value }) => value === null)).toBe(true)
    expect((await phone.bytes('/api/hand-in/take-home')).status).toBe(200)
  })

  it.each([
    ['7.1 kg', '/api/hand-in/weigh-ins', () => weighIn({ value: 7.1 }), 'A weight lies between 20 and 350 kg'],
    ['710 kg', '/api/hand-in/weigh-ins', () => weighIn({ value: 710 }), 'A weight lies between 20 and 350 kg'],
    ['tomorrow', '/api/hand-in/weigh-ins', () => weighIn({ day: addDays(today, 1) }), 'still to come'],
    ['last year', '/api/hand-in/weigh-ins', () => weighIn({ day: addDays(today, -200) }), 'long ago'],
    ['a navel of 8 cm', '/api/hand-in/weeks', () => week({ girths: [girth('abdomen', 1, 8)] }), 'lies between'],
    [
      'a place twice',
      '/api/hand-in/weeks',
      () => week({ girths: [girth('hip', 1, 97), girth('hip', 1, 98)] }),
      'once a turn',
    ],
    ['a novel', '/api/hand-in/weeks', () => week({ words: 'x'.repeat(501) }), 'At most 500'],
  ])('is refused for %s with a calm sentence', async (_, path, body, sentence) => {
    const { phone } = await atHome()
    const { status, text } = await phone.send('POST', path, body())
    expect(status).toBe(422)
    expect(text).toContain(sentence)
  })

  it('photographs: none without consent, none of 60 MB, one however often it is sent', async () => {
    const { id, phone } = await atHome()
    const own = week()
    await phone.send('POST', '/api/hand-in/weeks', own)
    const large = await phone.sendBytes(photoPath(own.id), Buffer.alloc(60 * 1024 * 1024, 1))
    expect(large.status).toBe(413)
    expect(large.text).toContain('at most 25 MB')
    const bytes = await sharp({ create: { width: 40, height: 60, channels: 3, background: '#456' } })
      .jpeg()
      .toBuffer()
    const photo = uuid()
    for (let i = 0; i < 2; i += 1) expect((await phone.sendBytes(photoPath(own.id, photo), bytes)).status).toBe(201)
    expect((await fromHome(id)).weeks[0]?.photos).toHaveLength(1)
    expect((await coach.send('DELETE', `/api/home-photos/${photo}`)).status).toBe(200)
    expect((await fromHome(id)).weeks[0]?.photos).toEqual([])
    const plain = await atHome({ photoConsentOn: null })
    const theirs = week()
    await plain.phone.send('POST', '/api/hand-in/weeks', theirs)
    expect((await plain.phone.sendBytes(photoPath(theirs.id), bytes)).text).toContain('not agreed to photographs')
    expect((await home(plain.phone)).scope).not.toContain('photographs')
  })

  it('a photograph never takes the id, or the bytes, of one taken in the studio', async () => {
    const { id, phone } = await atHome({ name: 'Twice Pictured' })
    const start = { id: uuid(), protocolId: 'laboratory-7', startedAt: new Date().toISOString() }
    await coach.send('POST', `/api/clients/${id}/checkins`, start)
    const tone = (background: string) =>
      sharp({ create: { width: 40, height: 60, channels: 3, background } })
        .jpeg()
        .toBuffer()
    const photo = uuid()
    const facts = new URLSearchParams({ id: photo, pose: 'front', takenAt: new Date().toISOString() })
    const taken = await coach.sendBytes(`/api/checkins/${start.id}/photos?${facts}`, await tone('#111'))
    expect(taken.status).toBe(201)
    const before = (await coach.picture(`/api/photos/${photo}`)).bytes
    const own = week()
    await phone.send('POST', '/api/hand-in/weeks', own)
    expect((await phone.sendBytes(photoPath(own.id, photo), await tone('#eee'))).status).toBe(409)
    expect((await coach.picture(`/api/photos/${photo}`)).bytes.equals(before)).toBe(true)
    // Nor the other way round.
    const home = uuid()
    expect((await phone.sendBytes(photoPath(own.id, home), await tone('#eee'))).status).toBe(201)
    facts.set('id', home)
    expect((await coach.sendBytes(`/api/checkins/${start.id}/photos?${facts}`, await tone('#111'))).status).toBe(409)
  })

  it('leaves a line in the record, by the client’s own hand', async () => {
    const { id, phone } = await atHome()
    await phone.send('POST', '/api/hand-in/weeks', week())
    const { lines } = (await coach.send<RecordPage>('GET', `/api/record?clientId=${id}`)).body
    expect(lines.map(({ words }) => words)).toEqual(
      expect.arrayContaining(['handed in a week', 'gave the PIN of their link', 'made a link for a client']),
    )
  })
})

it('whatever a phone sends is answered without a failure of ours', { timeout: 120_000 }, async () => {
  const { phone } = await atHome()
  const routes = [
    ['/api/hand-in/weigh-ins', () => weighIn()],
    ['/api/hand-in/weeks', () => week({ fit: 'same', words: 'Well.', conditions: { sleep: 'short' } })],
  ] as const
  for (const [path, fits] of routes) {
    await fc.assert(
      fc.asyncProperty(
        fc.constant(null).chain(() => hostileBody(fits())),
        async (body) => {
          const { status, text } = await phone.send('POST', path, body)
          expect(status, `${path} with ${JSON.stringify(body)}: ${text}`).toBeLessThan(500)
        },
      ),
      { numRuns: 40 },
    )
  }
  expect((await phone.send('GET', '/api/hand-in')).status).toBe(200)
})

it('a token is 256 bits and stands nowhere but in the link', async () => {
  const { token } = await invited()
  expect(Buffer.from(token, 'base64url')).toHaveLength(32)
  expect(server.said()).not.toContain(token)
})
