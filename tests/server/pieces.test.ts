import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { WAY_IDS } from '../../core/sites'
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
