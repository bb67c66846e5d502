import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Me } from '../../shared/schemas/account'
import type { MeasuringFacts } from '../../shared/schemas/checkin'
import { LEAD, someClient, startedCheckin, type Caller } from '../support/api'
import { Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'

const IVO = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', password: 'the-other-oar-holds' }

let studio: Studio
let coach: Visitor
let api: Caller
beforeAll(async () => {
  studio = await openStudio()
  ;({ coach, api } = studio)
})
afterAll(() => studio.close())

describe('people of a studio', () => {
  it('are invited by a link; a password that is easily guessed is said at its field', async () => {
    await coach.open('/studio/people')
    await coach.click('button', 'Invite by link')
    await coach.fill('#name', IVO.name)
    await coach.fill('#email', IVO.email)
    expect(await coach.page.$('#password')).toBeNull()
    await coach.click('button', 'Invite')
    await coach.sees(IVO.email)
    const link = await coach.textOf('[data-link] .figure')
    await studio.audit('people')
    const ivo = await Visitor.arrive(studio.browser, studio.server.address)
    await ivo.page.goto(link, { waitUntil: 'networkidle0' })
    await ivo.fill('#password', 'qwertyuiopasdf')
    await ivo.click('button', 'Keep this password')
    await ivo.sees('easily guessed')
    await ivo.fill('#password', IVO.password)
    await ivo.click('button', 'Keep this password')
    await ivo.sees('New password kept')
    await ivo.close()
  })

  it('get a new password by a link that is shown once and works once', async () => {
    await coach.open('/studio/people')
    await coach.click(`[data-person="${IVO.email}"] button`, 'New password')
    await coach.page.waitForSelector('[data-link] .figure')
    const link = await coach.textOf('[data-link] .figure')
    const ivo = await Visitor.arrive(studio.browser, studio.server.address)
    await ivo.page.goto(link, { waitUntil: 'networkidle0' })
    await ivo.fill('#password', 'copper-meadow-violin')
    await ivo.click('button', 'Keep this password')
    await ivo.sees('New password kept')
    expect(await ivo.seriousFindings()).toEqual([])
    await ivo.signIn({ ...IVO, password: 'copper-meadow-violin' })
    IVO.password = 'copper-meadow-violin'
    await ivo.close()
  })

  it('whose account is closed are out at their next press, on any page', async () => {
    const ivo = await Visitor.arrive(studio.browser, studio.server.address)
    await ivo.signIn(IVO)
    await coach.open('/studio/people')
    await coach.click(`[data-person="${IVO.email}"] button`, 'Close account')
    await coach.sees('account closed')
    await ivo.click('header nav a', 'Clients')
    await ivo.at('/sign-in')
    await ivo.sees('You are signed out here.')
    await coach.click(`[data-person="${IVO.email}"] button`, 'Open again')
    await until(
      () => coach.textOf(`[data-person="${IVO.email}"]`),
      (text) => !text.includes('account closed'),
    )
    // And back to where they were going.
    await ivo.page.type('#email', IVO.email)
    await ivo.page.type('#password', IVO.password)
    await ivo.keys('Enter')
    await ivo.at('/clients')
    await ivo.close()
  })

  it('who record see the sheets they are called to, write down, and leave finishing to a coach', async () => {
    const { checkinId } = await startedCheckin(api, someClient({ name: 'Read Out' }))
    await startedCheckin(api, someClient({ name: 'Not Theirs' }))
    await coach.open('/studio/people')
    await coach.click(`[data-person="${IVO.email}"] button`, 'Recorder')
    const ivo = await Visitor.arrive(studio.browser, studio.server.address)
    await ivo.signIn(IVO)
    await ivo.sees('No open sheet for you')
    // Called from the Floor, to one of the sheets there.
    await coach.open('/')
    await coach.page.waitForSelector('[data-open-sheet]')
    await coach.page.evaluate(() => {
      const line = [...document.querySelectorAll('[data-open-sheet]')].find((one) =>
        one.textContent?.includes('Read Out'),
      )
      line?.querySelector<HTMLElement>('[data-choose="calledRecorder"]')?.click()
    })
    await coach.click('[role="option"]', `Recorder: ${IVO.name}`)
    await until(
      () => api.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`),
      ({ body }) => body.checkin.recorder === IVO.name,
    )
    await studio.audit('floor with an open sheet')
    await ivo.page.reload({ waitUntil: 'networkidle2' })
    await ivo.sees('Write down')
    expect(await ivo.page.evaluate(() => document.body.innerText)).not.toContain('Not Theirs')
    const places = await ivo.page.$$eval('header nav a', (all) => all.map(({ textContent }) => textContent?.trim()))
    expect(places).toEqual(['Floor', 'Reference', 'Studio'])
    await ivo.click('a', 'Write down')
    await ivo.at(`/measure/${checkinId}`)
    await ivo.click('button', 'Skip marking')
    await ivo.measuring()
    await ivo.enter(71.4)
    await ivo.enter(8)
    await ivo.sees('everything kept')
    expect(await ivo.page.evaluate(() => document.body.innerText)).not.toContain('finish as it is')
    await ivo.open('/studio')
    expect(await ivo.seriousFindings()).toEqual([])
    await ivo.close()
  })
})

describe('one’s own account', () => {
  it('shows where one is signed in and signs out elsewhere; a changed password does too', async () => {
    const elsewhere = await Visitor.arrive(studio.browser, studio.server.address)
    await elsewhere.signIn(LEAD)
    await coach.open('/studio/account')
    await coach.sees('this one')
    await coach.click('button', 'Sign out everywhere but here')
    // The button goes when it is done.
    await until(
      () => coach.page.$$eval('button', (all) => all.map((one) => one.textContent.trim())),
      (all) => !all.includes('Sign out everywhere but here'),
    )
    await elsewhere.click('header nav a', 'Clients')
    await elsewhere.at('/sign-in')
    await coach.fill('#old', 'not this one')
    await coach.fill('#password', 'heron-lantern-quilt')
    await coach.click('button', 'Change password')
    await coach.sees('This is not your password.')
    await coach.fill('#old', LEAD.password)
    await coach.click('button', 'Change password')
    await coach.sees('You are signed out everywhere but here.')
    await studio.audit('account')
    await elsewhere.close()
  })
})

describe('the record', () => {
  it('is filtered by person, kind and client, found by typing, from the keyboard', async () => {
    await coach.open('/studio/record')
    await coach.sees('changed their password')
    await coach.pick('kind', 'closed an account')
    await until(
      () =>
        coach.page.$$eval('[data-record] tbody tr', (rows) => rows.map((row) => row.children[2]?.textContent?.trim())),
      (all) => all.length === 1 && all[0] === 'closed an account',
    )
    expect(await coach.textOf('[data-record] tbody')).toContain('Ivo Tarn')
    await studio.audit('record')
  })
})

describe('where the studio is', () => {
  it('is found by typing part of a place, and days follow it', async () => {
    await api.signIn({ ...LEAD, password: 'heron-lantern-quilt' })
    await coach.open('/studio')
    await coach.pick('timeZone', 'Pacific/Kiritimati')
    await until(
      async () => (await api.send<Me>('GET', '/api/me')).body.studio?.timeZone,
      (zone) => zone === 'Pacific/Kiritimati',
    )
    await studio.audit('settings')
  })
})
