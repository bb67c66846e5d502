import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PHONE, VIEW, Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'

/** What a coach calls out: two rounds, the chest more than 2 mm apart, and a third round for it. */
const ORDER = ['triceps', 'subscapular', 'chest', 'midaxillary', 'suprailiac', 'abdominal', 'thigh'] as const
const FIRST = [14, 12.5, 8, 10, 15, 20, 22]
const SECOND = [13.5, 12, 11, 9.5, 15.5, 19.5, 21]
const THIRD_CHEST = 8.5

/**
 * The expected result, computed here from the published formula (Jackson, Pollock & Ward 1980; Siri 1961) and not by
 * the product: means of the two rounds, the chest from its closest pair (8 and 8.5), 34 years, 71.5 kg.
 */
const values = ORDER.map((site, i) => (site === 'chest' ? 8.25 : ((FIRST[i] ?? 0) + (SECOND[i] ?? 0)) / 2))
const sum = values.reduce((a, b) => a + b, 0)
const density = 1.097 - 0.00046971 * sum + 0.00000056 * sum ** 2 - 0.00012828 * 34
const percent = 495 / density - 450
const fatKg = (71.5 * percent) / 100

const LEAD = { email: 'runa@reedwater.example', password: 'a-long-oar-story' }

let studio: Studio
let coach: Visitor
beforeAll(async () => {
  studio = await openStudio({ empty: true, offline: true })
  coach = studio.coach
})
afterAll(() => studio.close())

describe('the main job, from an empty installation to the trend', () => {
  it('makes the studio and its lead coach on the first run', async () => {
    await coach.open('/')
    await coach.at('/welcome')
    await studio.audit('first run')
    await coach.click('button', 'Set up the studio')
    await coach.sees('Please give a name.')
    await coach.fill('#studioName', 'Reedwater Rowing Club')
    await coach.fill('#name', 'Runa Bexley')
    await coach.fill('#email', LEAD.email)
    await coach.fill('#password', 'short')
    await coach.click('button', 'Set up the studio')
    await coach.sees('A password has at least 12 characters.')
    expect(await coach.page.$eval('#studioName', (field) => (field as HTMLInputElement).value)).toBe(
      'Reedwater Rowing Club',
    )
    await coach.fill('#password', LEAD.password)
    await coach.click('button', 'Set up the studio')
    await coach.at('/clients/new')
  })

  it('signs out and in again', async () => {
    await coach.click('[data-account]')
    await coach.click('button', 'Sign out')
    await coach.at('/sign-in')
    await studio.audit('sign-in')
    await coach.page.type('#email', LEAD.email)
    await coach.page.type('#password', 'not the password')
    await coach.keys('Enter')
    await coach.sees('do not belong together')
    await coach.signIn(LEAD)
    await coach.sees('Floor')
    await studio.audit('floor')
  })

  it('adds a client: bad input is said at the field and nothing typed is lost', async () => {
    await coach.open('/clients/new')
    await coach.fill('#name', 'Maren Osk')
    await coach.fill('#birthDate', '2999-05-01')
    await coach.fill('#height', '5.11')
    await coach.fill('#notes', 'Freckle one finger above the hip crest.')
    await coach.click('form button', 'Add client')
    await coach.sees('Choose the sex the equations should use.')
    await coach.sees('This day is still to come')
    await coach.sees('Is 5.11 meant as 5 ft 11 in')
    expect(await coach.page.$eval('#notes', (field) => (field as HTMLTextAreaElement).value)).toContain('Freckle')
    await studio.audit('add client')
    await coach.click('[data-field="sex"] button', 'Women’s')
    const birthYear = new Date().getFullYear() - 34
    await coach.fill('#birthDate', `${birthYear}-01-01`)
    await coach.fill('#height', '5 ft 8 1/2 in')
    await coach.click('form button', 'Add client')
    await coach.at(/^\/clients\/[0-9a-f-]{36}$/)
    await coach.sees('Consent is not on record')
  })

  it('does not measure before consent is noted', async () => {
    await coach.click('a', 'Measure')
    await coach.at(/\/measure$/)
    await coach.sees('Consent to touch and to keep data is not on record.')
    expect(await coach.page.$eval('form button[disabled]', (button) => button.textContent.trim())).toBe('Start')
    await studio.audit('prepare')
    const prepare = new URL(coach.page.url()).pathname
    await coach.click('[name="consentHere"]')
    await coach.click('[data-consent] button', 'Note consent')
    await coach.page.waitForFunction(() => document.querySelector('[data-consent]') === null)
    expect(await coach.page.$('form button[disabled]')).toBeNull()
    await coach.open(prepare.replace(/\/measure.*$/, ''))
  })

  it('takes a whole session by keyboard, with a strike, a reload and a dispute', async () => {
    await coach.startMeasuring()
    await coach.sees('Weight')
    await coach.enter(71.5)
    await coach.sees('First reading')
    for (const value of FIRST.slice(0, 3)) await coach.enter(value)
    // A slip: 100 for 10.0 is refused, 16 is taken and struck.
    await coach.enter(900)
    await coach.sees('A fold lies between 1.5 and 80 mm.')
    await coach.keys('Backspace', 'Backspace', 'Backspace')
    await coach.enter(16)
    await coach.keys('u')
    await coach.sees('Midaxillary')
    await coach.enter(FIRST[3] ?? 0)
    await coach.sees('everything kept')
    await studio.audit('measuring')

    await coach.page.reload({ waitUntil: 'domcontentloaded' })
    await coach.measuring()
    expect(await coach.textOf('[data-site="midaxillary"] s')).toBe('16.0')
    expect(await coach.textOf('h2.text-3xl, section[aria-label="Entry"] h2')).toBe('Suprailiac')
    for (const value of FIRST.slice(4)) await coach.enter(value)
    for (const value of SECOND) await coach.enter(value)
    await coach.sees('3.0 apart')
    expect(await coach.textOf('section[aria-label="Entry"] h2')).toBe('Chest')
    await coach.enter(THIRD_CHEST)
    await coach.sees('every site settled')
  })

  it('shows the result without being asked, equal to one computed independently', async () => {
    // A first visit starts covered: the client can see the screen.
    expect(await coach.page.$('[data-percent]')).toBeNull()
    await studio.audit('result covered')
    await coach.click('[data-cover]', 'Show the result')
    expect(await coach.textOf('[data-percent]')).toBe(percent.toFixed(1))
    expect(await coach.textOf('[data-sum]')).toBe(sum.toFixed(1))
    expect(await coach.textOf('[data-density]')).toBe(density.toFixed(4))
    expect(await coach.textOf('[data-fat]')).toBe(fatKg.toFixed(1))
    expect(await coach.textOf('[data-lean]')).toBe((71.5 - fatKg).toFixed(1))
    await coach.sees(`${(percent - 3.8).toFixed(1)} and ${(percent + 3.8).toFixed(1)} %`)
    await studio.audit('result')
    await coach.keys('Enter')
    await coach.at(/^\/clients\//)
  })

  it('takes the second check-in by touch alone, on a phone', async () => {
    const path = await coach.page.evaluate(() => location.pathname)
    const phone = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await phone.signIn(LEAD)
    await phone.open(path)
    await phone.tap('a', 'Measure')
    await phone.tap('button', 'Start')
    await phone.tap('button', 'Skip marking')
    await phone.measuring()
    await phone.tap('button', 'measure without weight')
    for (const value of [...FIRST, ...FIRST]) await phone.tapIn(value - 1)
    await phone.sees('Without a weight')
    expect(await phone.overflow()).toBeLessThanOrEqual(0)
    // A picked reading, not the last one, is struck and read again.
    await phone.tap('[aria-label="13.0 at Triceps, reading 1: pick to strike"]')
    await phone.tap('button', 'Strike 13.0')
    await phone.sees('Second reading')
    await phone.tapIn(13.5)
    await phone.tap('button', 'Done')
    await phone.at(/^\/clients\//)
    expect(await phone.overflow()).toBeLessThanOrEqual(0)
    expect(await phone.seriousFindings()).toEqual([])
    await phone.close()
  })

  it('shows the trend, and counts two check-ins of one day as one visit', async () => {
    await coach.page.reload({ waitUntil: 'domcontentloaded' })
    await coach.page.waitForSelector('[role="img"] canvas')
    await coach.sees('Both check-ins are of one day and count as one visit')
    expect(await coach.page.$('[data-verdict]')).toBeNull()
    await studio.audit('client')
    await coach.open('/clients')
    await coach.sees('Maren Osk')
    await studio.audit('clients')
  })

  it('follows the person’s units', async () => {
    await coach.open('/studio')
    await studio.audit('studio')
    await coach.click('[data-field="ownMass"] button', 'lb')
    // Going elsewhere at once would take the change back before it is sent.
    await coach.page.waitForFunction(async () => {
      const me = (await (await fetch('/api/me')).json()) as { own: { massUnit: string | null } }
      return me.own.massUnit === 'lb'
    })
    await coach.open('/clients')
    await coach.sees('Fat, lb')
    await coach.click('td a', 'Maren Osk')
    await coach.click(VIEW, 'All check-ins')
    await coach.sees((71.5 / 0.45359237).toFixed(1))
    await coach.open('/studio')
    await coach.click('[data-field="ownMass"] button', 'as the studio (kg)')
  })

  it('finds, archives and brings back a client', async () => {
    await coach.open('/')
    await coach.keys('/')
    await coach.page.keyboard.type('osk')
    await coach.keys('Enter')
    await coach.at('/clients')
    await coach.click('td a', 'Maren Osk')
    await coach.more('Edit details')
    await coach.click('button', 'Archive client')
    await coach.sees('No clients yet.')
    await coach.click('input[type="checkbox"]')
    await coach.click('td a', 'Maren Osk')
    await coach.more('Edit details')
    await coach.click('button', 'Bring back from the archive')
    await coach.startMeasuring()
  })
})

describe('a server that dies in the middle', () => {
  it('keeps what was acknowledged, goes on without the server, and sends what was kept here', async () => {
    await coach.enter(70.9)
    await coach.enter(13)
    await coach.sees('everything kept')
    await studio.server.kill()
    await coach.enter(12.5)
    await coach.enter(8)
    await coach.sees('kept on this device')
    await studio.server.start()
    await coach.sees('everything kept')
    await coach.page.reload({ waitUntil: 'domcontentloaded' })
    await coach.measuring()
    const kept = await coach.page.$$eval('.kept', (cells) => cells.map((cell) => cell.textContent.trim()))
    expect(kept).toEqual(['13.0', '12.5', '8.0'])
  })
})
