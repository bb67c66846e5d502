import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { afterEach, describe, expect, it } from 'vitest'
import { forgetFailures, minutesToWait, noteFailure } from '../../server/http/attempts'
import { readReadingLines } from '../../server/repositories/reading-lines'

interface Stored {
  id: string
  site: string
  round: number
  value: number
  unit: string
  takenAt: number
  source: string
  method: string | null
  struckAt: number | null
}

/** A reading as the database writes it: seconds with as many digits as it has, nothing for what is not there. */
function written(one: Stored): string {
  const seconds = (ms: number | null) => (ms === null ? '' : String(ms / 1000))
  const { id, site, round, value, unit, takenAt, source, method, struckAt } = one
  return [id, site, round, value, unit, seconds(takenAt), source, method ?? '', seconds(struckAt)].join('\t')
}

describe('readings as lines of text', () => {
  const instant = fc.integer({ min: Date.UTC(2000, 0, 1), max: Date.UTC(2050, 0, 1) })
  const reading = fc.record({
    id: fc.uuid(),
    site: fc.constantFrom('triceps', 'thigh-girth', 'weight'),
    round: fc.integer({ min: 1, max: 20 }),
    value: fc.double({ min: 0.1, max: 350, noNaN: true }),
    unit: fc.constantFrom('mm', 'cm', 'in', 'kg', 'lb'),
    takenAt: instant,
    source: fc.constantFrom('keyboard', 'device'),
    method: fc.option(fc.constantFrom('stretch', 'stand')),
    struckAt: fc.option(instant),
  })

  it('come back as they were, to the millisecond, in the order they were taken', () => {
    fc.assert(
      fc.property(fc.uniqueArray(reading, { minLength: 1, selector: ({ id }) => id }), (stored) => {
        const expected = [...stored]
          .sort((a, b) => a.takenAt - b.takenAt || (a.id < b.id ? -1 : 1))
          .map((one) => ({
            ...one,
            takenAt: new Date(one.takenAt).toISOString(),
            struckAt: one.struckAt === null ? null : new Date(one.struckAt).toISOString(),
          }))
        expect(readReadingLines(stored.map(written).join('\n'))).toEqual(expected)
      }),
    )
  })

  it('of one moment stand in the order of their ids', () => {
    const stored = [uuid(), uuid(), uuid()].map((id) => ({
      id,
      site: 'triceps',
      round: 1,
      value: 12.5,
      unit: 'mm',
      takenAt: Date.UTC(2026, 10, 20, 17, 0, 0, 123),
      source: 'keyboard',
      method: null,
      struckAt: null,
    }))
    const read = readReadingLines([...stored].reverse().map(written).join('\n'))
    expect(read.map(({ id }) => id)).toEqual(stored.map(({ id }) => id))
    expect(read[0]?.takenAt).toBe('2026-11-20T17:00:00.123Z')
  })
})

describe('failed sign-ins of one account', () => {
  const account = 'runa@reedwater.example'
  const minutes = (n: number) => n * 60_000
  afterEach(() => forgetFailures(account))
  const fail = (times: number, at: number) => Array.from({ length: times }, () => noteFailure(account, at))

  it('make it wait from the eighth within a quarter of an hour, until that is over', () => {
    fail(7, 0)
    expect(minutesToWait(account, minutes(1))).toBe(0)
    fail(1, minutes(1))
    expect(minutesToWait(account, minutes(1))).toBe(14)
    expect(minutesToWait(account, minutes(14.5))).toBe(1)
    expect(minutesToWait(account, minutes(15))).toBe(0)
    expect(minutesToWait(account, minutes(1))).toBe(0)
  })

  it('count anew after a quarter of an hour, and not at all after a good one', () => {
    fail(7, 0)
    fail(7, minutes(16))
    expect(minutesToWait(account, minutes(16))).toBe(0)
    fail(1, minutes(16))
    expect(minutesToWait(account, minutes(16))).toBeGreaterThan(0)
    forgetFailures(account)
    expect(minutesToWait(account, minutes(16))).toBe(0)
  })

  it('are that account’s own', () => {
    fail(9, 0)
    expect(minutesToWait('ivo@reedwater.example', 0)).toBe(0)
  })
})
