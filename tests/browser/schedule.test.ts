import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import type { ClientHistory } from '../../shared/schemas/following'
import { LEAD, someClient } from '../support/api'
import { PHONE, Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { enterVisit } from '../support/visits'

const FOLDS = [16, 14, 10, 12, 18, 22, 26]
const today = new Date().toISOString().slice(0, 10)

let studio: Studio
let coach: Visitor
let id = ''
beforeAll(async () => {
  studio = await openStudio()
  coach = studio.coach
  const client = someClient({ name: 'Maren Osk' })
  id = client.id
  await studio.api.send('POST', '/api/clients', client)
  await enterVisit(studio.api, id, { daysAgo: 12, values: FOLDS, kg: 75 })
})
afterAll(() => studio.close())

const scheduleOf = async () => (await studio.api.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body.schedule

describe('when a client is measured', () => {
  it('is set from the page: cadence, a day that does not move, and what follows from them', async () => {
    await coach.open(`/clients/${id}`)
    await coach.click('[data-next]')
    await coach.page.waitForSelector('[data-schedule]')
    expect(await coach.textOf('[data-next-said]')).toContain('every four weeks')
    await coach.choose('cadence', '0')
    await coach.click('[data-schedule] button', 'Keep it')
    await coach.sees('A whole number of days, from 1 to 366.')
    await coach.choose('cadence', '14')
    await coach.fill('input[name="eventName"]', 'Reedwater Head')
    await coach.fill('input[name="eventDay"]', addDays(today, -1))
    await coach.click('[data-schedule] button', 'Add')
    await coach.sees('This event has been')
    expect(await coach.page.$eval('input[name="eventName"]', (one) => (one as HTMLInputElement).value)).toBe(
      'Reedwater Head',
    )
    await coach.fill('input[name="eventDay"]', addDays(today, 9))
    await coach.click('[data-schedule] button', 'Add')
    await coach.page.waitForSelector('[data-event]')
    expect(await coach.textOf('[data-next-said]')).toContain('weekly, before Reedwater Head')
    await studio.audit('when they are measured')
    await coach.click('[data-schedule] button', 'Keep it')
    await coach.page.waitForFunction(() => !document.querySelector('[data-schedule]'))
    expect(await scheduleOf()).toMatchObject({ cadenceDays: 14, pause: null, events: [{ name: 'Reedwater Head' }] })
  })

  it('shows on the floor: due with the reason, and the day that does not move', async () => {
    await coach.open('/')
    await coach.sees('weekly, before Reedwater Head')
    await coach.page.waitForSelector('[data-floor-event]')
    await studio.audit('the floor')
  })

  it('rests in a pause', async () => {
    await coach.open(`/clients/${id}`)
    await coach.click('[data-next]')
    await coach.fill('input[name="pauseUntil"]', addDays(today, 30))
    await coach.choose('pauseReason', 'injury')
    await coach.click('[data-schedule] button', 'Keep it')
    await coach.page.waitForFunction(() => !document.querySelector('[data-schedule]'))
    expect(await scheduleOf()).toMatchObject({ pause: { reason: 'injury', until: addDays(today, 30) } })
    await coach.open('/')
    await coach.sees('Nobody is due')
  })

  it('fits a phone', async () => {
    const phone = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await phone.signIn(LEAD)
    await phone.open(`/clients/${id}`)
    await phone.tap('[data-next]')
    await phone.page.waitForSelector('[data-schedule]')
    expect(await phone.overflow()).toBeLessThanOrEqual(0)
    await phone.close()
  })
})
