import sharp from 'sharp'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { ElementHandle, HTTPRequest } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ClientHistory } from '../../shared/schemas/following'
import type { FromHome } from '../../shared/schemas/link'
import { someClient } from '../support/api'
import { PHONE, Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'

let studio: Studio
let coach: Visitor
let phone: Visitor
let link = ''
const rower = someClient({ name: 'Maren Osk', photoConsentOn: '2026-01-10' })
const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-pictures-'))
beforeAll(async () => {
  studio = await openStudio()
  coach = studio.coach
  await studio.api.send('POST', '/api/clients', rower)
  phone = await Visitor.arrive(studio.browser, studio.server.address, PHONE, true)
})
afterAll(async () => {
  await phone.close()
  await studio.close()
  rmSync(folder, { recursive: true, force: true })
})

const fromHome = async () => (await studio.api.send<FromHome>('GET', `/api/clients/${rower.id}/from-home`)).body
const diary = async () =>
  (await studio.api.send<ClientHistory>('GET', `/api/clients/${rower.id}/history`)).body.weighIns
async function fits(where: string) {
  expect(await phone.seriousFindings(), where).toEqual([])
  expect(await phone.overflow(), where).toBeLessThanOrEqual(0)
}
async function pick(tone: string, size: number) {
  const file = join(folder, `${tone.slice(1)}.jpg`)
  const noise = { type: 'gaussian', mean: 128, sigma: 60 } as const
  writeFileSync(
    file,
    await sharp({ create: { width: size, height: Math.round(size * 1.5), channels: 3, background: tone, noise } })
      .jpeg({ quality: 98 })
      .toBuffer(),
  )
  const input = (await phone.page.waitForSelector('input[name="picture"]')) as ElementHandle<HTMLInputElement>
  await input.uploadFile(file)
  await phone.page.waitForSelector('img[alt^="The picture as taken"]')
}

describe('from home', () => {
  it('begins with a link on the coach’s tablet, as an address and as a code', async () => {
    await coach.open(`/clients/${rower.id}/from-home`)
    await coach.click('button', 'Make the link')
    await coach.page.waitForFunction(
      () => (document.querySelector('[data-code]') as HTMLImageElement | null)?.naturalWidth,
    )
    link = await coach.textOf('[data-made] .figure')
    expect(link).toMatch(/\/hand-in#[\w-]{43}$/)
    await studio.audit('a client from home')
  })

  it('opens on a phone with a PIN of their own; the token is out of the address bar', async () => {
    await phone.page.goto(link, { waitUntil: 'networkidle0' })
    await phone.sees('Hello Maren')
    expect(phone.page.url()).not.toContain('#')
    expect(await phone.page.evaluate(() => JSON.stringify(history.state))).not.toContain(link.split('#')[1])
    await phone.page.type('[name="pin"]', '4719')
    await phone.page.type('[name="again"]', '4718')
    await phone.tap('button', 'Keep this PIN')
    await phone.sees('The two are not the same')
    await fits('the door')
    await phone.fill('[name="again"]', '4719')
    await phone.tap('button', 'Keep this PIN')
    await phone.page.waitForSelector('[data-morning]')
    // The first visit is enough to open it without a network from then on.
    await phone.canGoOffline()
    await phone.page.goto(studio.server.address + '/hand-in', { waitUntil: 'networkidle0' })
    await phone.page.waitForSelector('[data-morning]')
  })

  it('takes a weight in one number and one press; a slip of the point is asked about and what was typed stays', async () => {
    await phone.page.type('[name="weight"]', '71,4')
    await phone.tap('button', 'Hand in')
    await phone.sees('Handed in. Have a good day.')
    await until(async () => (await diary()).length === 1, Boolean)
    await phone.fill('[name="weight"]', '7.1')
    await phone.tap('button', 'Hand in')
    await phone.sees('Is it 71.0 kg?')
    expect(await phone.page.$eval('[name="weight"]', (one) => (one as HTMLInputElement).value)).toBe('7.1')
    await phone.tap('button', 'Yes, 71.0')
    await phone.sees('The first of a day is the one that counts.')
    await phone.fill('[name="weight"]', '900')
    await phone.tap('button', 'Hand in')
    await phone.tap('button', 'It is as I typed it')
    await phone.sees('Is the point in the right place?')
    expect(await diary()).toMatchObject([{ value: 71.4, source: 'link' }])
    await fits('the morning')
  })

  it('a week: put together without a network, over a reload, and handed in once when it is back', async () => {
    await phone.tap('button', 'Hand in the week')
    await phone.page.waitForSelector('[data-tape]')
    await phone.page.type('[name="shoulders-1"]', '107.2')
    await phone.page.type('[name="shoulders-2"]', '105.8')
    await phone.tap('button', 'Next')
    await phone.sees('once more, please')
    await phone.page.type('[name="shoulders-3"]', '107')
    await fits('the tape')

    await phone.page.setOfflineMode(true)
    await phone.page.reload()
    await phone.sees('No network at the moment')
    await phone.tap('button', 'Go on with the week')
    await phone.page.waitForSelector('[data-tape]')
    // The first place is done: the next one waits.
    await phone.sees('Navel')
    await phone.page.type('[name="abdomen-1"]', '8')
    await phone.page.type('[name="abdomen-2"]', '80.4')
    await phone.tap('button', 'Next')
    await phone.sees('Is the point in the right place?')
    await phone.fill('[name="abdomen-1"]', '80')
    await phone.tap('button', 'Next')
    await phone.sees('Hips')
    await phone.page.type('[name="hip-1"]', '97')
    await phone.page.type('[name="hip-2"]', '97.2')
    await phone.tap('button', 'Next')
    await phone.page.waitForSelector('[data-pictures]')
    await pick('#998877', 3600)
    await fits('the pictures')
    await phone.tap('button', 'Next')
    await phone.tap('button', 'Leave this one out')
    await phone.tap('button', 'Leave this one out')
    await phone.page.waitForSelector('[data-words]')
    await phone.tap('button', 'shorter')
    await phone.page.type('[name="words"]', 'Two long outings.')
    await fits('the words')
    await phone.tap('button', 'Hand in the week')
    await phone.sees('kept on this phone and goes out with the next network')
    expect((await fromHome()).weeks).toEqual([])

    // The network comes back, and is cut again after the server has stored the week but before its answer arrives.
    let cut = 0
    let tellCut: () => void = () => undefined
    const wasCut = new Promise<void>((done) => (tellCut = done))
    await phone.page.setRequestInterception(true)
    const intercept = (request: HTTPRequest) => {
      const isWeek = request.method() === 'POST' && request.url().endsWith('/api/hand-in/weeks')
      if (!isWeek || cut > 0) return void request.continue()
      cut += 1
      void fetch(request.url(), {
        method: 'POST',
        headers: { ...request.headers(), cookie: cookies },
        body: request.postData() ?? '',
      })
        .then(() => request.abort('connectionreset'))
        .then(tellCut)
    }
    phone.page.on('request', intercept)
    const cookies = (await phone.page.browserContext().cookies())
      .map(({ name, value }) => `${name}=${value}`)
      .join('; ')
    await phone.page.setOfflineMode(false)
    await phone.page.evaluate(() => window.dispatchEvent(new Event('online')))
    await until(async () => (await fromHome()).weeks.length === 1, Boolean)
    expect(cut).toBe(1)
    await wasCut
    phone.page.off('request', intercept)
    await phone.page.setRequestInterception(false)
    await until(
      async () => {
        await phone.page.evaluate(() => window.dispatchEvent(new Event('online')))
        return { photos: (await fromHome()).weeks[0]?.photos.length, phone: await phone.textOf('body') }
      },
      ({ photos }) => photos === 1,
    )
    const [week] = (await fromHome()).weeks
    expect((await fromHome()).weeks).toHaveLength(1)
    expect(week).toMatchObject({ words: 'Two long outings.', conditions: { sleep: 'short' } })
    expect(week?.girths).toHaveLength(7)
    expect(week?.changes.find(({ site }) => site === 'shoulders')?.cm).toBe(107)
    await phone.tap('button', 'Done')
    await phone.page.waitForFunction(() => !document.querySelector('[data-on-the-way]'))
  })

  it('comes to the floor, is looked at with one press and answered with a line the client reads', async () => {
    await coach.open('/')
    await coach.sees('Handed in')
    await coach.click('section[aria-label="Handed in"] a', 'Look')
    await coach.page.waitForSelector('[data-week]')
    await coach.sees('Two long outings.')
    expect(await coach.textOf('[data-girth="abdomen"]')).toContain('80.2')
    await coach.page.waitForFunction(() =>
      [...document.querySelectorAll('[data-week] img')].every((one) => (one as HTMLImageElement).naturalWidth > 0),
    )
    await coach.page.type('[name="answer"]', 'Sleep first.')
    await coach.click('button', 'Send')
    await coach.page.waitForSelector('[data-answer]')
    await studio.audit('a week from home')
    await coach.open('/')
    await coach.sees('Due, not booked')
    expect(await coach.page.$('section[aria-label="Handed in"]')).toBeNull()
    await phone.open('/hand-in')
    await phone.page.waitForSelector('[data-line]')
    await phone.sees('Sleep first.')
    await phone.tap('button', 'What I handed in')
    await phone.sees('71.4 kg')
    await fits('what was handed in')
  })

  it('another phone needs the PIN, and an ended link says so calmly', async () => {
    const second = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await second.page.goto(link, { waitUntil: 'networkidle0' })
    await second.sees('This link was opened on a phone before')
    await second.page.type('[name="pin"]', '1111')
    await second.tap('button', 'Open')
    await second.sees('This is not the PIN of this link')
    const [{ id = '' } = {}] = (await fromHome()).links
    await coach.open(`/clients/${rower.id}/from-home`)
    await coach.click('button', 'End it')
    await coach.click('button', 'Yes, end it now')
    await until(async () => (await fromHome()).links.find((one) => one.id === id)?.revokedAt !== null, Boolean)
    await second.tap('button', 'Open')
    await second.sees('This link was ended')
    await second.close()
    await phone.open('/hand-in')
    await phone.sees('This link was ended')
  })

  it('in neutral mode shows that it was handed in and no figure', async () => {
    const quiet = someClient({ name: 'Liv Ambersen', flags: ['neutral-wish'] })
    await studio.api.send('POST', '/api/clients', quiet)
    const made = await studio.api.send<{ link: string }>('POST', `/api/clients/${quiet.id}/links`, {
      scope: ['weigh-ins', 'girths'],
      days: 30,
      reason: 'The care team asks for it.',
    })
    const other = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await other.page.goto(made.body.link, { waitUntil: 'networkidle0' })
    await other.page.type('[name="pin"]', '4719')
    await other.page.type('[name="again"]', '4719')
    await other.tap('button', 'Keep this PIN')
    await other.page.waitForSelector('[data-morning]')
    await other.page.type('[name="weight"]', '61.3')
    await other.tap('button', 'Hand in')
    await other.sees('Handed in. Have a good day.')
    await other.tap('button', 'What I handed in')
    await other.page.waitForSelector('[data-handed-in] li')
    expect(await other.textOf('[data-handed-in]')).not.toMatch(/61/)
    await other.close()
  })
})
