import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import type { ClientHistory } from '../../shared/schemas/following'
import { someClient } from '../support/api'
import { PHONE, VIEW, Visitor } from '../support/browser'
import { LEAD } from '../support/api'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'
import { enterVisit } from '../support/visits'

const FOLDS = [16, 14, 10, 12, 18, 22, 26]
const today = new Date().toISOString().slice(0, 10)

let studio: Studio
let coach: Visitor
beforeAll(async () => {
  studio = await openStudio()
  coach = studio.coach
})
afterAll(() => studio.close())

async function measured(name: string, change: Parameters<typeof someClient>[0] = {}): Promise<string> {
  const client = someClient({ name, ...change })
  await studio.api.send('POST', '/api/clients', client)
  await enterVisit(studio.api, client.id, { daysAgo: 60, values: FOLDS, kg: 75 })
  await enterVisit(studio.api, client.id, { daysAgo: 2, values: FOLDS.map((mm) => mm * 0.97), kg: 74.2 })
  return client.id
}
const historyOf = async (id: string) => (await studio.api.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body

async function openEnergy(id: string, whole = true) {
  await coach.open(`/clients/${id}/energy`)
  if (whole) await coach.page.waitForSelector('[data-energy]')
}
/** Looks past neutral mode, with a reason. */
async function shownWhole() {
  await coach.page.waitForSelector('[data-neutral-record]')
  await coach.more('Show numbers')
  await coach.more('Percent and masses')
  await coach.fill('[name="neutralReason"]', 'The care team asks for it.')
  await coach.click('button', 'Show numbers')
  // What lies under the dialog takes no click before it has closed.
  await coach.page.waitForFunction(() => document.querySelector('[role="dialog"]') === null)
}
const kcalOf = async (source: string) =>
  Number((await coach.textOf(`[data-source="${source}"] .figure`)).replaceAll(',', ''))

describe('the offer', () => {
  it('is made by a lead who has read and accepted the page on scope of practice', async () => {
    const id = await measured('Sanna Quill')
    await coach.open(`/clients/${id}/energy`)
    await coach.sees('This studio does not offer energy and macros.')
    await coach.click('a', 'Reference')
    await coach.at('/reference/sites')
    expect(await coach.page.$$eval('nav a', (all) => all.map((one) => one.textContent?.trim()))).not.toContain(
      'Label reader',
    )
    await coach.open('/studio')
    await coach.click('button', 'Read the page')
    await coach.sees('Prescribing a diet')
    expect(
      await coach.page.$eval('[data-energy-offer] button.press-first', (one) => (one as HTMLButtonElement).disabled),
    ).toBe(true)
    await coach.click('input[name="scope"]')
    await coach.click('button', 'Offer it')
    await coach.sees('Offered since')
    await studio.audit('the offer')
  })
})

describe('what a client uses', () => {
  let id = ''
  beforeAll(async () => {
    id = await measured('Maren Osk')
    await openEnergy(id)
  })

  it('shows every source on one scale, and a day once somebody says how active they are', async () => {
    expect(await coach.page.$$eval('[data-source]', (all) => all.length)).toBe(7)
    const resting = await kcalOf('resting')
    expect(resting).toBeCloseTo(((await kcalOf('mifflin-st-jeor')) + (await kcalOf('cunningham-1991'))) / 2, -1)
    await coach.fill('input[name="trainingHours"]', '90')
    await coach.click('[data-activity] button', 'Take these')
    await coach.sees('from 0 to 40')
    await coach.fill('input[name="trainingHours"]', '7')
    await coach.click('[data-activity] button', 'Take these')
    await coach.page.waitForSelector('[data-source="predicted"]')
    expect((await kcalOf('predicted')) / resting).toBeCloseTo(1.4 + 5.1 / 24, 2)
    await studio.audit('expenditure')
  })

  it('says at the field what is wrong with a day, and keeps what was typed', async () => {
    await coach.fill('input[name="intake"]', '200')
    await coach.click('[data-intakes] button', 'Add')
    await coach.sees('is it the whole day?')
    expect(await coach.page.$eval('input[name="intake"]', (one) => (one as HTMLInputElement).value)).toBe('200')
    await coach.fill('input[name="intake"]', '20000')
    await coach.click('[data-intakes] button', 'Add')
    await coach.sees('More than 10,000 kcal')
  })

  it('takes a pasted log whole, and then holds an observed expenditure against the predicted one', async () => {
    await coach.click('[data-intakes] button', 'Paste a log')
    const days = Array.from({ length: 50 }, (_, i) => `${addDays(today, -58 + i)}\t${2100 + 10 * (i % 7)}`)
    await coach.fill('[data-paste] textarea', `${days.slice(0, 1).join('\n')}\n31.02.2026 2000`)
    await coach.sees('There is no such day.')
    await coach.page.$eval(
      '[data-paste] textarea',
      (field, text) => {
        ;(field as HTMLTextAreaElement).value = text
        field.dispatchEvent(new Event('input', { bubbles: true }))
      },
      days.join('\n'),
    )
    await coach.click('[data-paste] button', 'Store 50 days')
    await coach.page.waitForSelector('[data-source="observed"]')
    const [observed, both, predicted] = [await kcalOf('observed'), await kcalOf('believed'), await kcalOf('predicted')]
    expect(Math.min(observed, predicted)).toBeLessThanOrEqual(both)
    expect(Math.max(observed, predicted)).toBeGreaterThanOrEqual(both)
    expect((await historyOf(id)).intakes).toHaveLength(50)
  })

  it('forecasts what an intake comes to, with the rule of thumb beside it, and stops at a limit without a line', async () => {
    await coach.fill('input[name="eats"]', '1900')
    await coach.fill('input[name="goal"]', '72')
    await coach.page.waitForSelector('[data-arrives]')
    await coach.sees('The rule of thumb says')
    await coach.page.waitForSelector('[data-what-if] canvas')
    await coach.fill('input[name="eats"]', '1100')
    await coach.page.waitForSelector('[data-limit="floor"]')
    await coach.sees('is under 1,200 for women')
    expect(await coach.page.$('[data-what-if] canvas')).toBeNull()
    expect(await coach.page.$('[data-macros]')).toBeNull()
    await coach.fill('input[name="goal"]', '80')
    await coach.fill('input[name="eats"]', '1900')
    await coach.sees('That is above today, and this intake loses.')
  })

  it('finds the intake for a target by a day, and refuses a day that has gone', async () => {
    await coach.fill('input[name="goal"]', '73')
    await coach.fill('input[name="goalDay"]', addDays(today, -3))
    await coach.click('[data-solve]')
    await coach.sees('a week or more from today')
    await coach.fill('input[name="goalDay"]', addDays(today, 70))
    await coach.click('[data-solve]')
    await coach.page.waitForSelector('[data-arrives]')
    expect(await coach.textOf('[data-arrives]')).toMatch(/after (9|10) weeks/)
  })

  it('splits the day, and says what cannot be', async () => {
    expect(await coach.page.$$eval('[data-nutrient]', (all) => all.length)).toBe(3)
    await coach.click('[data-macros] button', 'by weight, endurance')
    await coach.fill('input[name="carbohydrate"]', '10')
    await coach.page.waitForSelector('[data-no-mix]')
    expect(await coach.textOf('[data-no-mix]')).toContain('too many')
    await studio.audit('the energy view')
  })

  it('is kept as the plan, whose check-ins are held against its bent course', async () => {
    await coach.click('[data-keep-plan]')
    await coach.at(`/clients/${id}/plan`)
    await coach.page.waitForSelector('[data-plan-intake]')
    expect((await historyOf(id)).plans[0]?.energy?.intakeKcal).toBeGreaterThan(1500)
  })

  it('lets the end of a straight plan be dragged, or moved with the arrow keys', async () => {
    await coach.click('button', 'Set another')
    await coach.fill('input[name="value"]', '12')
    await coach.fill('input[name="perWeek"]', '0.2')
    await coach.page.waitForSelector('[data-drag-end]')
    // What it means on the plate stands beside it.
    expect(await coach.textOf('[data-plan-means]')).toMatch(
      /On the plate about [12],\d{3} kcal a day|kcal a day is under/,
    )
    const value = () => coach.page.$eval('input[name="value"]', (one) => (one as HTMLInputElement).value)
    const pace = () => coach.page.$eval('input[name="perWeek"]', (one) => (one as HTMLInputElement).value)
    await coach.page.focus('[data-drag-end]')
    await coach.keys('ArrowUp', 'ArrowUp')
    await until(value, (now) => now === '12.2')
    const before = Number(await pace())
    const box = await (await coach.page.$('[data-drag-end]'))?.boundingBox()
    if (!box) throw new Error('no handle')
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
    await coach.page.mouse.move(x, y)
    await coach.page.mouse.down()
    await coach.page.mouse.move(x - 60, y - 30, { steps: 4 })
    await coach.page.mouse.up()
    await until(value, (now) => Number(now) > 12.3)
    expect(Number(await pace())).not.toBe(before)
    await studio.audit('a plan being set')
  })
})

describe('somebody who may have no deficit', () => {
  it('is shown none, whatever is typed, and gains like anybody', async () => {
    const id = await measured('Liv Ambersen', { flags: ['pregnant'] })
    await openEnergy(id, false)
    await shownWhole()
    await coach.page.waitForSelector('[data-personal]')
    await coach.fill('input[name="trainingHours"]', '3')
    await coach.click('[data-activity] button', 'Take these')
    await coach.page.waitForSelector('[data-what-if]')
    await coach.fill('input[name="eats"]', '1700')
    // No percent, so no forecast at all; and no grams for a day that is less than is used.
    expect(await coach.page.$('[data-what-if] canvas')).toBeNull()
    expect(await coach.page.$('[data-macros]')).toBeNull()
    const minor = await measured('Tobin Hale', { birthDate: addDays(today, -16 * 365), guardianConsent: true })
    await openEnergy(minor, false)
    await shownWhole()
    await coach.page.waitForSelector('[data-minor]')
    expect(await coach.page.$('[data-expenditure]')).toBeNull()
    expect(await coach.page.$('[data-keep-plan]')).toBeNull()
  })

  it('is not shown a plan to lose that was kept before, neither there nor on the span', async () => {
    const id = await measured('Oskar Brandeth')
    const [start] = (await historyOf(id)).checkins
    const plan = { id: crypto.randomUUID(), checkinId: start?.id, kind: 'sum', value: 90, perWeek: 1, unit: 'mm' }
    await studio.api.send('POST', `/api/clients/${id}/plans`, plan)
    await coach.open(`/clients/${id}`)
    await coach.page.waitForSelector('[data-plan-line]')
    const { client } = await historyOf(id)
    const changed = { ...someClient({ name: client.name, flags: ['pregnant'] }), version: client.version }
    const { id: _, ...change } = changed
    expect((await studio.api.send('PATCH', `/api/clients/${id}`, change)).status).toBe(200)
    await coach.open(`/clients/${id}`)
    await coach.sees('The plan is suspended.')
    await shownWhole()
    await coach.sees('Over time')
    expect(await coach.page.$('[data-plan-line]')).toBeNull()
    await coach.click(VIEW, 'Plan')
    await coach.page.waitForSelector('[data-barred]')
    expect(await coach.page.$('[data-plan] canvas')).toBeNull()
  })

  it('sees nothing of it in neutral mode', async () => {
    const id = await measured('Ada Reedmere', { flags: ['neutral-wish'] })
    await coach.open(`/clients/${id}`)
    await coach.more('Show numbers')
    await coach.click(VIEW, 'Energy')
    await coach.sees('Neutral mode shows no energy')
    expect(await coach.page.$('[data-expenditure]')).toBeNull()
  })
})

describe('the reference', () => {
  it('reads a label: 12 g of fat in 250 kcal are 43 %', async () => {
    await coach.open('/reference/label')
    await coach.fill('input[name="statedKcal"]', '250')
    await coach.fill('input[name="label-fat"]', '12')
    expect(await coach.textOf('[data-share="fat"] td:last-child')).toBe('43 %')
    await coach.fill('input[name="servingG"]', '10')
    await coach.sees('more than the serving of 10 g')
    await coach.fill('input[name="label-fat"]', 'much')
    await coach.sees('A number, such as 12 or 12.5.')
    await studio.audit('the label reader')
  })

  it('splits a day without a client, but not under what a dietitian decides', async () => {
    await coach.open('/reference/macros')
    await coach.fill('input[name="sheetKcal"]', '1000')
    await coach.sees('a registered dietitian or doctor decides')
    expect(await coach.page.$('[data-macros]')).toBeNull()
    await coach.fill('input[name="sheetKcal"]', '2000')
    await coach.fill('input[name="sheetWeight"]', '70')
    expect(await coach.textOf('[data-nutrient="protein"] td:nth-child(2)')).toBe('112')
    await studio.audit('the macro sheet')
  })

  it('and the energy view fit a phone', async () => {
    const phone = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await phone.signIn(LEAD)
    const id = await measured('Petra Lindqvane')
    for (const path of ['/reference/label', '/reference/macros', `/clients/${id}/energy`]) {
      await phone.open(path)
      expect(await phone.overflow(), path).toBeLessThanOrEqual(0)
    }
    await phone.close()
  })
})
