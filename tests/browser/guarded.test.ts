import { authenticator } from 'otplib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ClientPage } from '../../shared/schemas/client'
import { LEAD, someClient } from '../support/api'
import { PHONE, Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'

let studio: Studio
const rower = someClient({ name: 'Maren Osk' })
beforeAll(async () => {
  // A proof holds for five seconds.
  studio = await openStudio({ env: { CONFIRM_AFTER_MINUTES: String(5 / 60) } })
  await studio.api.send('POST', '/api/clients', rower)
})
afterAll(() => studio.close())

/** Until the last proof has gone stale. */
const staleness = () => new Promise((done) => setTimeout(done, 5_200))

describe('what is guarded', () => {
  it('asks for the password, says when it is wrong, and goes on with what was pressed', async () => {
    const { coach } = studio
    await coach.open('/studio/people')
    await staleness()
    await coach.click('button', 'Invite by link')
    await coach.page.type('[name="name"]', 'Ivo Tarn')
    await coach.page.type('[name="email"]', 'ivo@reedwater.example')
    await coach.keys('Enter')
    await coach.page.waitForSelector('[data-confirm] [name="password"]')
    await studio.audit('who somebody is')
    await coach.page.type('[data-confirm] [name="password"]', 'no such password')
    await coach.keys('Enter')
    await coach.sees('This is not your password.')
    await coach.fill('[data-confirm] [name="password"]', LEAD.password)
    await coach.keys('Enter')
    await coach.page.waitForSelector('[data-link]')
    await coach.sees('A link for Ivo Tarn')
    expect(await coach.page.$('[data-confirm]')).toBeNull()
  })

  it('left alone does nothing, and says so where it was pressed', async () => {
    const { coach } = studio
    await coach.open('/studio/data')
    await staleness()
    await coach.click('[data-format="readings"] button')
    await coach.page.waitForSelector('[data-confirm]')
    await coach.keys('Escape')
    await coach.sees('Please confirm that it is you before this is done.')
  })

  it('from within another sheet takes its place, and gives it back with what was typed', async () => {
    const { coach } = studio
    await coach.open(`/clients/${rower.id}/edit`)
    await coach.click('button', 'Erase ...')
    await staleness()
    await coach.page.type('[role="dialog"] [name="name"]', 'Maren Oskar')
    await coach.click('button', 'Erase for good')
    await coach.page.waitForSelector('[data-confirm] [name="password"]')
    expect(await coach.page.$$('[role="dialog"]')).toHaveLength(1)
    await coach.page.type('[data-confirm] [name="password"]', LEAD.password)
    await coach.keys('Enter')
    await coach.sees('nothing was erased')
    expect(await coach.page.$eval('[role="dialog"] [name="name"]', (one) => (one as HTMLInputElement).value)).toBe(
      'Maren Oskar',
    )
    expect((await studio.api.send<ClientPage>('GET', '/api/clients')).body.total).toBe(1)
  })

  it('limits of sessions are set by a press', async () => {
    const { coach } = studio
    await coach.open('/studio/people')
    await coach.click('[data-session-limits] button', '8 hours')
    await coach.page.waitForSelector('[data-session-limits] button[aria-pressed="true"]')
    await coach.page.waitForFunction(
      () =>
        [...document.querySelectorAll('[data-session-limits] button[aria-pressed="true"]')]
          .map((one) => one.textContent.trim())
          .join() === '8 hours,2 weeks',
    )
  })
})

describe('a code beside the password', () => {
  // The clock's next half minute may begin before it is sent: the code of the one before is taken too.
  const shown = (secret: string) => authenticator.clone({ epoch: Date.now() }).generate(secret.replace(/\s/g, ''))

  it('is set up from a picture, gives codes on paper, and is asked for at the next sign-in', async () => {
    const { coach } = studio
    await coach.open('/studio/account')
    await staleness()
    await coach.click('[data-second-factor] button', 'Set it up')
    await coach.page.waitForSelector('[data-confirm] [name="password"]')
    await coach.page.type('[data-confirm] [name="password"]', LEAD.password)
    await coach.keys('Enter')
    await coach.page.waitForSelector('[data-secret]')
    await studio.audit('a second proof')
    const secret = await coach.textOf('[data-secret]')
    await coach.page.type('[data-second-factor] [name="code"]', '12345')
    await coach.keys('Enter')
    await coach.sees('A code has six digits.')
    await coach.fill('[data-second-factor] [name="code"]', shown(secret))
    await coach.keys('Enter')
    await coach.page.waitForSelector('[data-codes]')
    const paper = await coach.textOf('[data-codes] li')
    expect(paper).toMatch(/^[a-z2-9]{5}-[a-z2-9]{5}$/)
    await coach.click('button', 'I have them')
    await coach.sees('10 of ten codes on paper are left.')

    const other = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await other.open('/sign-in')
    await other.page.type('#email', LEAD.email)
    await other.page.type('#password', LEAD.password)
    await other.keys('Enter')
    await other.page.waitForSelector('[name="code"]')
    await other.sees('Please give the code your phone shows')
    expect(await other.seriousFindings()).toEqual([])
    expect(await other.overflow()).toBeLessThanOrEqual(0)
    await other.page.type('[name="code"]', paper.toUpperCase())
    await other.keys('Enter')
    await other.at('/')
    await other.close()
    await coach.open('/studio/account')
    await coach.sees('9 of ten codes on paper are left.')
  })
})
