import { writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { HTTPRequest } from 'puppeteer-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Span } from '../../core/following'
import { followRecord, spanOfRecord } from '../../shared/followed-record'
import type { ClientHistory } from '../../shared/schemas/following'
import { type Caller, LEAD, someClient } from '../support/api'
import { PHONE, VIEW, Visitor } from '../support/browser'
import { enterVisit } from '../support/visits'
import { openStudio, type Studio } from '../support/studio'

/** Folds of the first visit, laboratory seven in their order; the later visits are shares of them. */
const FIRST = [14, 12, 8, 10, 16, 20, 22]
const YEAR = new Date().getFullYear() - 34
const maren = someClient({ birthDate: `${YEAR}-01-01` })
const tobin = someClient({ name: 'Tobin Hale', sex: 'male' })
const VISITS = [
  { daysAgo: 120, values: FIRST, kg: 74 },
  { daysAgo: 90, values: FIRST.map((mm) => mm * 0.75), kg: 71.5 },
  { daysAgo: 60, values: FIRST.map((mm) => mm * 0.75 + (mm === 22 ? 0.5 : 0)), kg: 71.6 },
] as const
/** The subscapular second, as in the seven; the triceps and the others are taken elsewhere. */
const EIGHT = {
  daysAgo: 30,
  protocolId: 'kinanthropometry-8',
  values: [10.5, 9, 6, 12, 9, 15, 18, 11],
  kg: 71.4,
} as const

/** Percent fat computed here and not by the product: Jackson, Pollock & Ward 1980 with Siri 1961 at 34 years. */
function percentOf(folds: readonly number[]): number {
  const sum = folds.reduce((a, b) => a + b, 0)
  return 495 / (1.097 - 0.00046971 * sum + 0.00000056 * sum ** 2 - 0.00012828 * 34) - 450
}

/** What the later of two visits says, computed here. */
function expectedNow(place: number): Record<'sum' | 'percent' | 'fat' | 'lean' | 'weight', number> {
  const visit = VISITS[place]
  if (!visit) throw new Error('no such visit')
  const percent = percentOf(visit.values)
  const fat = (visit.kg * percent) / 100
  return { sum: visit.values.reduce((a, b) => a + b, 0), percent, fat, lean: visit.kg - fat, weight: visit.kg }
}

function signed(value: number): string {
  const text = Math.abs(value).toFixed(1)
  return Number(text) === 0 ? text : `${value < 0 ? '−' : '+'}${text}`
}

/** Chromium's own stand-in camera, allowed without asking. */
const CAMERA = ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream']

let studio: Studio
let coach: Visitor
let api: Caller
let page = ''
beforeAll(async () => {
  studio = await openStudio({ flags: CAMERA })
  ;({ coach, api } = studio)
  for (const client of [maren, tobin]) await api.send('POST', '/api/clients', client)
  for (const visit of VISITS) await enterVisit(api, maren.id, visit)
  await enterVisit(api, maren.id, EIGHT)
  page = `/clients/${maren.id}`
  await coach.open(page)
})
afterAll(() => studio.close())

async function figure(
  id: string,
): Promise<{ then: string; now: string; change: string; reason: string; verdict: string }> {
  return coach.page.$eval(`[data-figure="${id}"]`, (box) => {
    const say = (css: string) => box.querySelector(css)?.textContent.trim() ?? ''
    return {
      then: say('[data-then]'),
      now: say('[data-now]'),
      change: say('[data-change]'),
      reason: say('[data-reason]'),
      verdict: box.querySelector('[data-verdict]')?.getAttribute('data-verdict') ?? '',
    }
  })
}

/** The span between two visits from the facts the server gives: what core, tried on its own, makes of them. */
async function spanBetween(a: number, b: number) {
  const { body } = await api.send<ClientHistory>('GET', `/api/clients/${maren.id}/history`)
  const record = followRecord(body)
  const [fromId, toId] = [a, b].map((place) => record.ends[place]?.record.id ?? null)
  const { span } = spanOfRecord(record, { fromId: fromId ?? null, toId: toId ?? null })
  if (!span) throw new Error('no span')
  return span
}

/** Every figure of the page: now against the one computed above, its change against core. */
async function expectSpan(a: number, b: number): Promise<Span> {
  const span = await spanBetween(a, b)
  for (const [id, now] of Object.entries(expectedNow(b))) {
    const shown = await figure(id)
    const change = span[id as 'fat']
    if (!change) throw new Error(`${id} is not compared`)
    expect(shown.now, `${id} now`).toBe(now.toFixed(1))
    // What the page prints subtracts.
    expect(shown.change, `${id} difference`).toBe(signed(Number(shown.now) - Number(shown.then)))
    expect(shown.reason, `${id} reason`).toContain(`± ${change.error.toFixed(1)}`)
    expect(shown.verdict, `${id} verdict`).toBe(change.verdict)
  }
  return span
}

async function tab(name: string): Promise<void> {
  await coach.click(VIEW, name)
}

describe('the span', () => {
  it('refuses the percent across schools and offers the sum of the shared sites', async () => {
    await coach.sees('Measured by two schools (laboratory, kinanthropometry)')
    await coach.sees('What can be compared: subscapular and the weight.')
    await coach.sees('Subscapular alone')
    for (const id of ['fat', 'lean', 'percent']) expect((await figure(id)).change).toBe('')
    // 9 both times.
    expect(await figure('sum')).toMatchObject({ now: '9.0', change: '0.0', verdict: 'too-early' })
    await studio.audit('across schools')
  })

  it('answers to keys: of a tiny change it is too early to say anything, and a start picked afterwards is said to be one', async () => {
    await coach.page.focus('[data-jaw="to"]')
    await coach.keys('ArrowLeft')
    await coach.page.waitForSelector('[data-figure="percent"] [data-change]')
    const span = await expectSpan(1, 2)
    expect(span.sum?.verdict).toBe('too-early')
    await coach.sees('No sure change yet of fat, lean mass and weight.')
    await coach.sees('Too early to say: the sum went from')
    expect(await coach.textOf('[data-searched]')).toBe('picked after')
    await coach.sees('You picked this start after the fact, so stronger proof is asked.')
    await coach.sees('Using the usual error until yours is known.')
  })

  it('judges a big one by its whole history, each site apart', async () => {
    await coach.page.focus('[data-jaw="from"]')
    await coach.keys('Home')
    const span = await expectSpan(0, 2)
    expect(span.sum?.visits).toBe(3)
    expect(span.sum?.odds).toBeGreaterThan(3)
    expect(await coach.textOf('[data-site="thigh"] [data-change]')).toBe('−5.0')
    expect(await coach.textOf('[data-length]')).toBe('9 weeks, 3 check-ins')
    expect(await coach.page.$$eval('[data-line]', (lines) => lines.length)).toBe(3)
    expect(await coach.textOf('[data-lead]')).toMatch(/fat (went|since)|of fat/i)
    await studio.audit('span')
  })

  it('answers to dragging a jaw, and to the shortcuts', async () => {
    const place = (selector: string) =>
      coach.page.$eval(selector, (element) => {
        const { x, y, width, height } = element.getBoundingClientRect()
        return { x: x + width / 2, y: y + height / 2 }
      })
    const jaw = await place('[data-jaw="to"]')
    // Four visits, thirty days apart: the second stands at a third of the way from the first mark to the last.
    const second = await coach.page.$eval('[data-marks]', (marks) => {
      const { left, right } = marks.getBoundingClientRect()
      return left + (right - left) / 3
    })
    await coach.page.mouse.move(jaw.x, jaw.y)
    await coach.page.mouse.down()
    await coach.page.mouse.move(second + 4, jaw.y, { steps: 8 })
    await coach.page.mouse.up()
    await expectSpan(0, 1)
    await coach.click('[data-shortcuts] button', 'From the first')
    await coach.sees('Subscapular alone')
    await coach.click('[data-shortcuts] button', 'Since last time')
    await coach.page.focus('[data-jaw="to"]')
    await coach.keys('ArrowLeft')
  })

  it('keeps the words with the check-in, edited, and discards them again', async () => {
    await coach.click('[data-words] button', 'Edit and keep')
    await coach.fill('#words', 'Held well through the holidays.')
    await coach.click('[data-words] button', 'Keep with this check-in')
    await coach.sees('kept with')
    await coach.open(page)
    await coach.page.focus('[data-jaw="to"]')
    await coach.keys('ArrowLeft')
    expect(await coach.textOf('[data-kept]')).toBe('Held well through the holidays.')
    await coach.click('[data-words] button', 'Discard')
    await coach.sees('No sure change yet')
  })

  it('starts anew from the next check-in, with a line why only from there', async () => {
    expect(await coach.page.$eval('[data-pin]', (pin) => pin.ariaLabel)).toMatch(/^Pinned start, .*: start anew$/)
    await coach.click('[data-pin]')
    await coach.sees('A start has to be chosen before its first reading.')
    await studio.audit('pin')
    await coach.click('button', 'Start from the next check-in')
    await coach.page.waitForFunction(() => !document.querySelector('[data-pin-dialog]'))
    const { body } = await api.send<ClientHistory>('GET', `/api/clients/${maren.id}/history`)
    expect(body.pins).toMatchObject([{ checkinId: null }])
    await coach.open(page)
    await coach.page.focus('[data-jaw="to"]')
    await coach.keys('ArrowLeft')
  })

  it('shows no number in neutral mode', async () => {
    await coach.more('Hide numbers')
    await coach.page.waitForSelector('[data-neutral-record]')
    expect(await coach.page.$('[data-figure]')).toBeNull()
    await coach.click('[data-more]')
    expect(await coach.page.$eval('a[download]', (link) => link.getAttribute('href'))).toContain('neutral=true')
    await coach.click('[role="menu"] button', 'Show numbers')
  })
})

describe('the result of a check-in', () => {
  it('ranks every equation on one scale and records the one to follow with', async () => {
    await tab('Check-in')
    await coach.click('[data-other-equations] summary')
    await coach.sees('Every equation these readings feed')
    expect(await coach.textOf('[data-result-view] [data-percent]')).toBe(percentOf(VISITS[2].values).toFixed(1))
    expect(await coach.textOf('[data-value="thigh"] td:last-child')).toBe('17.0mm')
    const three = '[data-equation="jackson-pollock-3-women"]'
    const shown = await coach.textOf(`${three} td.figure`)
    await coach.click(`${three} button`)
    await coach.page.waitForFunction(
      (css: string) => document.querySelector(css)?.textContent.includes('followed'),
      {},
      three,
    )
    expect(await coach.textOf('[data-result-view] [data-percent]')).toBe(shown)
    await coach.sees('Chosen by Runa Bexley')
    await coach.choose('conversion', 'brozek')
    await coach.page.waitForFunction(
      (before: string) => document.querySelector('[data-result-view] [data-percent]')?.textContent !== before,
      {},
      shown,
    )
    await studio.audit('result')
    await coach.choose('conversion', 'siri')
    await coach.click('button', 'Back to each set’s own equation')
    await coach.page.waitForFunction(
      (wanted: string) => document.querySelector('[data-result-view] [data-percent]')?.textContent === wanted,
      {},
      percentOf(VISITS[2].values).toFixed(1),
    )
    // The change has its line here, and the page on its own view.
    expect(await coach.textOf('[data-folded]')).toMatch(/Sum/)
  })

  it('shows the assessor’s own error, what better technique would make of it, and the simulation agreeing', async () => {
    await tab('How sure')
    // Three repeats without a difference shrink the prior's 5 %, of weight 10.
    const share = 100 * Math.sqrt((10 * 0.05 ** 2) / 13)
    expect(await coach.textOf('[data-tem="thigh"] .figure')).toBe(share.toFixed(1))
    await coach.sees('What the error of this change is made of')
    await coach.sees('Assumed, not yet measured here')
    const shares = await coach.page.$$eval('[data-share]', (all) => all.map((one) => parseInt(one.textContent)))
    expect(Math.abs(shares.reduce((sum, one) => sum + one, 0) - 100)).toBeLessThanOrEqual(2)
    await coach.sees('What would shrink it most')
    await coach.click('[role="group"][aria-label="Folds read with a technical error of"] button', '1.5 %')
    await coach.sees('With folds read to 1.5 %')
    await coach.click('button', 'Simulate')
    await coach.page.waitForSelector('[data-simulated]')
    const [simulated = 0, gradient = 1] = await coach.page.$$eval('[data-simulated] .figure', (found) =>
      found.map((one) => Number(one.textContent)),
    )
    expect(gradient).toBeGreaterThan(0.5)
    expect(Math.abs(simulated / gradient - 1)).toBeLessThan(0.03)
    // The client's own smallest change, from which on real is not called small; nonsense is said at its field.
    await coach.fill('input[name="worthwhileFat"]', 'much')
    await coach.click('[data-worthwhile] button', 'Keep')
    await coach.sees('Please give a number, such as 0.5.')
    await coach.fill('input[name="worthwhileFat"]', '0.8')
    await coach.click('[data-worthwhile] button', 'Keep')
    await coach.sees('Kept.')
    const { body } = await api.send<ClientHistory>('GET', `/api/clients/${maren.id}/history`)
    expect(body.worthwhile.own).toEqual({ fatKg: 0.8, sumPercent: null })
    await studio.audit('error')
  })
})

describe('the views of a record', () => {
  const viewNow = () => coach.textOf(`${VIEW}[aria-current="page"]`)

  it('have addresses: back, forward, reload and a link lead to them', async () => {
    await tab('How sure')
    await coach.page.waitForSelector('[data-error-view]')
    await tab('Weight')
    await coach.page.waitForSelector('[data-diary]')
    expect(new URL(coach.page.url()).pathname).toBe(`${page}/diary`)
    await coach.page.goBack()
    await coach.page.waitForSelector('[data-error-view]')
    expect(await viewNow()).toBe('How sure')
    await coach.page.goForward()
    await coach.page.waitForSelector('[data-diary]')
    await coach.page.reload()
    await coach.page.waitForSelector('[data-diary]')
    expect(await viewNow()).toBe('Weight')
    // Moving between the views fetches nothing anew.
    const histories = () =>
      coach.page.evaluate(
        () => performance.getEntriesByType('resource').filter(({ name }) => name.endsWith('/history')).length,
      )
    const before = await histories()
    for (const view of ['How sure', 'Plan', 'Change']) await tab(view)
    await coach.page.waitForSelector('[data-words]')
    expect(await histories()).toBe(before)
    await coach.page.goto(`${studio.server.address}${page}/check-ins`)
    await coach.page.waitForSelector('[aria-label="Check-ins"] table')
    expect(await viewNow()).toBe('All check-ins')
  })
})

describe('the weight diary', () => {
  const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10)

  it('shows a paste line by line, stores nothing of it while a line is wrong, then all', async () => {
    await tab('Weight')
    await coach.click('button', 'Paste a diary')
    const lines = [
      `${day(9)} 71,4`,
      `${day(8)} 71.2 kg`,
      `${day(8)} 71.9`,
      `${day(7)} 157`,
      `${day(6)}`,
      `2999-01-01 71`,
      `${day(5)} 71.0`,
    ]
    await coach.fill('textarea[name="paste"]', lines.join('\n'))
    await coach.sees('Line 2 is of the same day')
    await coach.sees('is 157 in lb?')
    await coach.sees('This day is still to come.')
    await coach.sees('No weight on this day: left out.')
    expect(
      await coach.page.$eval('[data-paste] .press-first[disabled]', (button) => button.textContent.trim()),
    ).toContain('Store')
    await studio.audit('paste')
    for (const line of [3, 6]) await coach.click(`[data-line="${line}"] button`)
    await coach.fill(
      'textarea[name="paste"]',
      lines
        .filter((_, i) => i !== 2 && i !== 5)
        .join('\n')
        .replace(' 157', ' 157 lb'),
    )
    await coach.click('button', 'Store 4 weigh-ins')
    await coach.sees('4 kept')
    expect(await coach.textOf(`[data-weigh-in="${day(7)}"] .figure`)).toBe((157 * 0.45359237).toFixed(1))
  })

  it('takes one typed, refuses a second for the day, strikes one', async () => {
    await coach.fill('input[name="weighIn"]', '712')
    await coach.keys('Enter')
    await coach.sees('A weight lies between')
    await coach.fill('input[name="weighIn"]', '71.1')
    await coach.keys('Enter')
    await coach.sees('5 kept')
    await coach.fill('input[name="weighIn"]', '71.3')
    await coach.keys('Enter')
    await coach.sees('hold a weigh-in already')
    const [newest] = await coach.page.$$eval('[data-weigh-in]', (rows) =>
      rows.map((row) => row.getAttribute('data-weigh-in')),
    )
    await coach.click(`[data-weigh-in="${newest}"] button`)
    await coach.sees('4 kept')
  })

  it('takes today’s weight from the scale’s button', async () => {
    const scale = await coach.page.browserContext().newPage()
    await scale.goto(`${studio.server.address}/devices/scale`, { waitUntil: 'networkidle0' })
    for (const words of ['Step on', 'Press']) {
      await scale.evaluate((text) => {
        const button = [...document.querySelectorAll('button')].find((one) => one.textContent.trim() === text)
        button?.click()
      }, words)
    }
    await coach.sees('5 kept')
    await coach.sees('scale')
    await scale.close()
    await studio.audit('diary')
  })
})

describe('photographs', () => {
  async function pictureFile(colour: string): Promise<string> {
    const file = join(tmpdir(), `oak-pinch-${colour.slice(1)}.jpg`)
    const body = Buffer.from(
      `<svg width="600" height="900"><rect width="600" height="900" fill="#ddd"/><ellipse cx="300" cy="450" rx="120" ry="380" fill="${colour}"/></svg>`,
    )
    writeFileSync(file, await sharp(body).jpeg().toBuffer())
    return file
  }

  async function upload(file: string): Promise<void> {
    const input = await coach.page.waitForSelector('input[name="photo"]')
    await (input as unknown as { uploadFile(path: string): Promise<void> }).uploadFile(file)
    await coach.click('button', 'Keep')
  }

  it('cannot be taken without consent on record', async () => {
    await tab('Photos')
    await coach.sees('Consent to photographs is not on record.')
    expect(await coach.page.$('[data-pose] button')).toBeNull()
    await coach.click('[data-no-consent] a', 'Change')
    await coach.click('input[name="photoConsented"]')
    await coach.click('form button', 'Keep changes')
    await coach.at(page)
  })

  /** From now on the page waits for what ends so, until the function given is called. */
  async function heldBack(ending: string): Promise<() => Promise<void>> {
    const held: HTTPRequest[] = []
    const hold = (request: HTTPRequest) => {
      if (request.url().endsWith(ending)) held.push(request)
      else void request.continue()
    }
    await coach.page.setRequestInterception(true)
    coach.page.on('request', hold)
    return async () => {
      coach.page.off('request', hold)
      for (const request of held) await request.continue()
      await coach.page.setRequestInterception(false)
    }
  }

  it('are added with last time’s outline over them, aligned, compared and taken away', async () => {
    await tab('Change')
    await coach.page.waitForSelector('[data-jaw="to"]')
    // First at the check-in before the last one of the same set, then at the one after it.
    for (const [place, colour] of [
      ['before', '#7d8c92'],
      ['last', '#6f7f86'],
    ] as const) {
      await tab('Change')
      await coach.click('[data-shortcuts] button', 'Since last time')
      if (place === 'before') {
        await coach.page.focus('[data-jaw="to"]')
        await coach.keys('ArrowLeft')
      }
      await tab('Photos')
      const letOutlineCome = place === 'last' ? await heldBack('/address') : null
      await coach.click('[data-pose="front"] button', 'Add front')
      if (letOutlineCome) {
        const top = () =>
          coach.page.$eval('[role="dialog"] input[name="photo"]', (field) => field.getBoundingClientRect().top)
        await coach.page.waitForSelector('[role="dialog"] input[name="photo"]')
        const before = await top()
        await letOutlineCome()
        await coach.page.waitForSelector('[data-ghost]')
        expect(await top(), 'what is pressed stays where it was').toBe(before)
        await studio.audit('taking')
      }
      await upload(await pictureFile(colour))
      await coach.page.waitForFunction(() => !document.querySelector('[role="dialog"]'))
      await coach.page.waitForSelector('[data-pose="front"] [data-photo]')
    }
    expect(await coach.page.$$eval('[data-pose="front"] [data-photo]', (found) => found.length)).toBe(2)
    await coach.click('input[name="align"]')
    await coach.page.focus('[data-pose="front"] figure:last-child [data-photo]')
    await coach.keys('ArrowRight', 'ArrowRight', 'ArrowDown')
    await coach.page.waitForFunction(() =>
      [...document.querySelectorAll<HTMLElement>('[data-photo] img')].some(({ style }) =>
        style.transform.includes('translate(2%, 1%)'),
      ),
    )
    await studio.audit('photographs')
    await coach.click('button', 'Slider')
    await coach.page.waitForSelector('input[type="range"]')
    await studio.audit('slider')
    await coach.click('button', 'Side by side')
    await coach.click('[aria-label="Take away front, now"]')
    await coach.click('button', 'delete for good')
    await coach.page.waitForFunction(() => document.querySelectorAll('[data-pose="front"] [data-photo]').length === 1)
  })

  it('are taken with the camera, conditions repeated', async () => {
    await coach.click('[data-pose="back"] button', 'Add back')
    await coach.click('[role="dialog"] button', 'daylight')
    await coach.click('[role="dialog"] button', 'Camera')
    await coach.page.waitForFunction(() => (document.querySelector('video')?.videoWidth ?? 0) > 0)
    await coach.click('[role="dialog"] button', 'Take')
    await coach.page.waitForSelector('[role="dialog"] img[alt="The photograph as chosen"]')
    await coach.click('[role="dialog"] button', 'Keep')
    await coach.page.waitForSelector('[data-pose="back"] [data-photo]')
    const { body } = await api.send<ClientHistory>('GET', `/api/clients/${maren.id}/history`)
    expect(body.photos.at(-1)).toMatchObject({
      pose: 'back',
      conditions: { light: 'daylight', place: 'usual' },
    })
  })

  it('says what is wrong with a file that is no picture', async () => {
    await coach.click('[data-pose="front"] button', 'Add front')
    const file = join(tmpdir(), 'oak-pinch-diary.jpg')
    writeFileSync(file, 'Dear diary')
    await upload(file)
    await coach.sees('This file is not a photograph')
    await coach.click('button', 'Leave')
  })
})

describe('clients and phone', () => {
  it('sorts, filters and finds clients with their figures and verdicts', async () => {
    await coach.open('/clients')
    await coach.sees('2 shown')
    const names = () => coach.page.$$eval('[data-client]', (rows) => rows.map((row) => row.getAttribute('data-client')))
    expect(await names()).toEqual(['Maren Osk', 'Tobin Hale'])
    await coach.click('th button', 'Name')
    await coach.page.waitForFunction(
      () => document.querySelector('[data-client]')?.getAttribute('data-client') === 'Tobin Hale',
    )
    // The pin stands at the newest check-in: nothing is claimed since, and the sum of today's set stands there.
    expect(await coach.page.$$('[data-client] [data-verdict]')).toHaveLength(0)
    await coach.sees(EIGHT.values.reduce((a, b) => a + b, 0).toFixed(1))
    await coach.click('button', 'Not measured yet')
    await coach.sees('1 shown')
    expect(await names()).toEqual(['Tobin Hale'])
    await coach.click('button', 'Due')
    // Somebody never measured is due as well as somebody whose day has come.
    await coach.sees('2 shown')
    expect(await names()).toEqual(['Tobin Hale', 'Maren Osk'])
    await studio.audit('clients')
    await coach.page.type('input[aria-label="Find by name"]', 'zz')
    await coach.sees('Nobody here is called “zz”.')
  })

  it('keeps every view within a phone', async () => {
    const phone = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await phone.signIn(LEAD)
    await phone.open(page)
    await phone.sees('What can be compared')
    for (const view of ['Change', 'Check-in', 'Weight', 'Photos', 'How sure', 'All check-ins']) {
      await phone.tap(VIEW, view)
      expect(await phone.overflow(), view).toBeLessThanOrEqual(0)
      expect(await phone.seriousFindings(), view).toEqual([])
    }
    await phone.open('/clients')
    expect(await phone.overflow()).toBeLessThanOrEqual(0)
    expect(await phone.seriousFindings()).toEqual([])
    await phone.close()
  })
})
