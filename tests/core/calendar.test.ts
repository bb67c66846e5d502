import { tz } from '@date-fns/tz'
import { addDays as datePlus, format } from 'date-fns'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addDays,
  ageInYears,
  clockIn,
  dayBegins,
  dayNumber,
  daysBetween,
  isDay,
  isTimeZone,
  latestDay,
  localDay,
  sayInZone,
} from '../../core/calendar'
import { dayOf } from '../../core/composition'
import { followedEnd } from '../../core/following'
import { dueOn, nextDate, USUAL_SCHEDULE } from '../../core/schedule'
import { PROTOCOLS } from '../../core/protocols'
import { rounds, weight } from '../support/readings'

const AUCKLAND = 'Pacific/Auckland'
const ANGELES = 'America/Los_Angeles'
const KOLKATA = 'Asia/Kolkata'

/** The day the platform's own calendar shows, by Intl: an implementation that shares nothing with ours. */
function byIntl(instant: Date, timeZone: string): string {
  const parts = new Intl.DateTimeFormat('en', {
    timeZone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).formatToParts(instant)
  const of = (type: string) => parts.find((part) => part.type === type)?.value ?? ''
  return `${of('year')}-${of('month')}-${of('day')}`
}

describe('the clock of a zone, for hundreds at once', () => {
  it('is the one said by date-fns, at any instant in any zone', () => {
    const zones = fc.constantFrom(
      'Pacific/Auckland',
      'America/Los_Angeles',
      'Asia/Kolkata',
      'Europe/Berlin',
      'UTC',
      'Australia/Lord_Howe',
    )
    fc.assert(
      fc.property(fc.integer({ min: Date.UTC(2000, 0, 1), max: Date.UTC(2100, 0, 1) }), zones, (instant, zone) => {
        const { day, minute } = clockIn(instant, zone)
        const [said, clock = ''] = sayInZone(instant, zone, 'yyyy-MM-dd HH:mm').split(' ')
        expect(day).toBe(said)
        expect(minute).toBe(60 * Number(clock.slice(0, 2)) + Number(clock.slice(3)))
      }),
      { numRuns: 500 },
    )
  })
})

describe('the day it is somewhere', () => {
  it.each([
    ['in Auckland at eleven in the morning, a day ahead of UTC', '2026-11-24T22:00:00Z', AUCKLAND, '2026-11-25'],
    ['in Los Angeles in the evening, a day behind UTC', '2026-11-25T02:30:00Z', ANGELES, '2026-11-24'],
    ['in Kolkata half an hour past midnight', '2026-11-24T19:00:00Z', KOLKATA, '2026-11-25'],
    ['in Auckland the night its clocks go forward', '2026-09-26T14:30:00Z', AUCKLAND, '2026-09-27'],
    ['in Los Angeles the night its clocks go back, before', '2026-11-01T08:30:00Z', ANGELES, '2026-11-01'],
    ['in Los Angeles the night its clocks go back, after', '2026-11-02T07:59:00Z', ANGELES, '2026-11-01'],
  ])('is right %s', (_, instant, zone, day) => {
    expect(localDay(instant, zone)).toBe(day)
  })

  it('is what the platform’s calendar shows, at any instant in any of many zones', () => {
    const zones = fc.constantFrom(
      AUCKLAND,
      ANGELES,
      KOLKATA,
      'America/St_Johns',
      'Pacific/Chatham',
      'Europe/Berlin',
      'Africa/Casablanca',
      'UTC',
    )
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1995-01-01'), max: new Date('2049-12-31'), noInvalidDate: true }),
        zones,
        (at, zone) => {
          expect(localDay(at, zone)).toBe(byIntl(at, zone))
        },
      ),
    )
  })

  it('begins where the platform’s day changes, also when the clocks do', () => {
    const day = fc
      .date({ min: new Date('1995-01-01'), max: new Date('2049-12-31'), noInvalidDate: true })
      .map((at) => at.toISOString().slice(0, 10))
    fc.assert(
      fc.property(day, fc.constantFrom(AUCKLAND, ANGELES, KOLKATA, 'Europe/Berlin'), (on, zone) => {
        const begins = Date.parse(dayBegins(on, zone))
        expect(byIntl(new Date(begins), zone)).toBe(on)
        expect(byIntl(new Date(begins - 1), zone)).toBe(addDays(on, -1))
      }),
    )
  })

  it('says the clock of a place', () => {
    expect(sayInZone('2026-11-24T22:05:00Z', KOLKATA, 'd MMM HH:mm')).toBe('25 Nov 03:35')
    expect(sayInZone('2026-09-26T14:30:00Z', AUCKLAND, 'HH:mm')).toBe('03:30')
  })

  it('has come nowhere yet beyond the latest day on earth', () => {
    const now = new Date('2026-11-24T10:30:00Z')
    expect(latestDay(now)).toBe('2026-11-25')
    expect([AUCKLAND, ANGELES, KOLKATA].every((zone) => localDay(now, zone) <= latestDay(now))).toBe(true)
  })
})

describe('days counted', () => {
  it('are calendar days, whatever the clocks do between them', () => {
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2)
    expect(daysBetween('2026-10-31', '2026-11-02')).toBe(2)
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2)
    expect(dayNumber('1970-01-03')).toBe(2)
  })

  it('add up as date-fns counts them in UTC', () => {
    const on = fc.date({ min: new Date('1995-01-01'), max: new Date('2049-12-31'), noInvalidDate: true })
    fc.assert(
      fc.property(on, fc.integer({ min: -900, max: 900 }), (at, days) => {
        const day = at.toISOString().slice(0, 10)
        const expected = format(datePlus(at, days, { in: tz('UTC') }), 'yyyy-MM-dd', { in: tz('UTC') })
        expect(addDays(day, days)).toBe(expected)
        expect(daysBetween(day, addDays(day, days))).toBe(days)
      }),
    )
  })

  it('are days that exist, of our centuries', () => {
    expect(['2026-02-28', '2028-02-29', '1900-01-01'].every(isDay)).toBe(true)
    expect(['2026-02-29', '0000-01-01', '0099-12-31', '2026-13-01', '26-01-01', '2026-1-1', ''].some(isDay)).toBe(false)
  })

  it('know places by their names only', () => {
    expect([AUCKLAND, 'UTC', KOLKATA].every(isTimeZone)).toBe(true)
    expect(['', 'Nowhere/Land', '+05:30', 'a\u0000'].some(isTimeZone)).toBe(false)
  })
})

describe('age', () => {
  it('changes on the birthday where the studio is, and for 29 February on 1 March of other years', () => {
    expect(ageInYears('1992-11-24', '2026-11-23')).toBe(33)
    expect(ageInYears('1992-11-24', '2026-11-24')).toBe(34)
    expect(ageInYears('2008-02-29', '2026-02-28')).toBe(17)
    expect(ageInYears('2008-02-29', '2026-03-01')).toBe(18)
    expect(ageInYears('2008-02-29', '2028-02-28')).toBe(19)
    expect(ageInYears('2008-02-29', '2028-02-29')).toBe(20)
  })

  it('of a check-in is counted by its own day, not by UTC’s', () => {
    const protocol = PROTOCOLS['laboratory-7']
    const at = '2026-11-24T22:00:00.000Z'
    const facts = {
      person: { sex: 'female' as const, birthDate: '1992-11-25', heightCm: 174 },
      protocol,
      startedAt: at,
      readings: [weight(71), ...rounds(protocol, [16, 11, 8, 9, 12, 19, 24])],
      strikes: [],
    }
    expect(followedEnd({ ...facts, day: localDay(at, AUCKLAND) }).result.ageYears).toBe(34)
    expect(followedEnd({ ...facts, day: localDay(at, ANGELES) }).result.ageYears).toBe(33)
    expect(dayOf(facts)).toBe('2026-11-24')
  })
})

describe('the week of a check-in', () => {
  it('is the seven days up to its own day: 73 of 7 in Auckland, where UTC’s day gave 72.5 of 6', () => {
    const protocol = PROTOCOLS['laboratory-7']
    const at = '2026-11-24T22:00:00.000Z'
    // Seven days up to the 25th, 70 to 76 kg: their mean is 73; without the last it is 72.5.
    const weighIns = Array.from({ length: 7 }, (_, i) => ({ day: addDays('2026-11-19', i), weightKg: 70 + i }))
    const facts = {
      person: { sex: 'female' as const, birthDate: '1992-03-14', heightCm: 174 },
      protocol,
      startedAt: at,
      readings: [weight(71), ...rounds(protocol, [16, 11, 8, 9, 12, 19, 24])],
      strikes: [],
    }
    expect(followedEnd({ ...facts, day: localDay(at, AUCKLAND) }, { weighIns }).week).toEqual({
      weightKg: 73,
      count: 7,
    })
    expect(followedEnd({ ...facts, day: localDay(at, 'UTC') }, { weighIns }).week).toEqual({ weightKg: 72.5, count: 6 })
  })
})

describe('due', () => {
  it('is one thing: never measured, or the day has come', () => {
    const due = (last: string | null, today: string) => dueOn(nextDate(last, USUAL_SCHEDULE, today), today).due
    expect(nextDate('2026-11-01', USUAL_SCHEDULE, '2026-11-02').day).toBe('2026-11-29')
    expect(due(null, '2026-11-01')).toBe(true)
    expect(due('2026-11-01', '2026-11-28')).toBe(false)
    expect(due('2026-11-01', '2026-11-29')).toBe(true)
  })
})
