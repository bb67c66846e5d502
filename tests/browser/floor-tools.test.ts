import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { CheckinRecord, MeasuringFacts } from '../../shared/schemas/checkin'
import type { ClientHistory } from '../../shared/schemas/following'
import { LEAD, someClient, type Caller } from '../support/api'
import { Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'

let studio: Studio
let coach: Visitor
let api: Caller
beforeAll(async () => {
  studio = await openStudio({ offline: true })
  ;({ coach, api } = studio)
  await api.send('PUT', '/api/me/habits', { cover: 'never' })
  await coach.page.reload()
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

async function prepare(clientId: string, protocolId: string): Promise<void> {
  await coach.open(`/clients/${clientId}`)
  await coach.click('a', 'Measure')
  await coach.page.waitForSelector('[data-choose="protocol"]')
  await coach.choose('protocol', protocolId)
}

describe('the studio’s calipers, habits and devices', () => {
  it('adds a caliper, notes a check, and warns at the next session when it is off', async () => {
    await coach.open('/studio')
    await coach.fill('input[name="caliperName"]', 'Steel, bench')
    await coach.click('section[aria-labelledby="calipers"] button', 'Add')
    await coach.sees('never checked')
    await coach.click('section[aria-labelledby="calipers"] button', 'Check')
    await coach.fill('input[aria-label="Off the block, mm"]', 'much')
    await coach.click('section[aria-labelledby="calipers"] button', 'Note')
    await coach.sees('The deviation is in mm, between -20 and 20.')
    await coach.fill('input[aria-label="Off the block, mm"]', '0.8')
    await coach.click('section[aria-labelledby="calipers"] button', 'Note')
    await coach.sees('checked today, 0.8 mm off')
    expect(await coach.seriousFindings()).toEqual([])
    await prepare(await newClient('Tobin Hale'), 'laboratory-3-men')
    await coach.sees('more than 0.5 mm off at its last check')
  })

  it('makes starting with the readings a habit', async () => {
    await coach.open('/studio')
    await coach.click('input[name="skipMarking"]')
    await prepare(await newClient('Edrik Vane'), 'laboratory-3-men')
    await coach.click('button', 'Start')
    await coach.measuring()
    expect(await coach.textOf('section[aria-label="Entry"] h2')).toBe('Weight')
  })

  it('takes a whole session from the stand-in scale and caliper; repeats and nonsense harm nothing', async () => {
    const clientId = await newClient('Oskar Brandeth')
    await prepare(clientId, 'laboratory-7')
    await coach.click('button', 'Start')
    await coach.measuring()
    const context = coach.page.browserContext()
    const device = async (name: string) => {
      const page = await context.newPage()
      await page.goto(`${studio.server.address}/devices/${name}`, { waitUntil: 'networkidle0' })
      const press = (words: string) =>
        page.evaluate((text) => {
          const button = [...document.querySelectorAll('button')].find((one) => one.textContent.trim() === text)
          button?.click()
        }, words)
      return { page, press }
    }
    const scale = await device('scale')
    await scale.press('Step on')
    await scale.press('Press')
    await until(
      () => coach.textOf('[data-weight]'),
      (weight) => weight === '72.4',
    )
    const caliper = await device('caliper')
    await caliper.press('Send nonsense')
    for (let i = 0; i < 30; i += 1) {
      if (await coach.page.$('[data-percent]')) break
      const before = await coach.page.$$eval('.kept', (cells) => cells.length)
      const site = await coach.textOf('section[aria-label="Entry"] h2')
      await until(
        () => caliper.page.$eval('[data-site]', (line) => line.textContent.trim()),
        (said) => said === `at ${site.toLowerCase()}`,
      )
      await caliper.press('Pinch')
      await until(
        () => caliper.page.$eval('[data-shown]', (line) => Number.parseFloat(line.textContent)),
        (mm) => mm > 2,
      )
      await caliper.press('Press')
      await caliper.press('Repeat the last line')
      await until(
        () => coach.page.$$eval('.kept', (cells) => cells.length),
        (now) => now > before,
      )
      expect(await coach.page.$$eval('.kept', (cells) => cells.length)).toBe(before + 1)
    }
    await coach.page.waitForSelector('[data-percent]')
    const [record] = await until(
      () => checkinsOf(clientId),
      ([found]) => (found?.readings.length ?? 0) >= 15,
    )
    expect(record?.readings.filter(({ source }) => source === 'caliper').length).toBeGreaterThanOrEqual(14)
    expect(record?.readings.filter(({ source }) => source === 'scale')).toHaveLength(1)
    await caliper.page.close()
    await scale.page.close()
  })
})

describe('paper', () => {
  it('prints a blank sheet with last values and takes a filled one in later', async () => {
    const clientId = await newClient('Gerrit Pell')
    await prepare(clientId, 'laboratory-3-men')
    await coach.click('a', 'Print a blank log sheet')
    await coach.sees('Measured by')
    expect(
      await coach.page.$$eval('article tbody tr', (rows) =>
        rows.map((row) => row.querySelector('th')?.firstChild?.textContent?.trim()),
      ),
    ).toEqual(['Chest', 'Abdominal', 'Thigh'])
    expect(await coach.seriousFindings()).toEqual([])
    await coach.click('a', 'Type a filled one in')
    await coach.page.waitForSelector('#measuredAt')
    await coach.page.waitForSelector('[data-choose="protocol"]')
    await coach.choose('protocol', 'laboratory-3-men')
    await coach.click('button', 'Start')
    await coach.sees('Please give the date and time of the measuring.')
    await coach.page.$eval('#measuredAt', (element) => {
      const field = element as HTMLInputElement
      field.value = '2026-03-05T18:30'
      field.dispatchEvent(new Event('input', { bubbles: true }))
    })
    await coach.click('button', 'Start')
    await coach.measuring()
    for (const value of [88, 10, 22, 15, 10, 22, 15]) await coach.enter(value)
    await coach.sees('every site settled')
    const [record] = await until(
      () => checkinsOf(clientId),
      ([found]) => found?.readings.length === 7,
    )
    expect(new Date(record?.startedAt ?? '').getFullYear()).toBe(2026)
    expect(record?.startedAt.slice(0, 7)).toBe('2026-03')
    expect(new Set(record?.readings.map(({ source }) => source))).toEqual(new Set(['paper']))
  })
})

describe('without the server', () => {
  it('loses nothing when the server dies three times inside one session', async () => {
    const clientId = await newClient('Ada Reedmere')
    await prepare(clientId, 'laboratory-7')
    await coach.click('button', 'Start')
    await coach.measuring()
    await coach.enter(82)
    const called = [14, 13, 9, 11, 15, 20, 22, 14, 13, 9, 11, 15, 20, 22]
    for (const [i, value] of called.entries()) {
      if (i % 5 === 1) await studio.server.kill()
      await coach.enter(value)
      if (i % 5 === 3) await studio.server.start()
    }
    await coach.sees('every site settled')
    await coach.sees('everything kept')
    const [record] = await until(
      () => checkinsOf(clientId),
      ([found]) => found?.readings.length === 15,
    )
    expect(record?.readings.slice(1).map(({ value }) => value)).toEqual(called)
  })

  it('reloads and goes on with the server gone, and starts a new session for a client seen here', async () => {
    const known = await newClient('Sanna Quill')
    const running = await newClient('Liv Ambersen')
    await prepare(known, 'laboratory-3-men')
    await prepare(running, 'laboratory-3-men')
    await coach.click('button', 'Start')
    await coach.measuring()
    await coach.page.evaluate(async () => {
      await navigator.serviceWorker.ready
    })
    await coach.page.reload({ waitUntil: 'domcontentloaded' })
    await coach.measuring()
    await coach.enter(61)
    await coach.enter(9)
    await coach.sees('everything kept')
    await studio.server.kill()
    // A whole round without the server, with the page reloaded in the middle of it.
    await coach.enter(21)
    await coach.sees('kept on this device')
    await coach.page.reload({ waitUntil: 'domcontentloaded' })
    await coach.measuring()
    await until(
      () => coach.textOf('section[aria-label="Entry"] h2'),
      (site) => site === 'Thigh',
    )
    await coach.enter(14)
    await coach.sees('kept on this device')

    await coach.page.goto(`${studio.server.address}/clients/${known}/measure`, { waitUntil: 'domcontentloaded' })
    await coach.page.waitForSelector('[data-choose="protocol"]')
    await coach.choose('protocol', 'laboratory-3-men')
    await coach.click('button', 'Start')
    await coach.measuring()
    for (const value of [58, 8, 19, 13]) await coach.enter(value)
    await coach.sees('kept on this device')

    await studio.server.start()
    await coach.sees('everything kept')
    const [first] = await until(
      () => checkinsOf(running),
      ([found]) => found?.readings.length === 4,
    )
    const [second] = await until(
      () => checkinsOf(known),
      ([found]) => found?.readings.length === 4,
    )
    expect(first?.readings.map(({ value }) => value)).toEqual([61, 9, 21, 14])
    expect(second?.readings.map(({ value }) => value)).toEqual([58, 8, 19, 13])
  })

  it('joins a session that was opened elsewhere meanwhile', async () => {
    const clientId = await newClient('Petra Lindqvane')
    await prepare(clientId, 'laboratory-3-men')
    await studio.server.kill()
    await coach.click('button', 'Start')
    await coach.measuring()
    await coach.enter(70)
    await coach.enter(12)
    await coach.sees('kept on this device')
    // Started while the first device is still away: this session is on the server first.
    await coach.page.setOfflineMode(true)
    await studio.server.start()
    const start = { id: crypto.randomUUID(), protocolId: 'laboratory-3-men', startedAt: new Date().toISOString() }
    await api.send('POST', `/api/clients/${clientId}/checkins`, start)
    await coach.page.setOfflineMode(false)
    const { body } = await until(
      () => api.send<MeasuringFacts>('GET', `/api/checkins/${start.id}`),
      ({ body: found }) => found.checkin.readings.length === 2,
    )
    expect(body.checkin.readings.map(({ value }) => value)).toEqual([70, 12])
    expect(await checkinsOf(clientId)).toHaveLength(1)
    await coach.at(`/measure/${start.id}`)
  })
})

describe('what is kept on the device', () => {
  const kept = () => coach.page.evaluate(async () => (await (await caches.open('facts')).keys()).map(({ url }) => url))

  it('of people and readings is forgotten when the session has ended, by signing out or by itself', async () => {
    const clientId = await newClient('Liv Ambersen')
    await coach.page.evaluate(async () => {
      await navigator.serviceWorker.ready
    })
    const leave = [
      async () => {
        const cookies = await coach.page.cookies()
        await coach.page.deleteCookie(...cookies)
        await coach.open(`/clients/${clientId}`)
      },
      async () => {
        await coach.click('[data-account]')
        await coach.click('button', 'Sign out')
      },
    ]
    for (const end of leave) {
      await coach.open(`/clients/${clientId}`)
      await coach.sees('Not measured yet.')
      await until(kept, (found) => found.some((url) => url.includes(clientId)))
      await end()
      await coach.at('/sign-in')
      expect(await kept()).toEqual([])
      await coach.signIn(LEAD)
    }
  })
})
