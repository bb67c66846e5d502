import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { instantAt, localDay, sayInZone } from '../../core/calendar'
import {
  clashesAmong,
  conflictsOf,
  lanesOf,
  minuteOfDay,
  overlap,
  proposeTime,
  seriesOf,
  visitMinutes,
  whatToWear,
  type Slot,
} from '../../core/schedule'
import { PROTOCOLS } from '../../core/protocols'

const ZONES = ['Pacific/Auckland', 'America/Los_Angeles', 'Asia/Kolkata', 'Europe/Berlin', 'Australia/Lord_Howe', 'UTC']

const slot = (change: Partial<Slot> = {}): Slot => ({
  id: 'a',
  clientId: 'maren',
  assessorId: 'runa',
  place: 'Back room',
  startsAt: '2026-11-26T17:00:00.000Z',
  minutes: 30,
  ...change,
})

describe('an instant by the clocks of a place', () => {
  it.each([
    // Summer time began on 29 March 2026 in Berlin at 2:00, on 8 March in Los Angeles; it ended on 5 April in Auckland.
    ['2026-03-28', 17 * 60, 'Europe/Berlin', '2026-03-28T16:00:00.000Z'],
    ['2026-03-29', 17 * 60, 'Europe/Berlin', '2026-03-29T15:00:00.000Z'],
    ['2026-03-07', 7 * 60, 'America/Los_Angeles', '2026-03-07T15:00:00.000Z'],
    ['2026-03-08', 7 * 60, 'America/Los_Angeles', '2026-03-08T14:00:00.000Z'],
    ['2026-04-04', 18 * 60, 'Pacific/Auckland', '2026-04-04T05:00:00.000Z'],
    ['2026-04-05', 18 * 60, 'Pacific/Auckland', '2026-04-05T06:00:00.000Z'],
    ['2026-06-01', 6 * 60, 'Asia/Kolkata', '2026-06-01T00:30:00.000Z'],
  ])('%s at minute %d in %s is %s', (day, minute, zone, instant) => {
    expect(instantAt(day, minute, zone)).toBe(instant)
  })

  it('takes the first of an hour shown twice, and the hour after for one left out, in any zone', () => {
    expect(instantAt('2026-10-25', 150, 'Europe/Berlin')).toBe('2026-10-25T00:30:00.000Z')
    expect(instantAt('2026-11-01', 90, 'America/Los_Angeles')).toBe('2026-11-01T08:30:00.000Z')
    expect(sayInZone(instantAt('2026-03-29', 150, 'Europe/Berlin'), 'Europe/Berlin', 'HH:mm')).toBe('03:30')
  })

  it('comes back as the clock shows it, on any day in any zone where that time is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 3000 }),
        fc.integer({ min: 4 * 60, max: 24 * 60 - 1 }),
        fc.constantFrom(...ZONES),
        (days, minute, zone) => {
          const day = new Date(Date.UTC(2024, 0, 1) + days * 86_400_000).toISOString().slice(0, 10)
          const at = instantAt(day, minute, zone)
          expect(localDay(at, zone)).toBe(day)
          expect(minuteOfDay(at, zone)).toBe(minute)
        },
      ),
    )
  })
})

describe('conflicts', () => {
  it('are said of assessor, place, client and absence; one that begins as another ends is none', () => {
    const other = slot({ id: 'b', clientId: 'tobin', startsAt: '2026-11-26T17:15:00.000Z' })
    expect(conflictsOf(slot(), [other]).map(({ kind }) => kind)).toEqual(['assessor'])
    expect(conflictsOf(slot({ assessorId: 'ivo', place: ' back ROOM' }), [other]).map(({ kind }) => kind)).toEqual([
      'place',
    ])
    expect(conflictsOf(slot({ assessorId: 'ivo', place: '' }), [other])).toEqual([])
    expect(conflictsOf(slot({ clientId: 'tobin', assessorId: null }), [other])[0]?.kind).toBe('client')
    expect(conflictsOf(slot({ startsAt: '2026-11-26T17:45:00.000Z' }), [other])).toEqual([])
    expect(conflictsOf(other, [other])).toEqual([])
    const absence = { staffId: 'runa', standInId: 'ivo', fromDay: '2026-11-26', toDay: '2026-11-27' }
    expect(conflictsOf(slot(), [], [absence])).toEqual([{ kind: 'away', absence }])
    // In Auckland it is the 27th already, and the 28th some hours later.
    expect(conflictsOf(slot({ startsAt: '2026-11-27T12:00:00Z' }), [], [absence], 'Pacific/Auckland')).toEqual([])
  })

  it('found in one pass are those found one by one', () => {
    const any = fc.record({
      clientId: fc.constantFrom('a', 'b', 'c', 'd'),
      assessorId: fc.constantFrom('runa', 'ivo', null),
      place: fc.constantFrom('', 'Bench', 'bench '),
      startsAt: fc.integer({ min: 0, max: 300 }).map((m) => new Date(1.76e12 + m * 300_000).toISOString()),
      minutes: fc.integer({ min: 5, max: 90 }),
    })
    const absences = [{ staffId: 'ivo', standInId: null, fromDay: '2025-10-09', toDay: '2025-10-09' }]
    fc.assert(
      fc.property(fc.array(any, { maxLength: 20 }), (all) => {
        const slots = all.map((one, i) => ({ ...one, id: String(i) }))
        const oneByOne = slots.filter((one) => conflictsOf(one, slots, absences, 'UTC').length > 0).map(({ id }) => id)
        expect([...clashesAmong(slots, absences, 'UTC')].sort()).toEqual(oneByOne.sort())
      }),
    )
  })

  it('are symmetrical', () => {
    const start = fc.integer({ min: 0, max: 500 }).map((m) => new Date(1.7e12 + m * 60_000).toISOString())
    const any = fc.record({ startsAt: start, minutes: fc.integer({ min: 5, max: 240 }) })
    fc.assert(fc.property(any, any, (a, b) => overlap(a, b) === overlap(b, a)))
  })
})

describe('lanes', () => {
  it('never lay two visits at the same time on top of each other, nor make more lanes than meet at once', () => {
    const visit = fc.record({ minute: fc.integer({ min: 0, max: 600 }), minutes: fc.integer({ min: 5, max: 90 }) })
    fc.assert(
      fc.property(fc.array(visit, { maxLength: 25 }), (given) => {
        const visits = given.map(({ minute, minutes }, i) => ({
          id: String(i),
          startsAt: new Date(1.7e12 + minute * 60_000).toISOString(),
          minutes,
        }))
        const lanes = lanesOf(visits)
        expect(lanes.size).toBe(visits.length)
        for (const a of visits) {
          const at = Date.parse(a.startsAt)
          const meeting = visits.filter((b) => Date.parse(b.startsAt) <= at && overlap(a, b))
          expect(new Set(meeting.map(({ id }) => lanes.get(id)?.lane)).size).toBe(meeting.length)
          expect(lanes.get(a.id)?.lane).toBeLessThan(lanes.get(a.id)?.lanes ?? 0)
        }
      }),
    )
  })
})

describe('repetitions', () => {
  it.each(ZONES)('keep the hour of the clocks over a year in %s', (zone) => {
    const first = instantAt('2026-02-03', 17 * 60 + 15, zone)
    const all = seriesOf(first, 14, 26, zone)
    expect(new Set(all.map((at) => sayInZone(at, zone, 'HH:mm')))).toEqual(new Set(['17:15']))
    expect(localDay(all[25] ?? '', zone)).toBe('2027-01-19')
  })
})

describe('the time that is proposed', () => {
  const wanted = { day: '2026-11-30', lastAt: '2026-11-02T17:10:00Z', now: '2026-11-26T09:00:00Z' }
  it('is the hour of last time on the day they are due', () => {
    expect(proposeTime(slot({ id: '' }), wanted, [], [], 'UTC')).toEqual({
      startsAt: '2026-11-30T17:15:00.000Z',
      why: 'hour-of-last-time',
    })
  })
  it('is the nearest free quarter where that is taken, later before earlier', () => {
    const taken = slot({ id: 'b', clientId: 'tobin', startsAt: '2026-11-30T17:00:00Z', minutes: 45 })
    expect(proposeTime(slot({ id: '' }), wanted, [taken], [], 'UTC').startsAt).toBe('2026-11-30T17:45:00.000Z')
    const both = [taken, slot({ id: 'c', clientId: 'x', startsAt: '2026-11-30T17:45:00Z', minutes: 90 })]
    expect(proposeTime(slot({ id: '' }), wanted, both, [], 'UTC').startsAt).toBe('2026-11-30T16:30:00.000Z')
  })
  it('lies in the future, also for who is long overdue and when the hour has gone by', () => {
    const late = { ...wanted, day: '2026-10-01', now: '2026-11-26T18:00:00Z' }
    expect(proposeTime(slot({ id: '' }), late, [], [], 'UTC').startsAt).toBe('2026-11-27T17:15:00.000Z')
    const fresh = { ...wanted, lastAt: null }
    expect(proposeTime(slot({ id: '' }), fresh, [], [], 'UTC').why).toBe('usual-hour')
  })
})

describe('the length of a visit', () => {
  // Common practice: seven folds 12 minutes alone and 8 with a recorder, four girths 4, marking 3.
  it('follows the set, and the studio’s own median from the fifth on', () => {
    const seven = PROTOCOLS['laboratory-7']
    expect(visitMinutes(seven)).toBe(15)
    expect(visitMinutes(seven, { recorder: true })).toBe(11)
    expect(visitMinutes(PROTOCOLS['navy-tape'])).toBe(4)
    expect(visitMinutes(seven, { own: [20, 21, 22, 40] })).toBe(15)
    expect(visitMinutes(seven, { own: [20, 21, 22, 40, 19] })).toBe(21)
  })
})

it('what to wear goes with the sites', () => {
  expect(whatToWear(PROTOCOLS['laboratory-7'].sites)).toBe('Loose shorts and a top that lifts; dry skin, no lotion.')
  expect(whatToWear(['triceps'])).toContain('bare arms')
})
