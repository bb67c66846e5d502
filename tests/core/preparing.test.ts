import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answerIds, breaksHistory, conditionChanges, CONDITIONS, suggestProtocols } from '../../core/composition'
import { sayWhy, whyOf } from '../../core/readings'
import { readLine, writeLine } from '../../core/devices'
import { caliperShows, scaleShows, seededRandom } from '../../core/simulate'

const adult = { sex: 'female' as const, ageYears: 34, bmi: 23, largestFoldMm: 22, lastProtocolId: null }
const offered = (change: Partial<Parameters<typeof suggestProtocols>[0]>) =>
  suggestProtocols({ ...adult, ...change }).map(({ protocolId }) => protocolId)

// Trade facts: common practice.
describe('what to measure', () => {
  it('offers the same set as last time, and seven folds to somebody new', () => {
    expect(offered({})).toEqual(['laboratory-7'])
    expect(offered({ lastProtocolId: 'kinanthropometry-8' })).toEqual(['kinanthropometry-8'])
  })

  it('offers the tape first where folds serve badly, and children’s folds under 18', () => {
    expect(offered({ bmi: 35, lastProtocolId: 'laboratory-7' })).toEqual(['navy-tape', 'laboratory-7'])
    expect(offered({ largestFoldMm: 61 })[0]).toBe('navy-tape')
    expect(offered({ ageYears: 15 })).toEqual(['youth-2'])
  })

  it('says when a set breaks the history, and which conditions differ', () => {
    expect(breaksHistory('laboratory-7', 'laboratory-7')).toBeNull()
    expect(breaksHistory('laboratory-7', null)).toBeNull()
    expect(breaksHistory('laboratory-7', 'athlete-6')).toContain('last time six folds, athletes')
    const changes = conditionChanges({ training: 'before', skin: 'dry' }, { training: 'after' })
    expect(changes.map(({ condition, then, now }) => [condition.id, then.name, now.name])).toEqual([
      ['training', 'before training', 'after training'],
    ])
  })

  it('takes answers by id or by name and gives ids, and none for what it does not know', () => {
    expect(answerIds(CONDITIONS, { training: 'after training', toilet: 'just-before' })).toEqual({
      training: 'after',
      toilet: 'just-before',
    })
    expect(answerIds(CONDITIONS, { training: 'during' })).toBeNull()
    expect(answerIds(CONDITIONS, { moon: 'full' })).toBeNull()
  })

  it('takes a reason to leave a site out by its id, its sentence or in other words', () => {
    expect(whyOf('no-time')).toEqual({ reason: 'no-time', words: '' })
    expect(whyOf('no time today')).toEqual({ reason: 'no-time', words: '' })
    expect(sayWhy(whyOf('A graze.'))).toBe('A graze.')
    expect(sayWhy({ reason: 'covered' })).toBe('dressing, wound or strap in the way')
  })
})

describe('lines of a device', () => {
  it('reads what it writes', () => {
    const press = { type: 'press', device: 'caliper', value: 13.5, id: 'a1' } as const
    expect(writeLine(press)).toContain('"mm":13.5')
    expect(readLine(writeLine(press))).toEqual(press)
    const value = { type: 'value', device: 'scale', value: 72.4, settled: false } as const
    expect(readLine(writeLine(value))).toEqual(value)
  })

  it.each([
    '',
    '%%%',
    'null',
    '[]',
    '{"type":"press","device":"caliper","mm":"often","id":"x"}',
    '{"type":"press","device":"caliper","mm":9}',
  ])('passes over %j', (line) => expect(readLine(line)).toBeNull())

  it('never throws, whatever a device sends', () => {
    fc.assert(fc.property(fc.oneof(fc.string(), fc.json()), (line) => void readLine(line)))
  })
})

describe('the stand-ins', () => {
  const quiet = { zeroErrorMm: 0, noiseMm: 0 }

  it('a caliper creeps down and shows the fold at two seconds, plus its zero error', () => {
    const at = (seconds: number) => caliperShows(14, seconds, quiet, seededRandom(1))
    expect(at(2)).toBeCloseTo(14, 10)
    expect(at(0)).toBeGreaterThan(at(1))
    expect(at(1)).toBeGreaterThan(at(4))
    expect(caliperShows(14, 2, { ...quiet, zeroErrorMm: 0.5 }, seededRandom(1))).toBeCloseTo(14.5, 10)
  })

  it('a scale settles on the weight', () => {
    expect(scaleShows(72.4, 0.2, seededRandom(1)).settled).toBe(false)
    expect(scaleShows(72.4, 4, seededRandom(1))).toEqual({ kg: 72.4, settled: true })
  })
})
