import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import type { Client } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import { someClient, type Caller } from '../support/api'
import type { Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'
import { enterVisit } from '../support/visits'

/* The gate on the screens: what is asked, what is suspended, what a page for the client leaves out. */

const FOLDS = [24, 22, 14, 18, 28, 36, 40]
const today = new Date().toISOString().slice(0, 10)
const years = (count: number) => addDays(today, -Math.round(365.25 * count))

let studio: Studio
let coach: Visitor
let api: Caller
beforeAll(async () => {
  studio = await openStudio()
  ;({ coach, api } = studio)
})
afterAll(() => studio.close())

async function measured(change: Parameters<typeof someClient>[0] = {}) {
  const client = someClient(change)
  await api.send('POST', '/api/clients', client)
  const checkinId = await enterVisit(api, client.id, { daysAgo: 2, values: FOLDS, kg: 74 })
  return { id: client.id, checkinId }
}
const plan = (checkinId: string) => ({
  id: uuid(),
  checkinId,
  kind: 'weight',
  value: 70,
  perWeek: 0.3,
  unit: 'kg',
  byDay: null,
  energy: null,
})
const historyOf = async (id: string) => (await api.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body
const clientOf = async (id: string) => (await api.send<Client>('GET', `/api/clients/${id}`)).body
const words = () => coach.page.evaluate(() => document.body.innerText)

describe('what to mind', () => {
  it('is asked in a short list, the rest on one press, each with what it changes', async () => {
    const { id } = await measured({ name: 'Aila Reed' })
    await coach.open(`/clients/${id}/edit`)
    expect(await coach.page.$eval('[data-more-flags]', (box) => (box as HTMLDetailsElement).open)).toBe(false)
    await coach.click('[data-more-flags] summary')
    await coach.click('[name="flag-kidney-disease"]')
    await coach.sees('protein up to 0.8 g a kg of body weight')
    await coach.click('[name="flag-lymphoedema-right"]')
    await studio.audit('the form with every flag')
    await coach.click('button', 'Keep changes')
    await coach.sees('The right side is not measured: choose the left.')
    await coach.click('[data-field="usualSide"] button', 'Left')
    await coach.click('button', 'Keep changes')
    await coach.at(`/clients/${id}`)
    await coach.sees('Kidney disease: protein up to 0.8 g')
    expect((await clientOf(id)).flags.sort()).toEqual(['kidney-disease', 'lymphoedema-right'])
    await coach.open(`/clients/${id}/measure`)
    await coach.sees('measure the left side, always')
  })

  it('of a minor asks the guardian by name, and apart for photographs', async () => {
    const { id } = await measured({ name: 'Junior Sculler', birthDate: years(16.5), guardianConsent: true })
    await coach.open(`/clients/${id}/edit`)
    await coach.fill('[name="guardianName"]', '')
    await coach.click('button', 'Keep changes')
    await coach.sees('Please name the guardian who agrees.')
    await coach.fill('[name="guardianName"]', 'Hild Sculler')
    await coach.click('[name="guardianPhotoConsented"]')
    await coach.click('button', 'Keep changes')
    await coach.at(`/clients/${id}`)
    expect(await clientOf(id)).toMatchObject({ guardianName: 'Hild Sculler', guardianPhotoConsentOn: today })
    // Neutral by default, and the link is the guardian's.
    await coach.page.waitForSelector('[data-neutral-record]')
    await coach.open(`/clients/${id}/from-home`)
    await coach.page.waitForSelector('[data-guardian]')
  })

  it('holds a preparation with its clearance, or says what is missing', async () => {
    const { id } = await measured({ name: 'Bram Alder' })
    await coach.open(`/clients/${id}/edit`)
    await coach.click('[data-preparation] summary')
    await coach.click('[name="preparing"]')
    await coach.fill('[name="preparationDay"]', addDays(today, 60))
    await coach.fill('[name="clearedOn"]', today)
    await coach.fill('[name="clearedUntil"]', addDays(today, 70))
    await coach.click('button', 'Keep changes')
    await coach.sees('Please name the doctor who gave the clearance.')
    await coach.fill('[name="clearedBy"]', 'Dr Elm')
    await coach.click('button', 'Keep changes')
    await coach.at(`/clients/${id}`)
    await coach.sees('cleared by Dr Elm')
    expect((await clientOf(id)).preparation).toMatchObject({ begunOn: today, clearedBy: 'Dr Elm' })
  })
})

describe('a plan that a flag comes up against', () => {
  it('is suspended on the client page and the Floor, and goes on with a reason alone', async () => {
    const { id, checkinId } = await measured({ name: 'Cato Heron' })
    await api.send('POST', `/api/clients/${id}/plans`, plan(checkinId))
    await coach.open(`/clients/${id}/edit`)
    await coach.click('[data-more-flags] summary')
    await coach.click('[name="flag-fainting"]')
    await coach.click('button', 'Keep changes')
    await coach.at(`/clients/${id}`)
    await coach.sees('The plan is suspended.')
    expect(await coach.page.$('[data-plan-line]')).toBeNull()
    await studio.audit('a suspended plan')
    await coach.open('/')
    await coach.page.waitForSelector('[data-floor-suspended]')
    expect(await coach.textOf('[data-floor-suspended]')).toMatch(/Cato Heron.*plan: Fainting/s)
    await coach.click('[data-floor-suspended] a', 'Look')
    await coach.at(`/clients/${id}`)
    await coach.click('button', 'Let it go on')
    await coach.click('[role="dialog"] button', 'Let it go on')
    await coach.sees('Please say why.')
    await coach.fill('[name="goOnReason"]', 'Her sports doctor agrees.')
    await coach.click('[role="dialog"] button', 'Let it go on')
    await until(
      () => historyOf(id),
      (history) => (history.suspensions ?? []).length === 0,
    )
    await coach.page.waitForSelector('[data-plan-line]')
  })

  it('is ended where a stop has come up', async () => {
    const { id, checkinId } = await measured({ name: 'Ida Sedge' })
    await api.send('POST', `/api/clients/${id}/plans`, plan(checkinId))
    const { id: _, archived: _archived, ...record } = await clientOf(id)
    await api.send('PATCH', `/api/clients/${id}`, { ...record, flags: ['appetite-medication'] })
    await coach.open(`/clients/${id}`)
    await coach.sees('no deficit before the prescriber')
    expect(await words()).not.toContain('Let it go on')
    await coach.click('[data-suspended="plan"] a', 'Decide')
    await coach.click('button', 'End this plan')
    await until(
      () => historyOf(id),
      (history) => (history.suspensions ?? []).length === 0,
    )
  })
})

describe('a weight that falls without a plan', () => {
  it('says “see a doctor” on the client page, and nothing keeps anybody going', async () => {
    const client = someClient({ name: 'Edda Mere' })
    await api.send('POST', '/api/clients', client)
    for (const [daysAgo, kg] of [
      [120, 74],
      [60, 72],
      [1, 69],
    ] as const)
      await enterVisit(api, client.id, { daysAgo, values: FOLDS.map((mm) => mm * (kg / 74) ** 3), kg })
    await coach.open(`/clients/${client.id}`)
    await coach.sees('worth a doctor’s look')
    expect(await words()).not.toMatch(/[Kk]eep going|fat is going/)
  })
})

describe('a link in neutral mode', () => {
  it('opens the page to take home, and more only with a reason', async () => {
    const { id } = await measured({ name: 'Liv Ambersen', flags: ['eating-disorder'] })
    await coach.open(`/clients/${id}/from-home`)
    await coach.page.waitForSelector('[name="scope-take-home"]')
    const ticked = await coach.page.$$eval('input[name^="scope-"]', (all) =>
      all.filter((one) => (one as HTMLInputElement).checked).map((one) => (one as HTMLInputElement).name),
    )
    expect(ticked).toEqual(['scope-take-home'])
    expect(await coach.page.$('[name="linkReason"]')).toBeNull()
    await coach.click('[name="scope-weigh-ins"]')
    await coach.click('button', 'Make the link')
    await coach.sees('Say why you ask for more.')
    await coach.fill('[name="linkReason"]', 'The care team asks for it.')
    await coach.click('button', 'Make the link')
    await coach.page.waitForSelector('[data-made]')
  })
})

describe('a caliper whose jaws press too much', () => {
  it('fails its check, stays on the Floor, and is no simulation’s', async () => {
    await api.send('POST', '/api/calipers', { id: uuid(), name: 'Steel, bench', resolutionMm: 0.5 })
    await coach.open('/bench/calipers')
    await coach.click('button', 'Check it')
    expect(await words()).not.toContain('stand-in')
    await coach.fill('[name="read-10"]', '10')
    await coach.fill('[name="pressure"]', '12')
    await coach.page.waitForSelector('[data-pressure-off]')
    await coach.click('button', 'Note the check')
    await coach.page.waitForSelector('[data-fault]')
    await coach.open('/')
    await coach.sees('failed its last check: pressure of the jaws')
  })
})
