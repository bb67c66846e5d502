import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { HTTPRequest } from 'puppeteer-core'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import type { Client } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import { LEAD, someClient, type Caller } from '../support/api'
import type { Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'

let studio: Studio
let coach: Visitor
let api: Caller
beforeAll(async () => {
  studio = await openStudio({ offline: true })
  ;({ coach, api } = studio)
  await api.send('PUT', '/api/me/habits', { skipMarking: true })
  await coach.open('/')
})
afterAll(() => studio.close())

async function newClient(name: string): Promise<string> {
  const client = someClient({ name, sex: 'male' })
  await api.send('POST', '/api/clients', client)
  return client.id
}

async function checkinsOf(clientId: string): Promise<CheckinRecord[]> {
  return (await api.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)).body.checkins
}

async function prepare(clientId: string): Promise<void> {
  await coach.open(`/clients/${clientId}/measure`)
  await coach.page.waitForSelector('[data-choose="protocol"]')
  await coach.choose('protocol', 'laboratory-3-men')
}

/** What lies in the browser's own database, by table. */
function onDevice(): Promise<Record<'waiting' | 'starts' | 'sent', { id: string }[]>> {
  return coach.page.evaluate(async () => {
    const open = await new Promise<IDBDatabase>((done, failed) => {
      const asked = indexedDB.open('oak-pinch')
      asked.onsuccess = () => done(asked.result)
      asked.onerror = () => failed(asked.error)
    })
    const all = (table: string) =>
      new Promise<{ id: string }[]>((done) => {
        const asked = open.transaction(table).objectStore(table).getAll()
        asked.onsuccess = () => done(asked.result as { id: string }[])
      })
    const held = { waiting: await all('waiting'), starts: await all('starts'), sent: await all('sent') }
    open.close()
    return held
  })
}

describe('a session started without the server', () => {
  it('is on the device at once, goes on after a reload without it, and arrives whole', async () => {
    const clientId = await newClient('Offline Starter')
    await prepare(clientId)
    await coach.page.evaluate(async () => {
      await navigator.serviceWorker.ready
    })
    await coach.page.reload({ waitUntil: 'networkidle0' })
    await prepare(clientId)
    await studio.server.kill()
    await coach.click('button', 'Start')
    await coach.measuring()
    await coach.enter(70)
    await coach.enter(12)
    await coach.sees('kept on this device')
    expect((await until(onDevice, ({ starts }) => starts.length === 1)).starts).toHaveLength(1)
    await coach.page.reload({ waitUntil: 'domcontentloaded' })
    await coach.measuring()
    await until(
      () => coach.textOf('section[aria-label="Entry"] h2'),
      (site) => site === 'Abdominal',
    )
    await coach.enter(21)
    await coach.page.reload({ waitUntil: 'domcontentloaded' })
    await coach.measuring()
    await studio.server.start()
    await coach.sees('everything kept')
    const [record] = await until(
      () => checkinsOf(clientId),
      ([found]) => found?.readings.length === 3,
    )
    expect(record?.readings.map(({ value }) => value)).toEqual([70, 12, 21])
    expect((await until(onDevice, ({ starts, waiting }) => starts.length + waiting.length === 0)).waiting).toEqual([])
  })
})

describe('lists without the server', () => {
  it('say that they come from the device’s store and of when they are, and stop saying so when it is back', async () => {
    const notice = () => coach.textOf('[data-kept-since]')
    const lists = [
      ['/', 'Floor'],
      ['/clients', 'Offline Starter'],
    ] as const
    for (const [path, words] of lists) {
      await coach.page.goto(`${studio.server.address}${path}`, { waitUntil: 'networkidle0' })
      await coach.sees(words)
      expect(await coach.page.$('[data-kept-since]')).toBeNull()
    }
    await studio.server.kill()
    for (const [path, words] of lists) {
      await coach.page.goto(`${studio.server.address}${path}`, { waitUntil: 'domcontentloaded' })
      await coach.sees(words)
      await coach.sees('The server is out of reach.')
      expect(await notice()).toMatch(/kept on \d{1,2} \w{3} at \d\d:\d\d/)
    }
    await studio.audit('clients from the device')
    await studio.server.start()
    await coach.page.reload({ waitUntil: 'domcontentloaded' })
    await coach.sees('Offline Starter')
    await until(
      () => coach.page.$('[data-kept-since]'),
      (found) => found === null,
    )
  })
})

describe('a fact the server will not take', () => {
  /** Answers deliveries that hold this value as the server would if it failed at, or refused, that one fact. */
  async function failAt(value: number, status: number): Promise<() => Promise<void>> {
    const answer = (request: HTTPRequest) => {
      const isIt = request.url().endsWith('/events') && (request.postData() ?? '').includes(`"value":${value}`)
      if (!isIt) return void request.continue()
      const message =
        status === 500 ? 'Something went wrong on our side.' : 'Something else is stored under this id already.'
      void request.respond({ status, contentType: 'application/json', body: JSON.stringify({ message, fields: [] }) })
    }
    await coach.page.setRequestInterception(true)
    coach.page.on('request', answer)
    return async () => {
      coach.page.off('request', answer)
      await coach.page.setRequestInterception(false)
    }
  }

  it.each([
    [500, 'The server failed at it', 'Try again'],
    [409, 'Something else is stored under this id already.', 'Store as a new one'],
  ])('(%d) steps aside, the others go on, and it is put right at its client', async (status, words, press) => {
    const clientId = await newClient(`Aside ${status}`)
    await prepare(clientId)
    await coach.click('button', 'Start')
    await coach.measuring()
    const stop = await failAt(12.5, status)
    for (const value of [70, 12.5, 21, 14]) await coach.enter(value)
    const [record] = await until(
      () => checkinsOf(clientId),
      ([found]) => found?.readings.length === 3,
    )
    expect(record?.readings.map(({ value }) => value)).toEqual([70, 21, 14])
    await coach.sees(words)
    await stop()
    await coach.open('/')
    await coach.sees('One fact is not stored.')
    await coach.click(
      'a',
      'One fact is not stored. The server would not take it; it is kept on this device. Decide what to do',
    )
    await coach.at(`/clients/${clientId}`)
    await coach.sees('Chest, 12.5 mm')
    await studio.audit('a fact set aside')
    await coach.click('button', press)
    await until(
      () => checkinsOf(clientId),
      ([found]) => found?.readings.length === 4,
    )
    await until(
      () => coach.page.$('[data-aside]'),
      (found) => found === null,
    )
  })
})

describe('a shared tablet', () => {
  it('signs out without the server: nothing shows, nothing is left but what was not sent, until a coach signs in', async () => {
    const clientId = await newClient('Shared Tablet')
    await prepare(clientId)
    await coach.click('button', 'Start')
    await coach.measuring()
    await coach.enter(70)
    await coach.enter(12)
    await coach.sees('everything kept')
    await until(onDevice, ({ sent }) => sent.length >= 2)
    await studio.server.kill()
    await coach.enter(21)
    await coach.sees('kept on this device')
    const { waiting } = await until(onDevice, (held) => held.waiting.length === 1)
    await coach.page.goto(`${studio.server.address}/`, { waitUntil: 'domcontentloaded' })
    await coach.click('[data-account]')
    await coach.click('button', 'Sign out')
    await coach.at('/sign-in')
    const left = await until(onDevice, ({ sent }) => sent.length === 0)
    expect(left.waiting.map(({ id }) => id)).toEqual(waiting.map(({ id }) => id))
    // Neither the page of the client nor the list opens from what the device kept.
    for (const path of [`/clients/${clientId}`, '/clients', '/']) {
      await coach.page.goto(`${studio.server.address}${path}`, { waitUntil: 'domcontentloaded' })
      await coach.at('/sign-in')
      expect(await coach.page.evaluate(() => document.body.innerText)).not.toContain('Shared Tablet')
    }
    await studio.server.start()
    await coach.page.goto(`${studio.server.address}/clients/${clientId}`, { waitUntil: 'networkidle0' })
    await coach.at('/sign-in')
    // The session that could not be ended then is ended now.
    const cookies = await coach.page.cookies()
    expect(cookies.find(({ name }) => name === 'nuxt-session')?.value ?? '').toBe('')
    await coach.signIn(LEAD)
    const [record] = await until(
      () => checkinsOf(clientId),
      ([found]) => found?.readings.length === 3,
    )
    expect(record?.readings.map(({ value }) => value)).toEqual([70, 12, 21])
  })
})

describe('a record somebody else has changed meanwhile', () => {
  it('is shown beside one’s own, and the one chosen stands', async () => {
    const clientId = await newClient('Two Hands')
    const clientOf = async () => (await api.send<Client>('GET', `/api/clients/${clientId}`)).body
    const elsewhere = async (change: Partial<Client>) => {
      const { id: _, archived: __, ...form } = await clientOf()
      await api.send('PATCH', `/api/clients/${clientId}`, { ...form, ...change })
    }
    for (const [press, notes, flags] of [
      ['Keep what is stored', '', ['pregnant']],
      ['Keep mine', 'Likes mornings.', ['pregnant']],
    ] as const) {
      await coach.open(`/clients/${clientId}/edit`)
      await elsewhere({ flags: press === 'Keep mine' ? [] : ['pregnant'] })
      await coach.fill('#notes', 'Likes mornings.')
      await coach.click('button', 'Keep changes')
      await coach.sees('Somebody has changed this record')
      expect(await coach.textOf('[data-conflict]')).toContain('Likes mornings.')
      await studio.audit('a conflict')
      await coach.click('button', press)
      await coach.at(`/clients/${clientId}`)
      expect(await clientOf()).toMatchObject({ notes, flags })
    }
  })
})
