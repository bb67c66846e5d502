import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { nextStep, sessionState, type Reading } from '../../core/readings'
import { isFold, type SiteId } from '../../core/sites'
import { findProtocol, protocolFor, PROTOCOLS, type ProtocolId } from '../../core/protocols'
import type { CheckinRecord, MeasuringFacts } from '../../shared/schemas/checkin'
import { LEAD, someClient, type Caller } from '../support/api'
import { Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'

let studio: Studio
let coach: Visitor
let api: Caller
beforeAll(async () => {
  studio = await openStudio()
  ;({ coach, api } = studio)
})
afterAll(() => studio.close())

const heading = () => coach.textOf('section[aria-label="Entry"] h2')

/** A new client with an open log sheet of this protocol, at the first entry. */
async function open(protocolId: ProtocolId, change: Parameters<typeof someClient>[0] = {}, withHeight = false) {
  const client = someClient({ name: `Rower ${protocolId}`, ...change })
  await api.send('POST', '/api/clients', client)
  const id = crypto.randomUUID()
  const start = { id, protocolId, startedAt: new Date().toISOString(), withHeight }
  await api.send('POST', `/api/clients/${client.id}/checkins`, start)
  await coach.turn(`/measure/${id}`)
  await coach.click('button', 'Skip marking')
  await coach.measuring()
  return { client, id }
}

async function stored(id: string): Promise<CheckinRecord> {
  return (await api.send<MeasuringFacts>('GET', `/api/checkins/${id}`)).body.checkin
}

/** Waits until the server holds this many readings. */
async function holds(id: string, count: number): Promise<CheckinRecord> {
  for (let i = 0; i < 400; i += 1) {
    const record = await stored(id)
    if (record.readings.length >= count) return record
    await new Promise((wake) => setTimeout(wake, 50))
  }
  throw new Error(`the server does not hold ${count} readings`)
}

/** A reading in proportion for each site, steady between rounds. */
function called(site: SiteId): number {
  if (isFold(site)) return 12
  const girths: Partial<Record<SiteId, number>> = {
    neck: 38,
    waist: 82,
    abdomen: 86,
    hip: 98,
    shoulders: 115,
    wrist: 17,
    ankle: 23,
    forearm: 28,
  }
  return girths[site] ?? (site.startsWith('arm') ? 33 : site === 'calf-girth' ? 37 : site === 'thigh-girth' ? 57 : 95)
}

describe('every protocol, taken by keyboard to its end', () => {
  it.each(Object.keys(PROTOCOLS) as ProtocolId[])('%s', async (protocolId) => {
    const whole = findProtocol(protocolId)
    if (!whole) throw new Error('no protocol')
    const { id, client } = await open(protocolId)
    // Sites this person's equations do not need are left to wish.
    const protocol = protocolFor(whole, client.sex)
    await coach.enter(74)
    const taken: Reading[] = []
    for (let i = 0; i < 60; i += 1) {
      const step = nextStep(sessionState(protocol, taken, []))
      if (step.kind === 'finished') break
      const value = called(step.site)
      await coach.enter(value)
      const unit = isFold(step.site) ? ('mm' as const) : ('cm' as const)
      const takenAt = new Date(Date.UTC(2026, 0, 1, 0, 0, i)).toISOString()
      taken.push({ id: String(i), site: step.site, round: step.round, value, unit, takenAt, source: 'keyboard' })
    }
    await coach.sees('every site settled')
    const record = await holds(id, taken.length + 1)
    expect(record.readings.slice(1).map(({ site, value }) => [site, value])).toEqual(
      taken.map(({ site, value }) => [site, value]),
    )
  })
})

describe('keys in odd orders', () => {
  it('pressed in a dialog never reach the sheet', async () => {
    const { id } = await open('laboratory-7')
    await coach.enter(71)
    await coach.keys('k')
    await coach.sees('Or leave it out today, because')
    await coach.keys('1')
    await coach.page.waitForFunction(() => !document.querySelector('[role="dialog"]'))
    await coach.enter(9.5)
    const record = await holds(id, 2)
    expect(record.readings.map(({ value }) => value)).toEqual([71, 9.5])
    expect(record.skips).toHaveLength(1)
  })

  it('after a strike type the struck site again, picked out of turn or not', async () => {
    const { id } = await open('laboratory-7')
    await coach.enter(71)
    for (const value of [14, 12, 9]) await coach.enter(value)
    await coach.click('[aria-label="14.0 at Triceps, reading 1: pick to strike"]')
    await coach.keys('u')
    expect(await heading()).toBe('Triceps')
    await coach.enter(15)
    expect(await heading()).toBe('Midaxillary')
    await coach.enter(8)
    await coach.keys('u')
    expect(await heading()).toBe('Midaxillary')
    await coach.sees('everything kept')
    const record = await holds(id, 6)
    const struck = new Set(record.strikes.map(({ readingId }) => readingId))
    const live = record.readings.filter(({ id: one, site }) => !struck.has(one) && site !== 'weight')
    expect(live.map(({ site, value }) => [site, value])).toEqual([
      ['subscapular', 12],
      ['chest', 9],
      ['triceps', 15],
    ])
  })
})

describe('a first visit', () => {
  it('offers the tape the moment a fold is too large to lift, one press away, and keeps what was read', async () => {
    const { id } = await open('laboratory-7')
    await coach.enter(71)
    await coach.enter(62)
    await coach.sees('Folds this large are hard to lift')
    await coach.click('button', 'Go over to the tape')
    await coach.sees('Navy tape')
    expect(await heading()).toBe('Neck')
    await coach.enter(34)
    const { protocolId, readings } = await holds(id, 3)
    expect([protocolId, readings.map(({ site }) => site)]).toEqual(['navy-tape', ['weight', 'triceps', 'neck']])
  })

  it('offers it as soon as the weight says a BMI of 35', async () => {
    await open('laboratory-7')
    await coach.enter(110)
    await coach.sees('Go over to the tape')
  })
})

describe('neutral mode', () => {
  it('holds on the sheet and its result: no percent, no mass, no weight once it is kept', async () => {
    await open('laboratory-3-men', { sex: 'male', flags: ['neutral-wish'] })
    await coach.enter(80.5)
    for (const value of [8, 20, 15, 8, 20, 15]) await coach.enter(value)
    await coach.page.waitForSelector('[data-result]')
    const said = await coach.page.evaluate(() => document.body.innerText)
    expect(said).toContain('Neutral mode')
    expect(said).not.toMatch(/80\.5|\d %|Fat mass|Lean mass|Density/)
    expect(await coach.page.$('[data-sum]')).toBeNull()
  })
})

describe('the hand at the sheet', () => {
  it('warns about a slip in one line, keeps it with one more Enter, or corrects it with one key', async () => {
    const { id, client } = await open('laboratory-3-men', { sex: 'male' })
    await coach.enter(80)
    for (const value of [8, 20, 15, 8, 20, 15]) await coach.enter(value)
    await coach.sees('every site settled')
    await coach.keys('Enter')
    await coach.at(`/clients/${client.id}`)
    await coach.startMeasuring()
    await coach.enter(80.4)
    await coach.enter(13)
    await coach.sees('Last time 8 mm: 5 mm more. Read it once more?')
    expect(await heading()).toBe('Chest')
    await coach.keys('Enter')
    expect(await heading()).toBe('Abdominal')
    await coach.enter(205)
    await coach.sees('a decimal point may be missing')
    await coach.keys('c')
    expect(await heading()).toBe('Thigh')
    await coach.sees('everything kept')
    const second = await coach.page.evaluate(() => location.pathname.split('/').at(-1) ?? '')
    const record = await holds(second, 3)
    expect(record.readings.map(({ value }) => value)).toEqual([80.4, 13, 20.5])
    expect(second).not.toBe(id)
  })

  it('leaves a site out with a reason, notes at a reading, records how the thigh was lifted', async () => {
    const { id } = await open('athlete-6')
    await coach.enter(70)
    await coach.enter(9)
    await coach.keys('n')
    await coach.click('textarea')
    await coach.page.keyboard.type('strap moved')
    await coach.click('button', 'Keep note')
    await coach.keys('k')
    await coach.sees('Subscapular: skip')
    await coach.keys('2')
    expect(await heading()).toBe('Supraspinale')
    await coach.sees('the client prefers not')
    await coach.enter(8)
    await coach.enter(14)
    expect(await heading()).toBe('Front thigh')
    await coach.click('button', 'underside supported')
    await coach.enter(16)
    const record = await holds(id, 5)
    expect(record.skips).toMatchObject([{ site: 'subscapular', reason: 'prefers-not', words: '' }])
    expect(record.remarks).toMatchObject([
      { words: 'strap moved', readingId: record.readings.find(({ site }) => site === 'triceps-kin')?.id },
    ])
    expect(record.readings.find(({ site }) => site === 'front-thigh')?.method).toBe('underside-supported')
    expect(await coach.seriousFindings()).toEqual([])
  })

  it('hides last time and first readings when blind, until the second is in', async () => {
    await open('laboratory-3-men', { sex: 'male' })
    await coach.enter(80)
    await coach.keys('b')
    await coach.enter(9.5)
    expect(await coach.textOf('[data-site="chest"] .kept')).toBe('•')
    for (const value of [20, 15, 9]) await coach.enter(value)
    const cells = await coach.page.$$eval('[data-site="chest"] .kept', (found) =>
      found.map((cell) => cell.textContent.trim()),
    )
    expect(cells).toEqual(['9.5', '9.0'])
  })

  it('takes the tape in inches with fractions, and height in three trials', async () => {
    const { id } = await open('one-site-tape', { sex: 'male', heightCm: null }, true)
    await coach.enter(90)
    for (const trial of ['178', '178.2', '178.4']) await coach.enter(trial)
    expect(await heading()).toBe('Abdomen')
    await coach.click('button', 'in')
    await coach.enter('34 3/4')
    await coach.click('button', '½')
    await coach.sees('½')
    await coach.keys('Backspace')
    await coach.enter('34 1/2')
    await coach.sees('every site settled')
    const { readings } = await holds(id, 6)
    expect(readings.map(({ value, unit }) => `${value} ${unit}`)).toEqual([
      '90 kg',
      '178 cm',
      '178.2 cm',
      '178.4 cm',
      '34.75 in',
      '34.5 in',
    ])
    expect(await coach.textOf('[data-height]')).toBe('178.2 cm')
  })

  it('marks sites one after another and writes the client’s landmarks down', async () => {
    const client = someClient({ name: 'Maren Osk' })
    await api.send('POST', '/api/clients', client)
    await coach.open(`/clients/${client.id}`)
    await coach.click('a', 'Measure')
    await coach.page.waitForSelector('[data-choose="protocol"]')
    await coach.choose('protocol', 'laboratory-3-women')
    await coach.click('[aria-label="Training"] button', 'after training')
    await coach.click('button', 'Start')
    await coach.sees('1 of 3')
    await coach.keys('Enter')
    await coach.sees('2 of 3')
    await coach.click('input[name="landmark"]')
    await coach.page.keyboard.type('freckle above the crest')
    await coach.keys('Enter', 'Enter')
    await coach.measuring()
    await coach.enter(70)
    await coach.enter(14)
    expect(await coach.textOf('[data-landmark]')).toContain('freckle above the crest')
    for (const value of [12, 20, 14, 12, 20]) await coach.enter(value)
    await coach.keys('Enter')
    await coach.at(`/clients/${client.id}`)
    await coach.click('a', 'Measure')
    await coach.page.waitForSelector('[data-choose="protocol"]')
    expect(await coach.chosen('protocol')).toBe('laboratory-3-women')
    await coach.click('[aria-label="Training"] button', 'before training')
    await coach.sees('last time after training')
    await coach.choose('protocol', 'laboratory-7')
    await coach.sees('This breaks the history')
    expect(await coach.seriousFindings()).toEqual([])
  })
})

describe('two screens on one session', () => {
  /** Another screen at this session, open for its next entry. */
  async function besideAt(id: string): Promise<Visitor> {
    const recorder = await Visitor.arrive(studio.browser, studio.server.address)
    await recorder.signIn(LEAD)
    await recorder.turn(`/measure/${id}`)
    await recorder.measuring()
    return recorder
  }

  it('shows both what either enters, live, and merges without overwriting', async () => {
    const { id } = await open('laboratory-7')
    await coach.enter(72)
    const recorder = await besideAt(id)
    const [first, second] = [
      [14, 13, 8, 10, 15, 20, 22],
      [14.5, 13, 8, 10.5, 15, 20, 22.5],
    ].map((round) => round.map(String))
    for (let i = 0; i < 7; i += 1) {
      const [screen, other] = i % 2 ? [recorder, coach] : [coach, recorder]
      await screen.enter(first?.[i] ?? '')
      await other.sees(Number(first?.[i]).toFixed(1))
    }
    await Promise.all([coach.enter(second?.[0] ?? ''), recorder.enter(second?.[0] ?? '')])
    const record = await holds(id, 10)
    // Both called the same fold in at once: two readings stand, neither is lost.
    expect(record.readings.filter(({ site }) => site === 'triceps').length).toBeGreaterThanOrEqual(2)
    expect(record.readings).toHaveLength(10)
    await recorder.keys('u')
    await recorder.sees('everything kept')
    await coach.page.waitForFunction(() => document.querySelectorAll('s').length === 1, { polling: 40 })
    await recorder.close()
  })

  it('keeps a figure half typed at its site while the other screen reads the same', async () => {
    const { id } = await open('laboratory-7')
    await coach.enter(72)
    const recorder = await besideAt(id)
    await coach.page.keyboard.type('1')
    await recorder.enter(14)
    await coach.sees('14.0')
    await coach.page.keyboard.type('4.5')
    await coach.keys('Enter')
    const { readings } = await holds(id, 3)
    expect(readings.map(({ site, value }) => [site, value])).toEqual([
      ['weight', 72],
      ['triceps', 14],
      ['triceps', 14.5],
    ])
    // Taken back, it lets the sheet go on in turn: subscapular.
    await coach.page.keyboard.type('9')
    await recorder.enter(13)
    await coach.sees('13.0')
    await coach.keys('Backspace')
    await coach.enter(8)
    expect((await holds(id, 5)).readings.at(-1)).toMatchObject({ site: 'chest', value: 8 })
    await recorder.close()
  })

  it('says calmly that a session was finished elsewhere', async () => {
    const { id } = await open('one-site-tape', { sex: 'male' })
    await coach.enter(88)
    await coach.enter(90)
    await holds(id, 2)
    expect(await coach.page.evaluate(() => document.body.innerText)).not.toContain('finished')
    await api.send('PATCH', `/api/checkins/${id}`, { finished: true })
    await coach.sees('finished, everything kept')
    await coach.click('button', 'Back')
    await coach.at(/^\/clients\//)
  })
})
