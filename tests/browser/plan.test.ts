import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { againstPlan, planLine, type Against } from '../../core/plan'
import { followRecord, noisesAt } from '../../shared/followed-record'
import { currentPlan, targetOf } from '../../shared/plan'
import type { ClientHistory } from '../../shared/schemas/following'
import { LEAD, someClient, type Caller } from '../support/api'
import { PHONE, VIEW, Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { enterVisit } from '../support/visits'

/** Folds of the first visit, laboratory seven in their order: 102 mm; the later ones are shares of them. */
const FIRST = [14, 12, 8, 10, 16, 20, 22]
const shareOf = (share: number) => FIRST.map((mm) => mm * share)
const VISITS = [
  { daysAgo: 140, values: shareOf(1.1), kg: 75 },
  { daysAgo: 84, values: shareOf(1), kg: 74 },
  { daysAgo: 42, values: shareOf(0.95), kg: 73.2 },
  { daysAgo: 14, values: shareOf(0.92), kg: 72.8 },
]
const maren = someClient()
const young = someClient({ name: 'Junior Sculler', birthDate: '2012-05-01', guardianConsent: true })
const page = `/clients/${maren.id}`

/** The check-ins since the plan's start held against it: what core, tried on its own, makes of the server's facts. */
async function expected(): Promise<(Against | null)[]> {
  const { body } = await api.send<ClientHistory>('GET', `/api/clients/${maren.id}/history`)
  const record = followRecord(body)
  const plan = currentPlan(body)
  const since = record.ends.slice(record.ends.findIndex((end) => end.record.id === plan?.checkinId))
  const line = plan && since[0] ? planLine(targetOf(plan), since[0]) : null
  if (!line) throw new Error('no plan')
  return since.slice(1).map((end, i) => againstPlan(line, since.slice(0, i + 2), { noises: noisesAt(record, end) }))
}
const signed = (value: number) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`

let studio: Studio
let coach: Visitor
let api: Caller
const ids: string[] = []
beforeAll(async () => {
  studio = await openStudio()
  ;({ coach, api } = studio)
  for (const client of [maren, young]) await api.send('POST', '/api/clients', client)
  for (const visit of VISITS) ids.push(await enterVisit(api, maren.id, visit))
  await enterVisit(api, young.id, { daysAgo: 20, values: shareOf(1), kg: 60 })
})
afterAll(() => studio.close())

async function openPlan(visitor = coach, path = page): Promise<void> {
  await visitor.open(path)
  await visitor.click(VIEW, 'Plan')
  await visitor.page.waitForSelector('[data-plan]')
}

const problemAt = (field: string) => coach.textOf(`#${field}-problem`)

describe('a plan', () => {
  it('is set at a check-in, its line seen and its limits said while it is typed', async () => {
    await openPlan()
    await coach.sees('No plan yet')
    await coach.choose('checkinId', ids[1] ?? '')
    await coach.click('button', 'Keep this plan')
    expect(await problemAt('value')).toMatch(/give a number/)
    await coach.fill('input[name="value"]', '4')
    await coach.fill('input[name="perWeek"]', '0.8')
    expect(await problemAt('value')).toMatch(/under 13 \(essential fat of women is about 10 to 13 %\)/)
    expect(await problemAt('perWeek')).toMatch(/no more than 0\.74/)
    expect(await coach.page.$('[data-plan] canvas')).toBeNull()
    await studio.audit('refused plan')
    await coach.click('button', 'Keep this plan')
    expect((await api.send<{ plans: unknown[] }>('GET', `/api/clients/${maren.id}/history`)).body.plans).toEqual([])
    await coach.click('[aria-label="The target is set in"] button', 'Sum of folds')
    await coach.fill('input[name="value"]', '82')
    await coach.click('[aria-label="Usual paces"] button', '1')
    await coach.page.waitForSelector('[data-plan] canvas')
    expect(await coach.textOf('[data-draft]')).toMatch(/^20 weeks: about/)
    await coach.fill('input[name="byDay"]', '2027-03-01')
    expect(await coach.textOf('[data-in-time]')).toMatch(/a week’s slack/)
    await studio.audit('plan typed')
    await coach.click('button', 'Keep this plan')
    await coach.page.waitForSelector('[data-standing]')
  })

  it('holds every check-in since against the line, by the odds of core', async () => {
    const rows = await coach.page.$$eval('[data-held]', (found) =>
      found.map((row) => [...row.querySelectorAll('td')].map((cell) => cell.textContent.replace(/\s+/g, ' ').trim())),
    )
    const [second, newest] = await expected()
    const wanted = [newest, second].map((against, i) => {
      if (!against) throw new Error('not compared')
      const [share, weeks] = i === 0 ? [0.92, 10] : [0.95, 6]
      return [
        // 102 mm less one a week, and what was measured: by hand.
        (102 - weeks).toFixed(1),
        (102 * share).toFixed(1),
        signed(Number((102 * share).toFixed(1)) - (102 - weeks)),
        'on the plan',
      ]
    })
    expect(rows.map((cells) => cells.slice(1))).toEqual(wanted)
    expect(await coach.textOf('[data-standing]')).toMatch(/on the plan, as far as can be said$/)
    expect(await coach.textOf('[data-plan-facts]')).toMatch(/102\.0 to 82\.0 mm/)
    await studio.audit('plan')
  })

  it('gives the span a shortcut from its start to now, and a line', async () => {
    await coach.click(VIEW, 'Change')
    expect(await coach.textOf('[data-plan-line]')).toMatch(/sum of folds to 82\.0 mm by about .* mm, on the plan/)
    await coach.click('[data-shortcuts] button', 'From the plan’s start')
    await coach.sees('picked after')
    expect(await coach.textOf('[data-site="thigh"] [data-change]')).toBe(signed(22 * 0.92 - 22))
    await coach.click('[data-shortcuts] button', 'From the chosen start')
    expect(await coach.textOf('[data-site="thigh"] [data-change]')).toBe(signed(22 * 0.92 - 22 * 1.1))
  })

  it('says behind once the odds do', async () => {
    await enterVisit(api, maren.id, { daysAgo: 1, values: shareOf(1.5), kg: 74.5 })
    await enterVisit(api, maren.id, { daysAgo: 0, values: shareOf(1.5), kg: 74.5 })
    await openPlan()
    expect((await expected()).at(-1)?.standing).toBe('behind')
    expect(await coach.textOf('[data-standing]')).toMatch(/behind the plan$/)
    expect(await coach.textOf('[data-held] td:last-child')).toBe('behind')
    expect(await coach.textOf('[data-arrival]')).toMatch(/^cannot be told/)
  })

  it('is hidden in neutral mode', async () => {
    await coach.click('button', 'Set another')
    await coach.fill('input[name="value"]', '13')
    await coach.fill('input[name="perWeek"]', '0.2')
    await coach.click('button', 'Keep this plan')
    await coach.sees('The next check-in shows how it goes.')
    await coach.more('Hide numbers')
    await coach.page.waitForSelector('[data-neutral-record]')
    expect(await coach.page.$('[data-plan]')).toBeNull()
    await coach.more('Show numbers')
    await coach.page.waitForSelector('[data-plan-facts]')
  })

  it('ends when the coach says so', async () => {
    await coach.click('button', 'End this plan')
    await coach.sees('No plan yet')
    await coach.click(VIEW, 'Change')
    await coach.page.waitForSelector('[data-shortcuts]')
    const shortcuts = await coach.page.$$eval('[data-shortcuts] button', (all) =>
      all.map(({ textContent }) => textContent.trim()),
    )
    expect(shortcuts).not.toContain('From the plan’s start')
  })

  it('to lose is not kept for somebody under 18, and the page says so before anything is typed', async () => {
    await coach.open(`/clients/${young.id}`)
    await coach.page.waitForSelector('[data-neutral-record]')
    await coach.more('Show numbers')
    await coach.click('nav[aria-label="Views of the record"] a', 'Plan')
    await coach.page.waitForSelector('[data-plan]')
    expect(await coach.textOf('[data-unfit]')).toMatch(/No plan to lose is kept\. ?Under 18/)
    await coach.click('[aria-label="The target is set in"] button', 'Sum of folds')
    await coach.fill('input[name="value"]', '90')
    await coach.fill('input[name="perWeek"]', '1')
    await coach.click('button', 'Keep this plan')
    await coach.sees('No plan to lose is kept. Under 18')
    expect((await api.send<{ plans: unknown[] }>('GET', `/api/clients/${young.id}/history`)).body.plans).toEqual([])
    await studio.audit('no plan for a junior')
  })

  it('fits a phone', async () => {
    const phone = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await phone.signIn(LEAD)
    await openPlan(phone)
    expect(await phone.overflow()).toBeLessThanOrEqual(0)
    expect(await phone.seriousFindings()).toEqual([])
    expect(phone.faults).toEqual([])
    await phone.close()
  })
})
