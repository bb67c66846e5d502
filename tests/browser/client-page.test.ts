import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ClientHistory } from '../../shared/schemas/following'
import type { Client } from '../../shared/schemas/client'
import { someClient, type Caller } from '../support/api'
import { VIEW, type Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'
import { enterVisit } from '../support/visits'

const FOLDS = [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24]

let studio: Studio
let coach: Visitor
let api: Caller
beforeAll(async () => {
  studio = await openStudio()
  ;({ coach, api } = studio)
})
afterAll(() => studio.close())

const words = () => coach.page.evaluate(() => document.body.innerText)

describe('neutral mode', () => {
  it('is left only with a reason, which goes on record; the list shows no figure of theirs', async () => {
    const client = someClient({ name: 'Neutral Rower', flags: ['eating-disorder'] })
    await api.send('POST', '/api/clients', client)
    for (const daysAgo of [30, 2]) await enterVisit(api, client.id, { daysAgo, values: FOLDS, kg: 60 })
    await coach.open('/clients')
    const row = () => coach.textOf('[data-client="Neutral Rower"]')
    expect(await row()).toContain('neutral')
    // The sum and its difference alone.
    expect(await row()).not.toMatch(/60\.0|\d+\.\d.*\d+\.\d.*\d+\.\d/)
    await coach.open(`/clients/${client.id}`)
    await coach.page.waitForSelector('[data-neutral-record]')
    expect(await words()).not.toMatch(/60\.0|Lean|Sum of|\d ?(mm|kg|cm|%)/)
    await coach.sees('no body measuring unless the care team asks')
    await coach.click('button', 'Write')
    await coach.fill('#trained', 'Calm starts, well rowed. The sum is down 3 mm.')
    await coach.sees('Sentences with figures or about the body are left out.')
    await coach.click('button', 'Keep')
    await coach.page.waitForSelector('[data-trained]')
    expect(await coach.textOf('[data-trained]')).toBe('Calm starts, well rowed.')
    await studio.audit('a neutral record')
    // The coach's own look: folds at one press, percent and masses with a reason.
    await coach.more('Show numbers')
    await coach.sees('Sum of')
    expect(await words()).not.toMatch(/60\.0|Lean/)
    await coach.more('Percent and masses')
    await coach.sees('Show numbers for Neutral Rower?')
    await studio.audit('leaving neutral mode')
    await coach.click('button', 'Show numbers')
    await coach.sees('Please say why.')
    await coach.fill('[name="neutralReason"]', 'The doctor asked for the weight.')
    await coach.click('button', 'Show numbers')
    await coach.sees('Lean')
    await coach.open('/studio/record')
    await coach.sees('left neutral mode')
  })
})

describe('consent', () => {
  it('is noted where measuring is prepared, and measuring goes on', async () => {
    const client = someClient({ name: 'Young Sculler', birthDate: '2011-03-14', consentOn: null })
    await api.send('POST', '/api/clients', client)
    await coach.open(`/clients/${client.id}/measure`)
    await coach.sees('Waits for the client’s consent')
    await studio.audit('waiting for consent')
    await coach.click('input[name="consentHere"]')
    await coach.click('input[name="guardianHere"]')
    await coach.fill('[name="guardianNameHere"]', 'Hild Sculler')
    await coach.click('input[value="a chaperone"]')
    await coach.click('button', 'Note consent')
    await coach.click('button', 'Start')
    await coach.click('button', 'Skip marking')
    await coach.measuring()
    const kept = (await api.send<Client>('GET', `/api/clients/${client.id}`)).body
    expect(kept.guardianConsent).toBe(true)
    expect(kept.consentOn).not.toBeNull()
    expect(kept.notes).toMatch(/Consent talked through on .*; offered: a chaperone\./)
  })
})

describe('a client followed by tape', () => {
  it('has a page of what the tape yields: figures, a chart and girths, no empty tile', async () => {
    const client = someClient({ name: 'Tape Rower', heightCm: null })
    await api.send('POST', '/api/clients', client)
    const values = [34, 104, 88, 78, 80, 82, 88, 96, 55, 52, 36, 28, 30, 25, 16, 22]
    for (const [i, daysAgo] of [60, 30, 2].entries()) {
      await enterVisit(api, client.id, {
        daysAgo,
        protocolId: 'full-tape',
        values: values.map((cm) => cm - i),
        kg: null,
      })
    }
    await coach.open(`/clients/${client.id}`)
    await coach.page.waitForSelector('[data-figures]')
    expect(await coach.textOf('[data-figures]')).not.toContain('not known')
    const figures = await coach.page.$$eval('[data-figure]', (all) => all.map((one) => one.getAttribute('data-figure')))
    expect(figures).toContain('waist')
    expect(await coach.textOf('[data-figure="waist"] [data-change]')).toMatch(/[−-]/)
    await coach.page.waitForSelector('[role="img"] canvas')
    await studio.audit('a tape client')
  })
})

describe('a check-in', () => {
  it('is voided with a reason and stays on the page as such', async () => {
    const client = someClient({ name: 'Void Rower' })
    await api.send('POST', '/api/clients', client)
    for (const daysAgo of [30, 2]) await enterVisit(api, client.id, { daysAgo, values: FOLDS, kg: 60 })
    await coach.open(`/clients/${client.id}`)
    await coach.sees('All check-ins')
    await coach.click(VIEW, 'All check-ins')
    await coach.page.waitForFunction(() =>
      [...document.querySelectorAll('button')].some((one) => one.textContent?.trim().startsWith('void')),
    )
    await coach.page.evaluate(() =>
      [...document.querySelectorAll('button')].find((one) => one.textContent?.trim().startsWith('void'))?.click(),
    )
    await coach.fill('[name="voidReason"]', 'Another client stood there.')
    await coach.click('button', 'Void it')
    await coach.page.waitForSelector('[data-voided]')
    const { body } = await until(
      () => api.send<ClientHistory>('GET', `/api/clients/${client.id}/history`),
      ({ body: found }) => found.checkins.length === 1,
    )
    expect(body.voided).toHaveLength(1)
  })
})

/** A jaw on its way passes weeks of other noises: the chart is drawn anew when it stands, and not before. */
async function leavesTheChartToAMovingJaw(): Promise<void> {
  await coach.page.evaluate(() => {
    const seen = { drawn: 0, drawnOnTheWay: 0, pause: 0, at: 0 }
    Object.assign(globalThis, { seen })
    const { clearRect } = CanvasRenderingContext2D.prototype
    CanvasRenderingContext2D.prototype.clearRect = function counted(...box) {
      seen.drawn += 1
      clearRect.apply(this, box)
    }
    addEventListener('keydown', ({ timeStamp }) => {
      if (seen.at > 0) seen.pause = Math.max(seen.pause, timeStamp - seen.at)
      Object.assign(seen, { at: timeStamp, drawnOnTheWay: seen.drawn })
    })
  })
  const seen = () =>
    coach.page.evaluate(() => ({ ...(globalThis as unknown as { seen: Record<string, number> }).seen }))
  let key: 'ArrowLeft' | 'ArrowRight' = 'ArrowRight'
  const onItsWay = async () => {
    await coach.page.evaluate(() => {
      Object.assign((globalThis as unknown as { seen: object }).seen, { drawn: 0, drawnOnTheWay: 0, pause: 0, at: 0 })
    })
    key = key === 'ArrowLeft' ? 'ArrowRight' : 'ArrowLeft'
    for (let i = 0; i < 30; i += 1) await coach.page.keyboard.press(key)
    const moved = await seen()
    await until(seen, ({ drawn = 0 }) => drawn > 0)
    return moved
  }
  await coach.page.focus('[data-jaw="to"]')
  await onItsWay()
  // On a busy machine a key can come so late that the jaw has stood.
  const moved = await until(onItsWay, ({ pause = Infinity }) => pause < 200)
  expect(moved.drawnOnTheWay).toBe(0)
}

describe('a history of years', () => {
  it('has its chart on the screen before it is judged', async () => {
    const client = someClient({ name: 'Years Rower' })
    await api.send('POST', '/api/clients', client)
    for (let week = 62; week > 0; week -= 1) {
      const values = FOLDS.map((mm) => mm * (1 + week / 200))
      await enterVisit(api, client.id, { daysAgo: 7 * week, values, kg: 60 })
    }
    const seen = await coach.page.evaluateOnNewDocument(() => {
      const order: string[] = []
      const tabsAt = new Set<number>()
      Object.assign(globalThis, { order, tabsAt })
      const note = (what: string, is: boolean) => is && !order.includes(what) && order.push(what)
      new MutationObserver(() => {
        note('figures', document.querySelector('[data-figure="sum"] [data-now]') !== null)
        // It watches from before there is a body.
        const said = (document.body as HTMLElement | null)?.innerText ?? ''
        note('said that it is read', said.includes('Reading the whole history'))
        const hasChart = document.querySelector('[role="img"] canvas') !== null
        if (hasChart) requestAnimationFrame(() => note('chart on the screen', true))
        note('judged', document.querySelector('[data-figure="sum"] [data-change]') !== null)
        const tabs = document.querySelector('nav[aria-label="Views of the record"]')
        if (tabs) tabsAt.add(Math.round(tabs.getBoundingClientRect().y))
      }).observe(document, { childList: true, subtree: true })
    })
    const facts = await api.send<ClientHistory>('GET', `/api/clients/${client.id}/history`)
    expect(facts.body.opening?.sum).toHaveLength(62)
    await coach.load(`/clients/${client.id}`)
    await coach.page.waitForSelector('[data-figure="sum"] [data-change]')
    // Asked for by the page itself before there was any code, and not again by the code.
    const asked = await coach.page.evaluate(() =>
      performance.getEntriesByType('resource').map(({ name }) => new URL(name).pathname),
    )
    for (const path of ['/api/me', `/api/clients/${client.id}/history`]) {
      expect(asked.filter((name) => name === path)).toHaveLength(1)
    }
    await coach.page.removeScriptToEvaluateOnNewDocument(seen.identifier)
    const order = await coach.page.evaluate(() => (globalThis as unknown as { order: string[] }).order)
    expect(order.indexOf('chart on the screen')).toBeGreaterThan(-1)
    expect(order.indexOf('judged')).toBeGreaterThan(order.indexOf('chart on the screen'))
    expect(order.indexOf('said that it is read')).toBeGreaterThan(-1)
    // What is judged comes into room that was kept: nobody presses beside a tab.
    const tabsAt = await coach.page.evaluate(() => [...(globalThis as unknown as { tabsAt: Set<number> }).tabsAt])
    expect(tabsAt).toHaveLength(1)
    expect(await words()).not.toContain('Reading the whole history')
    await coach.sees('real')
    await leavesTheChartToAMovingJaw()
    // A view without that chart waits for none.
    await coach.open(`/clients/${client.id}/error`)
    await coach.page.waitForSelector('[data-sure-of="sum"] [data-best]')
  })

  it('starts from code without what only forms and unsent facts need', async () => {
    const start = await coach.page.evaluate(async () => {
      const { src } = document.querySelector('script[type="module"][src]') as HTMLScriptElement
      return (await fetch(src)).text()
    })
    // Vue is in it; Zod's and Dexie's own names are not.
    expect(start).toContain('__vue_app__')
    expect(start).not.toMatch(/_zod|DexieError/)
    // It comes once the page rests, while there is a network.
    await until(
      () =>
        coach.page.evaluate(async () => {
          const scripts = performance.getEntriesByType('resource').filter(({ name }) => name.endsWith('.js'))
          const texts = await Promise.all(scripts.map(async ({ name }) => (await fetch(name)).text()))
          return texts.some((text) => text.includes('DexieError'))
        }),
      (isThere) => isThere,
    )
  })
})
