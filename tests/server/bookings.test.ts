import { v7 as uuid } from 'uuid'
import { addDays as plusDays } from 'date-fns'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays, instantAt, localDay, sayInZone } from '../../core/calendar'
import { seriesOf } from '../../core/schedule'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { StaffMember } from '../../shared/schemas/account'
import type { BookingBoard, BookingLine, BookingProposal } from '../../shared/schemas/booking'
import type { Floor } from '../../shared/schemas/checkin'
import { Caller, LEAD, type Server, someClient } from '../support/api'
import { readCalendar, readDays } from '../support/calendar'
import { enterVisit } from '../support/visits'

const FOLDS = [14, 12, 8, 10, 16, 20, 22]
const today = new Date().toISOString().slice(0, 10)
/** A time of a day to come, UTC. */
const at = (days: number, clock = '17:00') => `${addDays(today, days)}T${clock}:00.000Z`

let server: Server
let coach: Caller
let ivo: StaffMember
let maren = ''
let tobin = ''
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
  const person = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', password: 'the-other-oar-holds', role: 'coach' }
  ivo = (await coach.addPerson(person)).body
  maren = await client('Maren Osk')
  tobin = await client('Tobin Hale')
})
afterAll(() => server.remove())

async function client(name: string): Promise<string> {
  const one = someClient({ name })
  await coach.send('POST', '/api/clients', one)
  return one.id
}
const input = (change: object = {}) => ({
  clientId: maren,
  assessorId: null,
  place: '',
  protocolId: null,
  minutes: 30,
  visits: [{ id: uuid(), startsAt: at(3) }],
  ...change,
})
const book = (change: object = {}) => coach.send<BookingLine[]>('POST', '/api/bookings', input(change))
const change = (id: string, body: object) => coach.send<BookingLine>('PATCH', `/api/bookings/${id}`, body)
const board = async (from: string, to: string) =>
  (await coach.send<BookingBoard>('GET', `/api/bookings?from=${from}&to=${to}`)).body.bookings

describe('a booking', () => {
  it('is stored once however often it is sent, and moved by who saw it as it is', async () => {
    const visits = [{ id: uuid(), startsAt: at(3) }]
    expect((await book({ visits })).status).toBe(201)
    expect((await book({ visits })).status).toBe(201)
    const [line] = await board(addDays(today, 3), addDays(today, 3))
    expect(line).toMatchObject({
      clientName: 'Maren Osk',
      startsAt: at(3),
      state: 'booked',
      sequence: 0,
      movedFrom: null,
    })
    const id = line?.id ?? ''
    const moved = await change(id, { sequence: 0, startsAt: at(4, '18:30') })
    expect(moved.body).toMatchObject({ startsAt: at(4, '18:30'), movedFrom: at(3), sequence: 1 })
    const late = await change(id, { sequence: 0, startsAt: at(5) })
    expect(late.status).toBe(409)
    expect(late.text).toContain('look again')
    expect(await board(addDays(today, 3), addDays(today, 3))).toEqual([])
    expect((await change(id, { sequence: 1, state: 'cancelled' })).body.state).toBe('cancelled')
    expect(await board(addDays(today, 4), addDays(today, 4))).toEqual([])
  })

  it('is taken together with its repetitions, all or none', async () => {
    const taken = uuid()
    await book({ clientId: tobin, visits: [{ id: taken, startsAt: at(30) }] })
    const visits = [
      { id: uuid(), startsAt: at(31) },
      { id: taken, startsAt: at(32) },
    ]
    expect((await book({ visits })).status).toBe(409)
    expect(await board(addDays(today, 31), addDays(today, 31))).toEqual([])
  })

  it.each([
    ['a time that has passed', { visits: [{ id: uuid(), startsAt: at(-1) }] }, 'This time has passed'],
    ['nobody of ours', { clientId: uuid() }, 'no such client'],
    ['a stranger who measures', { assessorId: uuid() }, 'does not work here'],
    ['no time at all', { minutes: 0 }, '5 minutes or more'],
    ['no visit', { visits: [] }, 'Give a time'],
    ['a time that is none', { visits: [{ id: uuid(), startsAt: 'tomorrow' }] }, 'date and time'],
  ])('is refused for %s, with its sentence', async (_, wrong, sentence) => {
    const { status, text } = await book(wrong)
    expect(status).toBe(422)
    expect(text).toContain(sentence)
  })

  it('cannot be moved into the past, but be marked once it has gone by', async () => {
    const visits = [{ id: uuid(), startsAt: new Date(Date.now() - 60_000).toISOString() }]
    expect((await book({ visits })).status).toBe(201)
    const id = visits[0]?.id ?? ''
    expect((await change(id, { sequence: 0, startsAt: at(-2) })).text).toContain('This time has passed')
    expect((await change(id, { sequence: 0, state: 'no-show' })).body.state).toBe('no-show')
    const floor = (await coach.send<Floor>('GET', '/api/floor')).body
    expect(floor.week.bookings.find((one) => one.id === id)?.state).toBe('no-show')
    expect(floor.week.briefs.map(({ clientId }) => clientId)).toContain(maren)
  })

  it('knows whether they came: by the check-in of its day', async () => {
    const id = await client('Petra Lindqvane')
    const visits = [{ id: uuid(), startsAt: new Date(Date.now() + 60_000).toISOString() }]
    await book({ clientId: id, visits })
    await enterVisit(coach, id, { daysAgo: 0, values: FOLDS, kg: 70 })
    const [line] = await board(today, addDays(today, 1)).then((all) => all.filter(({ clientId }) => clientId === id))
    expect(line?.checkin?.finished).toBe(true)
  })
})

describe('who is due', () => {
  it('is known to be booked by any visit still to come, and not by one cancelled or gone by', async () => {
    const id = await client('Oskar Brandeth')
    const booked = async () => (await coach.send<Floor>('GET', '/api/floor')).body.booked.includes(id)
    expect(await booked()).toBe(false)
    const visits = [{ id: uuid(), startsAt: at(40) }]
    await book({ clientId: id, visits })
    expect(await booked()).toBe(true)
    await change(visits[0]?.id ?? '', { sequence: 0, state: 'cancelled' })
    expect(await booked()).toBe(false)
  })
})

describe('what is proposed', () => {
  it('keeps the hour and the assessor of last time, and gives way to what is booked', async () => {
    const id = await client('Sanna Quill')
    await enterVisit(coach, id, { daysAgo: 10, values: FOLDS, kg: 66 })
    const propose = async () => (await coach.send<BookingProposal>('GET', `/api/clients/${id}/booking-proposal`)).body
    const first = await propose()
    expect(localDay(first.startsAt, 'UTC')).toBe(addDays(today, 18))
    expect(first).toMatchObject({ minutes: 15, minutesFrom: 'usual', protocolId: 'laboratory-7' })
    expect(['hour-of-last-time', 'nearest-free']).toContain(first.why)
    await book({ clientId: tobin, assessorId: first.assessorId, visits: [{ id: uuid(), startsAt: first.startsAt }] })
    const second = await propose()
    expect(second.startsAt).not.toBe(first.startsAt)
    expect(second.why).toBe('nearest-free')
  })
})

describe('a calendar', () => {
  const read = async (address: string) => {
    const { pathname } = new URL(address)
    const { status, bytes, headers } = await new Caller(server).bytes(pathname)
    return { status, text: bytes.toString(), type: headers.get('content-type') }
  }

  it('by a secret address holds one coach’s visits, another the studio’s; both end when they are ended', async () => {
    const visits = [{ id: uuid(), startsAt: at(9, '07:15') }]
    await book({ clientId: tobin, assessorId: ivo.id, place: 'Back room', visits })
    const ivosOwn = new Caller(server)
    await ivosOwn.signIn({ email: ivo.email, password: 'the-other-oar-holds' })
    const { link } = (await ivosOwn.send<{ link: string }>('POST', '/api/calendar-links', { of: 'me' })).body
    const own = await read(link)
    expect(own.status).toBe(200)
    expect(own.type).toContain('text/calendar')
    const [visit, ...others] = readCalendar(own.text)
    expect(others).toEqual([])
    expect(visit).toMatchObject({
      title: 'Tobin Hale',
      place: 'Back room',
      startsAt: at(9, '07:15'),
      endsAt: at(9, '07:45'),
      status: 'CONFIRMED',
      sequence: 0,
    })
    expect(own.text).not.toMatch(/fold|fat|weigh|body|measure|percent|health/i)

    expect((await ivosOwn.send('POST', '/api/calendar-links', { of: 'studio' })).status).toBe(403)
    const whole = (await coach.send<{ link: string }>('POST', '/api/calendar-links', { of: 'studio' })).body.link
    expect(readCalendar((await read(whole)).text).length).toBeGreaterThan(2)

    await change(visits[0]?.id ?? '', { sequence: 0, state: 'cancelled' })
    expect(readCalendar((await read(link)).text)[0]).toMatchObject({ status: 'CANCELLED', sequence: 1 })

    const [kept] = (await ivosOwn.send<{ id: string }[]>('GET', '/api/calendar-links')).body
    expect((await coach.send('DELETE', `/api/calendar-links/${kept?.id}`)).status).toBe(404)
    expect((await ivosOwn.send('DELETE', `/api/calendar-links/${kept?.id}`)).status).toBe(200)
    expect((await read(link)).status).toBe(404)
    expect((await read(link.replace(/.{43}\.ics$/, `${'x'.repeat(43)}.ics`))).status).toBe(404)
  })

  it.each(['Pacific/Auckland', 'America/Los_Angeles', 'Asia/Kolkata'])(
    'shows repetitions at the same hour in %s, over the days clocks change',
    async (zone) => {
      await coach.send('PATCH', '/api/studio', {
        name: 'Reedwater Rowing Club',
        massUnit: 'kg',
        lengthUnit: 'cm',
        timeZone: zone,
      })
      const id = await client(`Rower of ${zone.replace(/\W/g, ' ')}`)
      const first = instantAt(localDay(plusDays(new Date(), 2), zone), 18 * 60, zone)
      const visits = seriesOf(first, 28, 13, zone).map((startsAt) => ({ id: uuid(), startsAt }))
      expect((await book({ clientId: id, visits })).status).toBe(201)
      const { link } = (await coach.send<{ link: string }>('POST', '/api/calendar-links', { of: 'studio' })).body
      const read = readCalendar(
        await new Caller(server).bytes(new URL(link).pathname).then(({ bytes }) => bytes.toString()),
      )
      const mine = read.filter(({ uid }) => visits.some((one) => uid.startsWith(one.id)))
      expect(mine).toHaveLength(13)
      expect(new Set(mine.map(({ startsAt }) => sayInZone(startsAt, zone, 'HH:mm')))).toEqual(new Set(['18:00']))
      // A day of the board begins where the studio is.
      const day = localDay(first, zone)
      expect((await board(day, day)).map(({ clientId }) => clientId)).toContain(id)
      expect((await board(addDays(day, 1), addDays(day, 1))).map(({ clientId }) => clientId)).not.toContain(id)
    },
  )

  it('says who is due and not booked, on the day the floor says', async () => {
    const id = await client('Sanna Fjord')
    const { link } = (await coach.send<{ link: string }>('POST', '/api/calendar-links', { of: 'studio' })).body
    const days = async () => readDays((await read(link)).text).filter(({ uid }) => uid.includes(id))
    const floorDay = async () => {
      const { due, soon } = (await coach.send<Floor>('GET', '/api/floor')).body
      return [...due, ...soon].find(({ clientId }) => clientId === id)?.next.day
    }
    expect(await days()).toEqual([
      { uid: expect.stringContaining(`due-${id}@`) as string, title: 'Sanna Fjord, due', day: await floorDay() },
    ])
    // A pause moves it.
    const until = addDays(localDay(Date.now(), 'Asia/Kolkata'), 9)
    const schedule = { id: uuid(), cadenceDays: 14, pause: { until, reason: 'holiday' }, events: [] }
    expect((await coach.send('POST', `/api/clients/${id}/schedule`, schedule)).status).toBe(200)
    expect((await days())[0]?.day).toBe(addDays(until, 1))
    expect(await floorDay()).toBe(addDays(until, 1))
    // A booking takes it away; nobody's feed holds other coaches' clients.
    expect((await book({ clientId: id, visits: [{ id: uuid(), startsAt: at(12) }] })).status).toBe(201)
    expect(await days()).toEqual([])
    const own = (await coach.send<{ link: string }>('POST', '/api/calendar-links', { of: 'me' })).body.link
    expect(readDays((await read(own)).text)).toEqual([])
  })

  it('hands one visit over without a word about bodies', async () => {
    const visits = [{ id: uuid(), startsAt: at(6) }]
    await book({ visits })
    const { bytes, headers } = await coach.bytes(`/api/bookings/${visits[0]?.id}/calendar`)
    expect(headers.get('content-disposition')).toContain('visit.ics')
    expect(readCalendar(bytes.toString())).toMatchObject([{ title: 'Visit at Reedwater Rowing Club', startsAt: at(6) }])
    expect(bytes.toString()).not.toMatch(/Maren|fold|weigh|measure/)
    expect(bytes.toString()).toContain('BEGIN:VALARM')
  })
})
