import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Me } from '../../shared/schemas/account'
import type { MeasuringFacts } from '../../shared/schemas/checkin'
import { LEAD, someClient, startedCheckin } from '../support/api'
import { TABLET } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'

const IVO = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', role: 'coach', password: 'the-other-oar-holds' }

let studio: Studio
let checkinId = ''
beforeAll(async () => {
  studio = await openStudio({ empty: true, offline: true })
  const { api, coach } = studio
  await api.setUp()
  await api.addPerson(IVO)
  await api.send('PUT', '/api/me/habits', { skipMarking: true })
  await api.send('PUT', '/api/me/pin', { pin: '2846' })
  ;({ checkinId } = await startedCheckin(api, someClient({ name: 'Maren Osk' })))
  // Both coaches have signed in on this tablet; Runa is at it.
  await coach.signIn(IVO)
  await coach.click('[data-account]')
  await coach.click('button', 'Sign out')
  await coach.at('/sign-in')
  await coach.signIn(LEAD)
})
afterAll(() => studio.close())

const isLocked = () => studio.coach.page.$('[data-locked]').then((found) => found !== null)
const whoIsHere = () =>
  studio.coach.page.evaluate(async () => ((await (await fetch('/api/me')).json()) as Me).staff?.name ?? null)
const shown = () => studio.coach.page.evaluate(() => document.body.innerText)

/** Nobody touches the tablet for so long: its clock goes on by that. */
const minutesLater = (minutes: number) =>
  studio.coach.page.evaluate((by: number) => {
    const now = Date.now.bind(Date)
    Date.now = () => now() + by * 60_000
  }, minutes)

/** Everything a browser keeps of a page, as text. */
const onDevice = () =>
  studio.coach.page.evaluate(async () => {
    const open = await new Promise<IDBDatabase>((done) => {
      const asked = indexedDB.open('oak-pinch')
      asked.onsuccess = () => done(asked.result)
    })
    const all = (table: string) =>
      new Promise<unknown[]>((done) => {
        const asked = open.transaction(table).objectStore(table).getAll()
        asked.onsuccess = () => done(asked.result as unknown[])
      })
    const rows = { waiting: await all('waiting'), starts: await all('starts'), sent: await all('sent') }
    open.close()
    const answers: string[] = []
    const kept = await caches.open('facts')
    for (const request of await kept.keys()) answers.push((await (await kept.match(request))?.text()) ?? '')
    return { rows, answers, plain: JSON.stringify(localStorage) }
  })

/** How many keys lie on the device. */
const keys = () =>
  studio.coach.page.evaluate(
    () =>
      new Promise<number>((done) => {
        const asked = indexedDB.open('oak-pinch-key')
        asked.onsuccess = () => {
          const counted = asked.result.transaction('keys').objectStore('keys').count()
          counted.onsuccess = () => done(counted.result)
          asked.result.close()
        }
      }),
  )

describe('a tablet several coaches use', () => {
  it('gets its PINs and minutes where the studio and each coach look for them', async () => {
    const { coach } = studio
    await coach.open('/studio/account')
    await coach.page.waitForSelector('[data-pin]')
    await coach.sees('Set. It opens devices')
    await coach.click('[data-pin] button', 'Another PIN')
    await coach.page.type('[data-pin] [name="pin"]', '4321')
    await coach.keys('Enter')
    await coach.sees('This is the first anybody tries')
    await coach.fill('[data-pin] [name="pin"]', '9317')
    await coach.keys('Enter')
    await coach.sees('Another PIN')
    await studio.audit('account')
    await coach.open('/studio/people')
    await coach.click('[data-lock-rules] button', '5 minutes')
    await until(
      () => studio.api.send<Me>('GET', '/api/me'),
      ({ body }) => body.rules.lockMinutes === 5,
    )
    await studio.audit('people')
  })

  it('locks when nobody touches it, hides what is under way, and gives it back with what was half typed', async () => {
    const { coach } = studio
    await coach.page.goto(`${studio.server.address}/measure/${checkinId}`)
    await coach.measuring()
    await coach.enter(61.5)
    await coach.sees('everything kept')
    await coach.page.keyboard.type('12')
    await minutesLater(6)
    await coach.page.waitForSelector('[data-locked]')
    expect(await shown()).not.toContain('Maren')
    await studio.audit('locked')
    // As wide as a phone; becoming one would load the page anew.
    await coach.page.setViewport({ width: 390, height: 844 })
    await studio.audit('locked, on a phone')
    await coach.page.setViewport(TABLET)
    // Digits are the lock's, and nothing of them reaches the sheet.
    await coach.page.keyboard.type('5555')
    await coach.keys('Enter')
    await coach.sees('This is not your PIN.')
    await until(whoIsHere, (name) => name === null)
    for (const digit of '9317') await coach.click('[data-locked] button', digit)
    await coach.click('[data-locked] button', 'Open')
    await until(isLocked, (locked) => !locked)
    expect(await coach.textOf('[data-entry]')).toContain('12')
    await coach.page.keyboard.type('.5')
    await coach.keys('Enter')
    const kept = () => studio.api.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`)
    const { body } = await until(kept, (answer) => answer.body.checkin.readings.length === 2)
    expect(body.checkin.readings.map(({ value }) => value)).toEqual([61.5, 12.5])
  })

  it('keeps what waits, what was sent and what the server said sealed, and nothing of it in clear', async () => {
    const { coach } = studio
    await coach.page.goto(`${studio.server.address}/measure/${checkinId}`)
    await coach.measuring()
    await coach.canGoOffline()
    await coach.page.reload({ waitUntil: 'networkidle2' })
    await coach.measuring()
    await until(onDevice, ({ answers }) => answers.length > 0)
    await studio.server.kill()
    await coach.enter(17.5)
    await coach.sees('kept on this device')
    const held = await until(onDevice, ({ rows }) => rows.waiting.length === 1)
    const text = JSON.stringify(held)
    expect(text).not.toMatch(/17\.5|Maren|triceps|reedwater\.example|"reading"/)
    expect(held.rows.waiting[0]).toMatchObject({ checkinId, sealed: expect.any(String) as string })
    expect(held.rows.sent.length).toBeGreaterThan(0)
    // Cut off, it locks and opens by the PIN this page was opened with before; the page was opened anew: not by it.
    await coach.page.reload({ waitUntil: 'domcontentloaded' })
    await coach.measuring()
    await coach.sees('Maren Osk')
    await studio.server.start()
    await coach.sees('everything kept')
    const after = await until(onDevice, ({ rows }) => rows.waiting.length === 0)
    expect(JSON.stringify(after)).not.toContain('17.5')
  })

  it('locks and opens without the server too, and takes the key off the device while it is locked', async () => {
    const { coach } = studio
    await coach.page.goto(`${studio.server.address}/measure/${checkinId}`)
    await coach.measuring()
    await until(
      () => coach.page.evaluate(() => fetch('/api/me/device-key').then(({ ok }) => ok)),
      (ok) => ok,
    )
    expect(await until(keys, (count) => count === 1)).toBe(1)
    await new Promise((done) => setTimeout(done, 1_000))
    // A PIN is known to a page once it was used on it.
    await minutesLater(6)
    await coach.page.waitForSelector('[data-locked]')
    await coach.page.keyboard.type('9317')
    await coach.keys('Enter')
    await until(isLocked, (locked) => !locked)
    expect(await until(keys, (count) => count === 1)).toBe(1)
    await studio.server.kill()
    await minutesLater(6)
    await coach.page.waitForSelector('[data-locked]')
    expect(await until(keys, (count) => count === 0)).toBe(0)
    await coach.page.keyboard.type('1111')
    await coach.keys('Enter')
    await coach.sees('This is not your PIN.')
    await coach.page.keyboard.type('9317')
    await coach.keys('Enter')
    await until(isLocked, (locked) => !locked)
    await coach.enter(14)
    await coach.sees('kept on this device')
    expect(await until(keys, (count) => count === 1)).toBe(1)
    await studio.server.start()
    await coach.sees('everything kept')
  })

  it('locked by the server alone, forgets its key, and gives nothing out that is kept when the server has gone', async () => {
    const { coach } = studio
    await coach.page.goto(`${studio.server.address}/clients`)
    await coach.sees('Maren Osk')
    const listed = () =>
      coach.page.evaluate(() =>
        fetch('/api/clients').then(
          async (answer) => (answer.ok ? await answer.text() : ''),
          () => '',
        ),
      )
    await until(onDevice, ({ answers }) => answers.length > 0)
    expect(await listed()).toContain('Maren')
    expect(await keys()).toBe(1)
    // As another page, another process or the studio's hours lock it: this page hears of it by its next question.
    await coach.page.evaluate(() => fetch('/api/lock', { method: 'POST' }))
    await coach.click('header nav a', 'Bench')
    await coach.page.waitForSelector('[data-locked]')
    expect(await until(keys, (count) => count === 0)).toBe(0)
    await studio.server.kill()
    expect(await listed()).toBe('')
    await studio.server.start()
    await coach.page.keyboard.type('9317')
    await coach.keys('Enter')
    // A page that could not open because of the lock opens anew.
    await until(
      () => keys().catch(() => null),
      (count) => count === 1,
    )
    await coach.sees('Bench')
  })

  it('opened much later it is locked before anything shows, and goes where it was opened', async () => {
    const { coach } = studio
    await coach.page.evaluate(() => localStorage.setItem('oak-pinch-touched', String(Date.now() - 30 * 60_000)))
    await coach.page.goto(`${studio.server.address}/clients`)
    await coach.page.waitForSelector('[data-locked] li')
    expect(await shown()).not.toContain('Maren')
    await coach.page.keyboard.type('9317')
    await coach.keys('Enter')
    await coach.at('/clients')
    await coach.sees('Maren Osk')
  })

  it('another coach goes on as themselves, and whoever was measuring comes back to it', async () => {
    const { coach } = studio
    // Ivo has a PIN since a moment ago, on his own phone.
    const phone = new (await import('../support/api')).Caller(studio.server)
    await phone.signIn(IVO)
    await phone.send('PUT', '/api/me/pin', { pin: '7305' })
    await coach.page.goto(`${studio.server.address}/measure/${checkinId}`)
    await coach.measuring()
    // Another page of the same tablet, with a client's name on it.
    const beside = await coach.page.browserContext().newPage()
    await beside.goto(`${studio.server.address}/clients`)
    await beside.waitForFunction(() => document.body.innerText.includes('Maren Osk'), { polling: 100 })
    await coach.page.bringToFront()
    await minutesLater(6)
    await coach.page.waitForSelector('[data-locked]')
    await beside.waitForSelector('[data-locked]')
    await coach.click('[data-locked] button', 'Ivo Tarn')
    await coach.page.keyboard.type('7305')
    await coach.keys('Enter')
    await coach.at('/')
    await until(whoIsHere, (name) => name === 'Ivo Tarn')
    // The page beside is not opened along with it: it begins anew, as his.
    await beside.waitForFunction(() => location.pathname === '/' && document.body.innerText.includes('Ivo'), {
      polling: 100,
    })
    await beside.close()
    await coach.page.bringToFront()
    await coach.click('[data-account]')
    await coach.click('button', 'Lock this device')
    await coach.page.waitForSelector('[data-locked]')
    await coach.click('[data-locked] button', 'Runa Bexley')
    await coach.page.keyboard.type('9317')
    await coach.keys('Enter')
    await coach.at(`/measure/${checkinId}`)
    await coach.measuring()
    expect(await whoIsHere()).toBe('Runa Bexley')
    // On a page opened while it is locked as well: nothing of hers is left behind, and he is not led where she was.
    await coach.page.evaluate(() => localStorage.setItem('oak-pinch-touched', String(Date.now() - 30 * 60_000)))
    await coach.page.goto(`${studio.server.address}/clients`)
    await coach.page.waitForSelector('[data-locked] li')
    await coach.click('[data-locked] button', 'Ivo Tarn')
    await coach.page.keyboard.type('7305')
    await coach.keys('Enter')
    await coach.at('/')
    expect(await whoIsHere()).toBe('Ivo Tarn')
    expect(coach.faults).toEqual([])
  })
})
