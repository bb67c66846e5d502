import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import { storeOf } from '../support/database'
import { challengeEntry } from '../../server/db/schema'
import type { Me } from '../../shared/schemas/account'
import type { ChallengeFacts, ChallengeRecord } from '../../shared/schemas/challenge'
import { someClient } from '../support/api'
import { Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'
import { enterVisit } from '../support/visits'

const FOLDS = [30, 26, 22, 24, 34, 40, 42]
const today = new Date().toISOString().slice(0, 10)
const caliper = uuid()

let studio: Studio
let coach: Visitor
const people = ['Aila Reed', 'Bram Alder', 'Cato Heron'].map((name) => someClient({ name }))
beforeAll(async () => {
  studio = await openStudio()
  coach = studio.coach
  await studio.api.send('POST', '/api/calipers', { id: caliper, name: 'Steel', resolutionMm: 0.5 })
  for (const [i, one] of people.entries()) {
    await studio.api.send('POST', '/api/clients', one)
    await enterVisit(studio.api, one.id, { daysAgo: 40, values: FOLDS, kg: 70, caliperId: caliper })
    const values = FOLDS.map((mm) => Math.round(2 * mm * (i === 0 ? 0.5 : 1)) / 2)
    await enterVisit(studio.api, one.id, { daysAgo: 0, values, kg: 69, caliperId: caliper })
  }
})
afterAll(() => studio.close())

const list = async () => (await studio.api.send<ChallengeRecord[]>('GET', '/api/challenges')).body
const facts = async () =>
  (await studio.api.send<ChallengeFacts>('GET', `/api/challenges/${(await list())[0]?.id}`)).body

describe('a challenge', () => {
  it('is set up from the floor, with what it needs read first', async () => {
    await coach.click('a', 'Challenges')
    await coach.click('button', 'Set one up')
    await coach.fill('input[name="name"]', 'Winter lake')
    await coach.fill('input[name="startsOn"]', addDays(today, -40))
    await coach.fill('input[name="endsOn"]', addDays(today, -36))
    await coach.click('button', 'Set it up')
    await coach.sees('Please read what a challenge needs')
    await coach.click('input[name="accepted"]')
    await coach.click('button', 'Set it up')
    await coach.sees('A challenge lasts 14 days or more')
    expect(await coach.page.$eval('input[name="name"]', (one) => (one as HTMLInputElement).value)).toBe('Winter lake')
    await coach.fill('input[name="endsOn"]', addDays(today, 1))
    await studio.audit('setting a challenge up')
    await coach.click('button', 'Set it up')
    await coach.at(/^\/challenges\/.+/)
    await coach.sees('Nobody yet.')
  })

  it('enters people with how they are shown', async () => {
    for (const [i, one] of people.entries()) {
      await coach.pick('clientId', one.name)
      if (i === 0) await coach.click('[data-field="shownAs"] button', 'By name')
      else await coach.click('[data-field="shownAs"] button', 'By an alias')
      if (i > 0) await coach.fill('input[name="alias"]', `Bird ${i}`)
      if (i === 0) {
        await coach.click('button', 'Enter')
        await coach.sees('They have to agree')
      }
      await coach.click('input[name="agreed"]')
      await coach.click('button', 'Enter')
      await coach.page.waitForSelector(`[data-entry="${one.name}"]`)
      if (i === 0) await coach.sees('One alone is no challenge')
    }
    await coach.sees('begun before the entry, not blind')
  })

  it('shows places, shared where error does not part them, and a board for the wall', async () => {
    await studio.server.end()
    const store = await storeOf(studio.server)
    await store.database.update(challengeEntry).set({ at: `${addDays(today, -60)}T09:00:00Z` })
    await store.close()
    await studio.server.start()
    await coach.open(`/challenges/${(await list())[0]?.id}`)
    await coach.page.waitForSelector('[data-standing] tbody tr')
    const rows = await coach.page.$$eval('[data-standing] tbody tr', (all) =>
      all.map((row) => [row.getAttribute('data-place'), row.querySelectorAll('td')[1]?.textContent]),
    )
    expect(rows[0]).toEqual(['1', 'Aila Reed'])
    expect(rows[1]?.[0]).toBe(rows[2]?.[0])
    await studio.audit('the standing')
    await coach.click('button', 'Board for the wall')
    const link = await coach.textOf('[data-board-link] .figure')
    const wall = await Visitor.arrive(studio.browser, studio.server.address, { width: 1920, height: 1080 })
    await wall.page.goto(link, { waitUntil: 'networkidle0' })
    await wall.page.waitForSelector('[data-row]')
    const said = await wall.textOf('[data-board]')
    expect(said).toContain('Aila Reed')
    expect(said).toContain('Bird 1')
    expect(said).not.toMatch(/Bram|Cato|fat|fold|weight|%/)
    expect(await wall.seriousFindings()).toEqual([])
    expect(await wall.overflow()).toBeLessThanOrEqual(0)
    await wall.close()
  })

  it('is left with two presses, silently', async () => {
    await coach.click('[data-entry="Cato Heron"] button', 'Leaves')
    await coach.click('[data-entry="Cato Heron"] button', 'Yes, out')
    await coach.page.waitForFunction(() => !document.querySelector('[data-entry="Cato Heron"]'))
    await until(facts, ({ entries }) => entries.filter(({ leftAt }) => leftAt === null).length === 2)
  })

  it('hides what was read before from whoever measures', async () => {
    await coach.open(`/clients/${people[0]?.id}/measure`)
    await coach.click('button', 'Start')
    await coach.click('button', 'Skip marking')
    await coach.measuring()
    await coach.page.waitForSelector('[data-challenged]')
    expect(await coach.textOf('section[aria-label="Log sheet"]')).not.toContain('42.0')
  })
})

describe('the studio’s week', () => {
  it('a set of one’s own is chosen on the figure, put in order by keys and offered like any other', async () => {
    await coach.open('/studio/sets')
    for (const site of ['triceps', 'thigh', 'abdominal']) await coach.click(`[data-add="${site}"]`)
    await coach.fill('input[name="name"]', 'Lake three')
    await coach.page.focus('[data-site="abdominal"] button')
    await coach.keys('ArrowUp', 'ArrowUp')
    const order = await coach.page.$$eval('[data-site]', (all) => all.map((one) => one.getAttribute('data-site')))
    expect(order).toEqual(['abdominal', 'triceps', 'thigh'])
    expect(await coach.textOf('[data-feeds]')).toContain('Evans')
    await studio.audit('sets of sites')
    await coach.click('button', 'Keep this set')
    await coach.sees('It is offered like any other set.')
    await coach.open(`/clients/${people[1]?.id}/measure`)
    const [set] = (await studio.api.send<Me>('GET', '/api/me')).body.sets
    await coach.page.waitForSelector('[data-choose="protocol"]')
    await coach.choose('protocol', set?.id ?? '')
    await coach.click('button', 'Start')
    await coach.click('button', 'Skip marking')
    await coach.measuring()
    const sheet = await coach.textOf('section[aria-label="Log sheet"]')
    expect(sheet.indexOf('Abdominal')).toBeGreaterThan(0)
    expect(sheet.indexOf('Triceps')).toBeGreaterThan(sheet.indexOf('Abdominal'))
  })

  it('people: invited by link, away, and who sees whom', async () => {
    await coach.open('/studio/people')
    await coach.click('button', 'Invite by link')
    await coach.page.type('#name', 'Ivo Tarn')
    await coach.page.type('#email', 'ivo@reedwater.example')
    await coach.click('button', 'Invite')
    await coach.page.waitForSelector('[data-link]')
    const link = await coach.textOf('[data-link] .figure')
    await coach.fill('input[name="fromDay"]', addDays(today, 2))
    await coach.fill('input[name="toDay"]', addDays(today, 1))
    await coach.click('button', 'Note it')
    await coach.sees('The last day is before the first.')
    await coach.fill('input[name="toDay"]', addDays(today, 6))
    await coach.click('button', 'Note it')
    await coach.page.waitForSelector('[data-absence]')
    await studio.audit('people')
    const ivo = await Visitor.arrive(studio.browser, studio.server.address)
    await ivo.page.goto(link, { waitUntil: 'networkidle0' })
    await ivo.page.type('#password', 'copper-meadow-violin')
    await ivo.click('button', 'Keep this password')
    await ivo.sees('New password kept')
    await ivo.close()
    await coach.open('/studio/mail')
    await coach.sees('Nothing has been written yet')
    await studio.audit('the mailbox')
    await coach.open('/studio/account')
    await coach.click('[data-calendar="me"] button', 'Make an address')
    await coach.page.waitForSelector('[data-feed]')
    await studio.audit('calendar addresses')
  })
})
