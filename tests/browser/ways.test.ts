import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { LEAD, someClient } from '../support/api'
import { PHONE, Visitor } from '../support/browser'
import { enterVisit } from '../support/visits'
import { openStudio, type Studio } from '../support/studio'

const FIRST = [14, 12, 8, 10, 16, 20, 22]
const maren = someClient()
const tobin = someClient({ name: 'Tobin Hale', sex: 'male' })

let studio: Studio
let coach: Visitor
beforeAll(async () => {
  studio = await openStudio()
  coach = studio.coach
  const { api } = studio
  for (const client of [maren, tobin]) await api.send('POST', '/api/clients', client)
  await enterVisit(api, maren.id, { daysAgo: 30, values: FIRST, kg: 71 })
})
afterAll(() => studio.close())

const heading = () => coach.textOf('section[aria-label="Entry"] h2')

describe('ways of reading', () => {
  it('are chosen while preparing and go back to the set’s own when the set changes', async () => {
    await coach.open('/studio')
    await coach.fill('input[name="caliperName"]', 'Steel, bench')
    await coach.choose('resolution', '0.5')
    await coach.click('section[aria-labelledby="calipers"] button', 'Add')
    await coach.sees('never checked')
    await coach.open(`/clients/${maren.id}/measure`)
    await coach.page.waitForSelector('[data-choose="policy-folds"]')
    await coach.choose('protocol', 'kinanthropometry-8')
    await coach.choose('policy-folds', 'kinanthropometry-learner')
    await coach.choose('protocol', 'laboratory-7')
    expect(await coach.chosen('policy-folds')).toBe('laboratory')
    await coach.choose('policy-folds', 'laboratory-strict')
    expect(await coach.seriousFindings()).toEqual([])
    await coach.click('button', 'Start')
    await coach.click('button', 'Skip marking')
    await coach.measuring()
  })

  it('asks for the half millimetre by the caliper’s marks, put right with one key', async () => {
    await coach.enter(71)
    await coach.enter(14.3)
    await coach.sees('This caliper reads to the half millimetre: 14.3 mm lies between its marks.')
    await coach.keys('c')
    await coach.page.waitForSelector('[data-site="triceps"] .kept')
    expect(await coach.textOf('[data-site="triceps"] .kept')).toBe('14.5')
    // Passed with one more Enter where it was read so.
    await coach.enter(11.8)
    await coach.sees('11.8 mm lies between its marks')
    await coach.keys('Enter')
    expect(await heading()).toBe('Chest')
  })

  it('disputes beyond the chosen millimetre, and says when a round looks copied', async () => {
    for (const value of FIRST.slice(2)) await coach.enter(value)
    expect(await coach.page.$('[data-copied]')).toBeNull()
    for (const value of [16, 12, ...FIRST.slice(2)]) await coach.enter(value)
    await coach.sees('measuring again where rounds differ')
    expect(await heading()).toBe('Triceps')
    // Strike what differs and read it as last time: now all seven are exactly last time's.
    for (const label of [
      '11.8 at Subscapular, reading 1',
      '14.5 at Triceps, reading 1',
      '16.0 at Triceps, reading 1',
    ]) {
      await coach.click(`[aria-label="${label}: pick to strike"]`)
      await coach.keys('u')
    }
    await coach.sees('round 1 of 2')
    await coach.enter(14)
    await coach.sees('All 7 values are exactly those of last time: were they read, or copied?')
    expect(await coach.seriousFindings()).toEqual([])
  })
})

describe('on a phone', () => {
  it('prepares, marks, skips and notes within the screen', async () => {
    const phone = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    const audit = async (where: string) => {
      expect(await phone.overflow(), where).toBeLessThanOrEqual(0)
      expect(await phone.seriousFindings(), where).toEqual([])
    }
    await phone.signIn(LEAD)
    await phone.open(`/clients/${tobin.id}/measure`)
    await phone.page.waitForSelector('[data-choose="protocol"]')
    await phone.choose('protocol', 'laboratory-3-men')
    await audit('prepare')
    await phone.tap('button', 'Start')
    await phone.sees('Chest')
    await audit('mark')
    await phone.tap('button', 'Skip marking')
    await phone.measuring()
    await phone.tapIn(82)
    await phone.tap('button', 'skip')
    await phone.sees('Leave out')
    await audit('skip')
    await phone.tap('button', 'Only for now, another site first')
    await phone.tapIn(14)
    await phone.tap('button', 'Note')
    await audit('note')
    await phone.close()
  })
})
