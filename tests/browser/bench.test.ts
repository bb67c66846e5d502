import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { RegisteredCaliper } from '../../shared/schemas/caliper'
import type { DrillRound } from '../../shared/schemas/drill'
import type { OtherRecord } from '../../shared/schemas/other-method'
import type { StudyLine, StudyRecord } from '../../shared/schemas/study'
import { LEAD, someClient } from '../support/api'
import { PHONE, Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'
import { enterVisit } from '../support/visits'

let studio: Studio
let coach: Visitor
const rower = someClient({ name: 'Aila Reed' })
const silent = someClient({ name: 'Bram Alder', consentOn: null })
beforeAll(async () => {
  studio = await openStudio()
  coach = studio.coach
  await studio.api.send('POST', '/api/clients', rower)
  await studio.api.send('POST', '/api/clients', silent)
})
afterAll(() => studio.close())

const studies = async () => (await studio.api.send<StudyLine[]>('GET', '/api/studies')).body
const study = async () => (await studio.api.send<StudyRecord>('GET', `/api/studies/${(await studies())[0]?.id}`)).body
const rounds = async () => (await studio.api.send<DrillRound[]>('GET', '/api/drills')).body
const text = (selector: string) => coach.page.$eval(selector, (one) => one.textContent.trim())

describe('a study', () => {
  it('is set up with what is missing said at its field', async () => {
    await coach.click('nav[aria-label="Places"] a', 'Bench')
    await coach.click('nav[aria-label="Parts of the bench"] a', 'Studies')
    await coach.sees('None yet.')
    await coach.click('button', 'Set a study up')
    await coach.sees('until the error is known to a quarter of itself')
    await coach.click('button', 'Set it up')
    await coach.sees('Please name the study.')
    await coach.fill('input[name="name"]', 'Lead again')
    for (const site of ['Subscapular', 'Chest', 'Midaxillary', 'Suprailiac', 'Abdominal'])
      await coach.page.evaluate(
        (name) =>
          [...document.querySelectorAll('fieldset label')]
            .find((one) => one.textContent.trim() === name)
            ?.querySelector('input')
            ?.click(),
        site,
      )
    await studio.audit('setting a study up')
    await coach.click('button', 'Set it up')
    await coach.at(/^\/bench\/studies\/.+/)
    await coach.sees('Nobody in it yet.')
    expect((await study()).sites).toEqual(['triceps', 'thigh'])
  })

  it('takes nobody without consent, and says whose is missing', async () => {
    await coach.pick('person', silent.name)
    await coach.sees('Note Bram Alder’s consent to being measured first.')
    await coach.pick('person', rower.name)
    await until(study, ({ people }) => people.length === 1)
    await studio.audit('a study')
  })

  it('measures both turns on the log sheet, blind, without the scale', async () => {
    for (const [press, folds] of [
      ['first', [12, 20, 12, 20]],
      ['again', [13, 20.5, 13, 20.5]],
    ] as const) {
      await coach.click('button', press)
      await coach.at(/^\/measure\//)
      await coach.click('button', 'Skip marking')
      await coach.sees(`blind: Lead again, Lead Coach`.replace('Lead Coach', ''))
      expect(await coach.page.$('[data-weight]')).toBeNull()
      for (const fold of folds) await coach.enter(fold)
      await coach.sees('Everything is read.')
      expect(await coach.page.evaluate(() => document.body.innerText)).not.toContain('%')
      await coach.click('button', 'Done')
      await coach.at(/^\/bench\/studies\/.+/)
    }
    await until(study, ({ turns }) => turns.filter(({ finished }) => finished).length === 2)
    const { body } = await studio.api.send<{ checkins: unknown[] }>('GET', `/api/clients/${rower.id}/history`)
    expect(body.checkins).toEqual([])
  })

  it('is closed, and says what it can of one person', async () => {
    await coach.click('button', 'Close and show what it says')
    await coach.sees('One person: at least 10 are wanted')
    await coach.sees('Too few for the error model')
    expect((await study()).result?.doubts.map(({ code }) => code)).toContain('few-people')
    await studio.audit('a closed study')
  })

  it('of a group is heard of on every tablet as it goes on', async () => {
    const ivo = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', password: 'the-other-oar-holds', role: 'coach' }
    const { body } = await studio.api.addPerson(ivo)
    const me = await studio.api.send<{ staff: { id: string } }>('GET', '/api/me')
    const day = new Date().toISOString().slice(0, 10)
    const pens = [me.body.staff.id, body.id].map((staffId, i) => ({
      id: uuid(),
      staffId,
      agreedOn: i === 0 ? day : null,
    }))
    const id = uuid()
    const made = {
      id,
      name: 'Both',
      kind: 'assessors',
      protocolId: 'laboratory-7',
      sites: ['triceps'],
      pens,
      group: true,
    }
    await studio.api.send('POST', '/api/studies', { ...made, referencePenId: pens[0]?.id })
    // By the way of a list: a page that listens on is never quite loaded.
    await coach.click('nav[aria-label="Parts of the bench"] a', 'Studies')
    await coach.click(`a[href="/bench/studies/${id}"]`)
    await coach.sees('Ivo Tarn has not agreed to be compared.')
    await studio.api.send('POST', `/api/studies/${id}/people`, { id: uuid(), clientId: rower.id })
    await coach.sees(rower.name)
    await coach.click('button', 'Ivo Tarn agreed today')
    const both = async () => (await studio.api.send<StudyRecord>('GET', `/api/studies/${id}`)).body
    await until(both, (one) => one.pens[1]?.agreedOn === day)
  })
})

/** The value called last; it stands for a moment only, and is called again where that was too short. */
async function heard(): Promise<string> {
  for (let i = 0; i < 400; i += 1) {
    const called = await coach.page.evaluate(() => {
      const shown = document.querySelector('[data-called] .figure')
      if (!shown)
        [...document.querySelectorAll('button')].find((one) => one.textContent.trim() === 'say it again')?.click()
      return shown?.textContent.trim() ?? null
    })
    if (called) return called
    await new Promise((wake) => setTimeout(wake, 40))
  }
  throw new Error('nothing was called')
}

describe('drills', () => {
  it('find the site: landmarks by pressing, the mark by pointing', async () => {
    await coach.open('/bench/drills')
    await coach.click('[data-drill="find-site"]')
    await coach.page.waitForSelector('[data-body]')
    await coach.click('[data-landmarks]')
    const at = await coach.page.$eval('[data-body]', (body) => {
      const svg = body as unknown as SVGSVGElement & HTMLElement
      const [x = 0, y = 0] = (svg.dataset.mark ?? '').split(' ').map(Number)
      const matrix = svg.getScreenCTM()
      const place = new DOMPoint(x, y).matrixTransform(matrix ?? undefined)
      return { x: place.x, y: place.y }
    })
    await coach.page.mouse.click(at.x, at.y)
    await coach.page.waitForSelector('[data-score]')
    expect(Number(await text('[data-score]'))).toBeLessThan(0.3)
    await studio.audit('find the site')
    await until(rounds, (all) => all.length === 1)
  })

  it('find the site: by the keyboard', async () => {
    await coach.click('[data-again]')
    await coach.page.$eval('[data-body]', (body) => (body as unknown as HTMLElement).focus())
    await coach.keys('b', 'ArrowLeft', 'ArrowUp', 'Enter')
    await coach.page.waitForSelector('[data-score]')
    await until(rounds, (all) => all.length === 2)
  })

  it('count: by Space', async () => {
    await coach.open('/bench/drills/count')
    await coach.page.waitForSelector('[data-count]')
    await coach.keys('Space')
    await new Promise((done) => setTimeout(done, 1500))
    await coach.keys('Space')
    await coach.page.waitForSelector('[data-score]')
    await studio.audit('count')
    const all = await until(rounds, (some) => some.some(({ drill }) => drill === 'count'))
    expect(all.find(({ drill }) => drill === 'count')?.score).toBeLessThan(5)
  })

  it('read the dial: what is typed is held against the fold, nonsense is said', async () => {
    await coach.open('/bench/drills/read-dial')
    await coach.click('[data-pinch]')
    await coach.page.waitForSelector('input[name="said"]')
    await coach.enter('much')
    await coach.sees('Type what the needle said, in mm.')
    const fold = await coach.page.$eval('[data-fold]', (dial) => (dial as unknown as HTMLElement).dataset.fold ?? '')
    await coach.fill('input[name="said"]', fold.replace('.', ','))
    await coach.keys('Enter')
    await coach.page.waitForSelector('[data-score]')
    expect(await text('[data-score]')).toBe('0.0')
    await studio.audit('read the dial')
  })

  it('call and write: eight values written as they are called, odd ones stand there afterwards', async () => {
    await coach.open('/bench/drills/call-write')
    await coach.click('[data-begin]')
    for (let i = 0; i < 8; i += 1) {
      const called = await heard()
      if (i === 0) {
        await coach.keys('Enter')
        await coach.sees('Write the value down, or question it.')
      }
      await coach.enter(called)
    }
    await coach.page.waitForSelector('[data-score]')
    // Two or three were odd, and none was questioned.
    expect([63, 75]).toContain(Number(await text('[data-score]')))
    await studio.audit('call and write')
  })

  it('a whole client: on the log sheet by keyboard, truth beside readings', async () => {
    await coach.open('/bench/drills/whole-client')
    await coach.click('input[value="easy"]')
    await coach.click('[data-begin]')
    await coach.page.waitForSelector('[data-jaws]')
    await studio.audit('a whole client')
    for (let i = 0; i < 40 && !(await coach.page.$('[data-truth]')); i += 1) {
      await coach.keys('t')
      await coach.page.waitForFunction(() => /\d/.test(document.querySelector('[data-jaws]')?.textContent ?? ''))
      await new Promise((done) => setTimeout(done, 250))
      await coach.page.keyboard.type(await text('[data-jaws]'))
      await coach.keys('Enter', 'Enter')
      await new Promise((done) => setTimeout(done, 60))
    }
    await coach.page.waitForSelector('[data-truth]')
    expect(await coach.page.$$eval('[data-truth] tbody tr', (rows) => rows.length)).toBe(7)
    expect(Number(await text('[data-score]'))).toBeLessThan(20)
    await studio.audit('truth beside readings')
    await until(rounds, (all) => all.some(({ drill }) => drill === 'whole-client'))
  })
})

describe('a caliper', () => {
  const register = async () => (await studio.api.send<RegisteredCaliper[]>('GET', '/api/calipers/register')).body

  it('is added, checked against the block, and corrected at a press', async () => {
    await coach.open('/bench/calipers')
    await coach.click('button', 'Add a caliper')
    await coach.click('button', 'Add it')
    await coach.sees('Please name the caliper.')
    await coach.fill('input[name="name"]', 'Worn steel')
    await coach.click('button', 'Add it')
    await coach.sees('Never checked.')
    await coach.click('button', 'Check it')
    await coach.click('button', 'Note the check')
    await coach.sees('Note what it read at a step of the block at least.')
    for (const mm of [0, 10, 20, 30, 40]) await coach.fill(`input[name="read-${mm}"]`, `${mm},9`)
    await coach.sees('evenly enough to be taken off')
    await studio.audit('a block check')
    await coach.click('button', 'Note the check')
    await coach.click('button', 'Take it off')
    await coach.sees('Corrected since')
    await until(register, ([one]) => one?.corrections.length === 1)
    await studio.audit('calipers')
    // The stand-in block gives no way: what it shows beyond the step is the caliper's own.
    await coach.open('/devices/caliper')
    await coach.fill('input[name="zero"]', '0.8')
    await coach.fill('input[name="noise"]', '0')
    await coach.click('[data-step="20"]')
    await coach.sees('20.8')
  })
})

describe('another method', () => {
  it('is refused with an implanted device, and noted else as a line of its own', async () => {
    await enterVisit(studio.api, rower.id, { daysAgo: 2, values: [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24], kg: 70 })
    await coach.open(`/clients/${rower.id}/methods`)
    await coach.click('button', 'Note a measurement')
    await coach.click('button', 'yes')
    await coach.sees('No current through somebody with an implanted device')
    await coach.click('button', 'no')
    await coach.click('button', 'Note it')
    await coach.sees('Name the device: another one is another line.')
    await coach.fill('input[name="device"]', 'Scale by the door')
    await coach.fill('input[name="percent"]', '24,5')
    await coach.click('button', 'Note it')
    await coach.page.waitForSelector('[data-line="bia-hand-foot"]')
    const { body } = await studio.api.send<OtherRecord[]>('GET', `/api/clients/${rower.id}/methods`)
    expect(body).toMatchObject([{ percent: 24.5, conditions: { implant: 'no' } }])
    await studio.audit('other methods')
  })
})

describe('progress', () => {
  it('shows a lead everybody, what comes next, and takes a plan for a day to come', async () => {
    await coach.open('/bench')
    await coach.click('[data-everybody] button', 'Ivo Tarn')
    await coach.sees('Read every site twice')
    await coach.click('button', 'Set one')
    await coach.fill('input[name="byDay"]', '2020-01-01')
    await coach.click('button', 'Set it')
    await coach.sees('This day has come already: give a later one.')
    await coach.fill('input[name="byDay"]', '2031-01-01')
    await coach.click('button', 'Set it')
    await coach.sees('of 20 people by')
    await studio.audit('progress')
  })

  it('and everything of the bench stands on a phone', async () => {
    const phone = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await phone.signIn(LEAD)
    for (const path of [
      '/bench',
      '/bench/studies',
      '/bench/calipers',
      '/bench/drills',
      '/bench/drills/find-site',
      '/bench/drills/count',
      '/reference/sites?site=thigh',
    ]) {
      await phone.open(path)
      expect(await phone.overflow(), path).toBeLessThanOrEqual(0)
    }
    expect(phone.faults).toEqual([])
    await phone.close()
  })
})
