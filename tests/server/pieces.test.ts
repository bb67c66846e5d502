import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { WAY_IDS } from '../../core/sites'
import { memoryAttempts } from '../../server/ports/attempts'
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
    method: fc.option(fc.constantFrom(...WAY_IDS)),
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

describe('attempts to get in', () => {
  const pace = { free: 5, firstMs: 1000, longestMs: 300_000 }
  const account = (key: string, real = true) => [{ key, pace, real }]

  it('are counted before they are tried: of sixty sent together five are', () => {
    const attempts = memoryAttempts()
    const waits = Array.from({ length: 60 }, () => attempts.begin(account('runa'), 0))
    expect(waits.filter((wait) => wait === 0)).toHaveLength(5)
  })

  it('wait for a second after the fifth, then twice as long each time, up to five minutes and never for good', () => {
    const attempts = memoryAttempts()
    for (let i = 0; i < 5; i += 1) attempts.begin(account('runa'), 0)
    const waited: number[] = []
    let now = 0
    for (let i = 0; i < 12; i += 1) {
      const wait = attempts.begin(account('runa'), now)
      waited.push(wait)
      now += wait
      expect(attempts.begin(account('runa'), now)).toBe(0)
    }
    expect(waited.slice(0, 5)).toEqual([1000, 2000, 4000, 8000, 16_000])
    expect(Math.max(...waited)).toBe(300_000)
  })

  it('leave a known device and another account alone, and a right password clears its own', () => {
    const attempts = memoryAttempts()
    for (let i = 0; i < 50; i += 1) attempts.begin(account('account runa'), 0)
    expect(attempts.begin(account('device 1 runa'), 0)).toBe(0)
    expect(attempts.begin(account('account ivo'), 0)).toBe(0)
    attempts.succeeded('account runa', true)
    expect(attempts.begin(account('account runa'), 0)).toBe(0)
  })

  it('of a real account are not pushed out by thirty thousand made-up ones', () => {
    const attempts = memoryAttempts()
    for (let i = 0; i < 6; i += 1) attempts.begin(account('runa'), 0)
    for (let i = 0; i < 30_000; i += 1) attempts.begin(account(`made up ${i}`, false), 0)
    expect(attempts.begin(account('runa'), 0)).toBe(1000)
  })
})
