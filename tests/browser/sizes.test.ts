import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuid } from 'uuid'
import { someClient, type Caller } from '../support/api'
import type { Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'

const FOLDS = [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24]

let studio: Studio
let coach: Visitor
let api: Caller
beforeAll(async () => {
  studio = await openStudio()
  ;({ coach, api } = studio)
  await api.send('PUT', '/api/me/habits', { skipMarking: true, cover: 'never' })
})
afterAll(() => studio.close())

/** Elements of the screen that are needed for the next press and are not whole in sight: outside it, cut or covered. */
function hidden(selectors: string[]): Promise<string[]> {
  return coach.page.evaluate((wanted) => {
    const trouble: string[] = []
    for (const selector of wanted) {
      for (const element of document.querySelectorAll<HTMLElement>(selector)) {
        const box = element.getBoundingClientRect()
        if (box.width === 0 || box.height === 0) continue
        const name = `${selector} ${element.textContent?.trim().slice(0, 20)}`
        if (box.left < -1 || box.top < -1 || box.right > innerWidth + 1 || box.bottom > innerHeight + 1) {
          trouble.push(`${name}: outside (${[box.left, box.top, box.right, box.bottom].map(Math.round)})`)
          continue
        }
        const corners = [
          [box.left + 3, box.top + 3],
          [box.right - 3, box.bottom - 3],
          [box.left + box.width / 2, box.top + box.height / 2],
        ] as const
        for (const [x, y] of corners) {
          const seen = document.elementFromPoint(x, y)
          if (!seen || (seen !== element && !element.contains(seen) && !seen.contains(element))) {
            trouble.push(`${name}: covered by ${seen?.tagName} ${seen?.className} at ${Math.round(x)},${Math.round(y)}`)
            break
          }
        }
      }
    }
    return trouble
  }, selectors)
}

const NEEDED = [
  '.key',
  'tr.current th',
  'tr.current .typing',
  '[data-entry]',
  'section[aria-label="Entry"] h2',
  'header h1',
]

describe.each([
  ['a tablet sideways', { width: 1024, height: 768 }],
  ['a tablet upright', { width: 820, height: 1180 }],
  ['a phone upright', { width: 390, height: 844, hasTouch: true }],
  ['a phone sideways', { width: 844, height: 390, hasTouch: true }],
  ['a desktop', { width: 1280, height: 800 }],
  ['a desktop at 200 %', { width: 640, height: 400, deviceScaleFactor: 2 }],
])('%s', (name, viewport) => {
  it('takes a whole check-in, every key and the current cell in sight, nothing moving under the finger', async () => {
    const client = someClient({ name: 'Maximiliane Osk-Lindqvane' })
    await api.send('POST', '/api/clients', client)
    const { body } = await api.send<{ id: string }>('POST', `/api/clients/${client.id}/checkins`, {
      id: uuid(),
      protocolId: 'laboratory-7',
      startedAt: new Date().toISOString(),
    })
    await coach.page.setViewport(viewport)
    await coach.page.goto(`${studio.server.address}/measure/${body.id}`, { waitUntil: 'domcontentloaded' })
    await coach.measuring()
    const keep = () => coach.page.$eval('.key-keep', (key) => Math.round(key.getBoundingClientRect().top))
    const place = await keep()
    await coach.enter(71.4)
    for (const [i, value] of [...FOLDS, ...FOLDS].entries()) {
      if (i === 0 && 'hasTouch' in viewport) await coach.tapIn(value)
      else await coach.enter(value)
      if (i === 2 || i === 9) {
        expect(await hidden(NEEDED), `${name}, reading ${i + 2}`).toEqual([])
        expect(await coach.overflow()).toBeLessThanOrEqual(0)
      }
      if (i < 13) expect(await keep(), `${name}, Keep after reading ${i + 1}`).toBe(place)
      // A warning comes and goes above the keys.
      if (i === 3) {
        await coach.enter(125)
        expect(await keep(), `${name}, Keep beside a warning`).toBe(place)
        for (let n = 0; n < 3; n += 1) await coach.keys('Backspace')
      }
    }
    await coach.page.waitForSelector('[data-percent]')
    const cut = await coach.page.$$eval('[data-result], [data-result] *', (all) =>
      all
        .filter((one) => one.scrollWidth > one.clientWidth + 1 && getComputedStyle(one).display !== 'inline')
        .map((one) => one.outerHTML.slice(0, 80)),
    )
    expect(cut, `${name}, result cut`).toEqual([])
    expect(await coach.seriousFindings()).toEqual([])
    await coach.click('button', 'Done')
    await coach.at(`/clients/${client.id}`)
    expect(await coach.overflow(), `${name}, client`).toBeLessThanOrEqual(0)
    await coach.open(`/clients/${client.id}/measure`)
    await coach.page.waitForSelector('[aria-labelledby="conditions"]')
    expect(await coach.overflow(), `${name}, prepare`).toBeLessThanOrEqual(0)
  })
})
