import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays, daysOfWeek } from '../../core/calendar'
import type { BookingBoard } from '../../shared/schemas/booking'
import { LEAD, someClient } from '../support/api'
import { PHONE, Visitor } from '../support/browser'
import { openStudio, type Studio } from '../support/studio'
import { until } from '../support/until'
import { enterVisit } from '../support/visits'

const FOLDS = [14, 12, 8, 10, 16, 20, 22]
const today = new Date().toISOString().slice(0, 10)
// A whole week that is still to come.
const monday = daysOfWeek(addDays(today, 7))[0] ?? today
const day = (i: number) => addDays(monday, i)

let studio: Studio
let coach: Visitor
const maren = someClient({ name: 'Maren Osk' })
const tobin = someClient({ name: 'Tobin Hale', flags: ['implanted-device'] })
beforeAll(async () => {
  studio = await openStudio()
  coach = studio.coach
  for (const one of [maren, tobin]) await studio.api.send('POST', '/api/clients', one)
  await enterVisit(studio.api, maren.id, {
    daysAgo: 30,
    values: FOLDS,
    kg: 71,
    conditions: { time: 'evening', skin: 'dry' },
  })
})
afterAll(() => studio.close())

const board = async () =>
  (await studio.api.send<BookingBoard>('GET', `/api/bookings?from=${monday}&to=${day(6)}`)).body.bookings
const of = async (id: string) => (await board()).find(({ clientId }) => clientId === id)
async function nextWeek() {
  await coach.open('/')
  await coach.click('button', 'The week after')
  await coach.page.waitForFunction((wanted: string) => document.querySelector(`[data-day="${wanted}"]`), {}, monday)
}
const middleOf = (selector: string) =>
  coach.page.$eval(selector, (one) => {
    const { x, y, width, height } = one.getBoundingClientRect()
    return { x: x + width / 2, y: y + height / 2, top: y, height }
  })

describe('the week on the floor', () => {
  it('books who is due at the hour of last time, with why', async () => {
    await coach.open('/')
    await coach.click('button', 'Book Maren Osk')
    await coach.page.waitForSelector('[data-proposal]')
    expect(await coach.textOf('[data-proposal]')).toMatch(/every four weeks.*at the hour of last time|every four weeks/)
    await coach.fill('input[name="day"]', day(1))
    await coach.fill('input[name="time"]', '')
    await coach.page.$eval('input[name="time"]', (one) => {
      ;(one as HTMLInputElement).value = '17:00'
      one.dispatchEvent(new Event('input', { bubbles: true }))
    })
    await coach.fill('input[name="place"]', 'Back room')
    await studio.audit('booking a visit')
    await coach.click('[data-booking] button', 'Book it')
    await until(async () => (await of(maren.id)) !== undefined, Boolean)
    expect(await of(maren.id)).toMatchObject({ startsAt: `${day(1)}T17:00:00.000Z`, place: 'Back room', minutes: 15 })
    // The board goes to that week, with the visit picked.
    await coach.page.waitForSelector('[data-visit-card]')
    await coach.sees('Loose shorts and a top that lifts')
    await studio.audit('a visit on the floor')
  })

  it('says what clashes before it is kept, and keeps it all the same where that is meant', async () => {
    await nextWeek()
    await coach.click('button', 'Book')
    await coach.pick('clientId', 'Tobin Hale')
    await coach.page.waitForSelector('[data-proposal]')
    await coach.fill('input[name="day"]', day(1))
    await coach.page.$eval('input[name="time"]', (one) => {
      ;(one as HTMLInputElement).value = '17:05'
      one.dispatchEvent(new Event('input', { bubbles: true }))
    })
    await coach.page.waitForSelector('[data-clashes]')
    expect(await coach.textOf('[data-clashes]')).toContain('measures Maren Osk at 17:00')
    await coach.fill('input[name="day"]', addDays(today, -2))
    await coach.click('[data-booking] button[type="submit"], [data-booking] .press-first')
    await coach.sees('This time has passed')
    expect(await coach.page.$eval('input[name="time"]', (one) => (one as HTMLInputElement).value)).toBe('17:05')
    await coach.fill('input[name="day"]', day(1))
    await coach.click('[data-booking] .press-first')
    await until(async () => (await of(tobin.id)) !== undefined, Boolean)
    await coach.page.waitForSelector('[data-conflict]')
  })

  it('moves a visit by keys, with what it would clash with, and by hand', async () => {
    await nextWeek()
    const slip = `[data-visit="${(await of(tobin.id))?.id}"]`
    await coach.page.waitForSelector(slip)
    await coach.page.focus(slip)
    await coach.keys('ArrowDown')
    await coach.page.waitForSelector('[data-ghost]')
    await coach.keys('ArrowRight')
    expect(await coach.textOf('[data-held]')).toContain('17:15')
    await coach.keys('Escape')
    expect(await coach.page.$('[data-ghost]')).toBeNull()
    await coach.keys('ArrowDown', 'ArrowDown', 'ArrowRight', 'Enter')
    await until(async () => (await of(tobin.id))?.sequence === 1, Boolean)
    expect(await of(tobin.id)).toMatchObject({
      startsAt: `${day(2)}T17:30:00.000Z`,
      movedFrom: `${day(1)}T17:05:00.000Z`,
    })

    const from = await middleOf(slip)
    const to = await middleOf(`[data-day="${day(4)}"] [data-ruler]`)
    await coach.page.mouse.move(from.x, from.y)
    await coach.page.mouse.down()
    await coach.page.mouse.move(from.x + 10, from.y - 10, { steps: 3 })
    await coach.page.mouse.move(to.x, to.top + to.height / 2, { steps: 5 })
    await coach.page.waitForSelector(`[data-day="${day(4)}"] [data-ghost]`)
    await coach.page.mouse.up()
    await until(async () => (await of(tobin.id))?.sequence === 2, Boolean)
    const moved = (await of(tobin.id))?.startsAt ?? ''
    expect(moved.slice(0, 10)).toBe(day(4))
    // The ruler runs from 8 to 20: its middle is about 14, to a quarter of an hour.
    expect(moved).toMatch(/T1[34]:(00|15|30|45):00/)
  })

  it('books where a ruler is pressed', async () => {
    await nextWeek()
    const ruler = await middleOf(`[data-day="${day(3)}"] [data-ruler]`)
    await coach.page.mouse.click(ruler.x, ruler.top + ruler.height / 4)
    await coach.page.waitForSelector('[data-booking]')
    expect(await coach.page.$eval('input[name="day"]', (one) => (one as HTMLInputElement).value)).toBe(day(3))
    expect(await coach.page.$eval('input[name="time"]', (one) => (one as HTMLInputElement).value)).toMatch(
      /^(10:45|11:00)$/,
    )
    await coach.keys('Escape')
  })

  it('is refused a move on what somebody else has moved, and shows where it stands now', async () => {
    await nextWeek()
    const line = await of(maren.id)
    await studio.api.send('PATCH', `/api/bookings/${line?.id}`, {
      sequence: line?.sequence,
      startsAt: `${day(1)}T19:00:00.000Z`,
    })
    await coach.page.focus(`[data-visit="${line?.id}"]`)
    await coach.keys('ArrowUp', 'Enter')
    await coach.sees('Somebody has changed this booking meanwhile')
    expect((await of(maren.id))?.startsAt).toBe(`${day(1)}T19:00:00.000Z`)
    await coach.page.waitForFunction(
      (id: string) => /\b19:00 /.test(document.querySelector(`[data-visit="${id}"]`)?.ariaLabel ?? ''),
      {},
      line?.id ?? '',
    )
  })

  it('shows today on a phone, its seven days above', async () => {
    const visits = [{ id: uuid(), startsAt: new Date(Date.now() + 5 * 60_000).toISOString() }]
    await studio.api.send('POST', '/api/bookings', {
      clientId: maren.id,
      assessorId: null,
      place: '',
      minutes: 30,
      visits,
    })
    const phone = await Visitor.arrive(studio.browser, studio.server.address, PHONE)
    await phone.signIn(LEAD)
    await phone.page.waitForSelector('[data-visit]')
    await phone.page.waitForSelector('[data-visit-card]')
    expect(await phone.overflow()).toBeLessThanOrEqual(0)
    expect(await phone.seriousFindings()).toEqual([])
    await phone.close()
  })

  it('cancels a visit with a second press', async () => {
    await nextWeek()
    await coach.click(`[data-visit="${(await of(tobin.id))?.id}"]`)
    await coach.click('button', 'Cancel the visit')
    await coach.click('button', 'Yes, cancel it')
    await until(async () => (await of(tobin.id)) === undefined, Boolean)
  })
})
