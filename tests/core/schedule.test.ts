import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, daysBetween, localDay } from '../../core/calendar'
import { PROTOCOLS } from '../../core/protocols'
import {
  CADENCES,
  dueOn,
  nextDate,
  nextEvent,
  reasonSaid,
  USUAL_SCHEDULE,
  visitMinutes,
  type ClientSchedule,
} from '../../core/schedule'

const plan = (change: Partial<ClientSchedule>): ClientSchedule => ({ ...USUAL_SCHEDULE, ...change })
const race = (day: string) => ({ id: 'race', kind: 'race' as const, day, name: 'Reedwater Head' })
const say = (day: string) => day

describe('the next check-in', () => {
  it('comes a cadence after the last one: four weeks, or their own', () => {
    expect(nextDate('2026-11-01', USUAL_SCHEDULE, '2026-11-10')).toMatchObject({ day: '2026-11-29', reason: 'cadence' })
    expect(nextDate('2026-12-20', plan({ cadenceDays: 14 }), '2026-12-21').day).toBe('2027-01-03')
    expect(nextDate(null, USUAL_SCHEDULE, '2026-11-10')).toMatchObject({ day: '2026-11-10', reason: 'first' })
  })

  it('comes closer as a day that does not move comes near: two weeks in the last eight, weekly in the last three', () => {
    const schedule = plan({ events: [race('2026-12-20')] })
    // Seven weeks and a half before, then two and a half.
    expect(nextDate('2026-11-01', schedule, '2026-11-02')).toMatchObject({ day: '2026-11-15', reason: 'event' })
    expect(nextDate('2026-12-01', schedule, '2026-12-02')).toMatchObject({ day: '2026-12-08', cadenceDays: 7 })
    // After it the usual cadence again.
    expect(nextDate('2026-12-21', schedule, '2026-12-22')).toMatchObject({ day: '2027-01-18', reason: 'cadence' })
    // Who comes weekly anyway is not sent away.
    expect(nextDate('2026-12-01', plan({ cadenceDays: 7, events: [race('2026-12-20')] }), '2026-12-02')).toMatchObject({
      day: '2026-12-08',
      reason: 'cadence',
    })
  })

  it('does not step over the weeks before an event with a long cadence', () => {
    const schedule = plan({ cadenceDays: 84, events: [race('2027-02-01')] })
    // The eight weeks begin on 7 December; by the cadence it would be 24 January.
    expect(nextDate('2026-11-01', schedule, '2026-11-02')).toMatchObject({ day: '2026-12-07', reason: 'event' })
  })

  it('rests while measuring rests', () => {
    const schedule = plan({ pause: { until: '2026-12-31', reason: 'injury' } })
    expect(nextDate('2026-11-20', schedule, '2026-11-26')).toMatchObject({ day: '2027-01-01', reason: 'pause' })
    expect(nextDate(null, schedule, '2026-11-26').day).toBe('2027-01-01')
    expect(nextDate('2026-12-20', schedule, '2026-12-21')).toMatchObject({ day: '2027-01-17', reason: 'cadence' })
  })

  it('is due from its day on, and overdue by more than half a cadence', () => {
    const next = nextDate('2026-11-01', USUAL_SCHEDULE, '2026-11-10')
    expect(dueOn(next, '2026-11-28')).toEqual({ due: false, late: 0, overdue: false })
    expect(dueOn(next, '2026-11-29')).toEqual({ due: true, late: 0, overdue: false })
    expect(dueOn(next, '2026-12-13')).toEqual({ due: true, late: 14, overdue: false })
    expect(dueOn(next, '2026-12-14').overdue).toBe(true)
  })

  // Days, not hours: where clocks change, and where it is tomorrow already.
  it.each(['Pacific/Auckland', 'America/Los_Angeles', 'Asia/Kolkata'])('is counted in days of %s', (zone) => {
    for (const at of ['2026-03-08T09:30:00Z', '2026-04-05T13:30:00Z', '2026-09-26T13:30:00Z', '2026-11-01T08:30:00Z']) {
      const last = localDay(at, zone)
      const next = nextDate(last, plan({ cadenceDays: 7 }), last)
      expect(daysBetween(last, next.day)).toBe(7)
    }
  })

  it('never lies in the past of the last one, and says why, whatever is kept', () => {
    const day = fc.integer({ min: 0, max: 400 }).map((after) => addDays('2026-01-01', after))
    fc.assert(
      fc.property(
        day,
        fc.option(fc.integer({ min: 1, max: 366 })),
        fc.option(day),
        fc.array(day, { maxLength: 4 }),
        day,
        (last, cadenceDays, until, events, today) => {
          const schedule = plan({
            cadenceDays,
            pause: until ? { until, reason: 'holiday' } : null,
            events: events.map((one, i) => ({ ...race(one), id: String(i) })),
          })
          const next = nextDate(last, schedule, today)
          expect(next.day > last).toBe(true)
          if (until) expect(next.day > until || next.day > last).toBe(true)
          if (next.reason !== 'pause') expect(daysBetween(last, next.day)).toBeLessThanOrEqual(cadenceDays ?? 28)
          expect(reasonSaid(next, say).length).toBeGreaterThan(5)
          expect((nextEvent(schedule, today)?.day ?? today) >= today).toBe(true)
        },
      ),
    )
  })

  it('says its reason', () => {
    const schedule = plan({ events: [race('2026-12-20')] })
    expect(reasonSaid(nextDate('2026-12-01', schedule, '2026-12-02'), say)).toBe(
      'weekly, before Reedwater Head on 2026-12-20',
    )
    expect(reasonSaid(nextDate('2026-11-01', plan({ cadenceDays: 10 }), '2026-11-02'), say)).toBe('every 10 days')
    for (const { days, name } of CADENCES)
      expect(reasonSaid(nextDate('2026-11-01', plan({ cadenceDays: days }), '2026-11-02'), say)).toBe(name)
  })
})

describe('the length of a visit', () => {
  // Common practice: seven folds in two rounds 12 minutes alone and 8 with a recorder, a tape of four 4, marking 3.
  it('is what it usually takes, until five of the studio’s own are known', () => {
    const seven = PROTOCOLS['laboratory-7']
    expect(visitMinutes(seven)).toBe(15)
    expect(visitMinutes(seven, { recorder: true })).toBe(11)
    const tape = Object.values(PROTOCOLS).find(({ sites }) => sites.length === 4 && sites.includes('waist'))
    if (tape) expect(visitMinutes(tape)).toBe(4)
    expect(visitMinutes(seven, { own: [20, 21, 19, 22] })).toBe(15)
    expect(visitMinutes(seven, { own: [20, 21, 19, 22, 500, 23] })).toBe(21)
  })
})
