import { Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { comparability, endFigures, sameFolds, type CheckinFacts, type Choices } from '../../core/composition'
import { composeSpan, followedEnd, spanLines, withTechnique } from '../../core/following'
import { dayNumber } from '../../core/calendar'
import { priorErrors, visitVariance } from '../../core/error'
import { isChoosable, OWN_POLICIES, policyChoices, sessionPolicies, sessionState } from '../../core/readings'
import { nextDue } from '../../core/schedule'
import { PROTOCOLS, type Protocol } from '../../core/protocols'
import { summariseSpan } from '../../core/following'
import { fold, rounds, weight } from '../support/readings'

const seven = PROTOCOLS['laboratory-7']
const person = { sex: 'female' as const, birthDate: '1992-03-14', heightCm: 174 }
const FOLDS = [14, 13, 8, 10, 15, 20, 22]
const UNITS = { mass: 'kg', length: 'cm' } as const

function facts(day: string, share: number, kg: number, protocol: Protocol = seven): CheckinFacts {
  const values = protocol.sites.map((_, i) => (FOLDS[i] ?? 12) * share)
  return {
    person,
    protocol,
    startedAt: `${day}T17:00:00.000Z`,
    readings: [weight(kg), ...rounds(protocol, values, values)],
    strikes: [],
  }
}

describe('a check-in as one end of a span', () => {
  const diary = ['26', '27', '28', '29', '30'].map((day, i) => ({ day: `2026-10-${day}`, weightKg: 70 + i / 10 }))

  it('carries the mean of its week where it was weighed daily', () => {
    expect(followedEnd(facts('2026-10-30', 1, 72), { weighIns: diary }).week).toEqual({ weightKg: 70.2, count: 5 })
    expect(followedEnd(facts('2026-09-30', 1, 72), { weighIns: diary }).week).toBeUndefined()
  })

  it('holds a week’s mean against a week’s mean only', () => {
    const [a, b] = [facts('2026-09-30', 1, 73), facts('2026-10-30', 1, 72)]
    const mixed = composeSpan(followedEnd(a), followedEnd(b, { weighIns: diary }), priorErrors)
    expect(mixed.byWeek).toBe(false)
    expect(mixed.weight?.change).toBeCloseTo(-1, 9)
    expect(mixed.now.weight?.value).toBe(72)
  })

  it('reads every check-in that feeds the chosen equation with it, and others with their own', () => {
    const choices: Choices = { conversion: 'siri', equationId: 'jackson-pollock-3-women' }
    expect(followedEnd(facts('2026-10-30', 1, 72), { choices }).result.estimate?.equation.id).toBe(choices.equationId)
    const eight = followedEnd(facts('2026-10-30', 1, 72, PROTOCOLS['kinanthropometry-8']), { choices })
    expect(eight.result.estimate?.equation.id).toBe('withers-4-women')
  })

  it('waits for the chosen equation while its sites are still to be read', () => {
    const unread = { ...facts('2026-10-30', 1, 72), readings: [weight(72), fold('triceps', 14)] }
    const choices: Choices = { conversion: 'siri', equationId: 'jackson-pollock-3-women' }
    const waiting = followedEnd(unread, { choices }).result.estimate
    expect(waiting).toMatchObject({ status: 'missing', equation: { id: choices.equationId } })
    // Without a choice another one waits: the set's own.
    expect(followedEnd(unread).result.estimate).toMatchObject({ equation: { id: 'jackson-pollock-7-women' } })
  })

  it('keeps sums and equations going when tape is added to the same folds', () => {
    expect(sameFolds(seven, PROTOCOLS['laboratory-7-tape'])).toBe(true)
    expect(sameFolds(seven, PROTOCOLS['laboratory-4'])).toBe(false)
    const ends = [facts('2026-09-30', 1, 73), facts('2026-10-30', 1, 72, PROTOCOLS['laboratory-7-tape'])] as const
    const found = comparability(followedEnd(ends[0]), followedEnd(ends[1]))
    expect([found.percent, found.differences]).toEqual([true, []])
  })
})

describe('the lines through a span', () => {
  const days = ['2026-06-01', '2026-07-03', '2026-08-02', '2026-09-05', '2026-10-01']
  const shares = [1, 0.95, 0.97, 0.88, 0.85]
  const ends = days.map((day, i) => followedEnd(facts(day, shares[i] ?? 1, 74 - i * 0.4)))

  it('solve the weighted normal equations (ml-matrix)', () => {
    const found = spanLines(ends, priorErrors).sum
    const points = ends.map((end, i) => {
      const values = FOLDS.map((mm) => mm * (shares[i] ?? 1))
      const variance = values.reduce((total, mm) => total + visitVariance(0.05 * mm, 2), 0)
      return { x: dayNumber(days[i] ?? ''), y: values.reduce((a, b) => a + b, 0), w: 1 / variance }
    })
    const origin = points[0]?.x ?? 0
    const rows = points.map(({ x, w }) => [Math.sqrt(w), Math.sqrt(w) * (x - origin)])
    const [, slope] = solve(
      new Matrix(rows),
      Matrix.columnVector(points.map(({ y, w }) => Math.sqrt(w) * y)),
    ).to1DArray()
    expect(found?.count).toBe(5)
    expect(found?.line.slope).toBeCloseTo(slope ?? NaN, 9)
  })

  it('leave out what cannot be held against the last check-in', () => {
    const eight = followedEnd(facts('2026-05-01', 1, 75, PROTOCOLS['kinanthropometry-8']))
    const found = spanLines([eight, ...ends], priorErrors)
    expect([found.fat?.count, found.sum?.count, found.weight?.count]).toEqual([5, 5, 6])
    expect(spanLines(ends.slice(0, 2), priorErrors).sum).toBeNull()
  })
})

describe('with better technique', () => {
  it('only the folds’ error changes, in proportion', () => {
    const [a, b] = [followedEnd(facts('2026-09-30', 1, 73)), followedEnd(facts('2026-10-30', 0.93, 72))]
    const own = composeSpan(a, b, priorErrors)
    const better = composeSpan(a, b, withTechnique(priorErrors, 0.025))
    expect(better.sum?.error).toBeCloseTo((own.sum?.error ?? NaN) / 2, 9)
    expect(better.sum?.change).toBe(own.sum?.change)
    expect([own.sum?.verdict, better.sum?.verdict]).toEqual(['likely', 'real'])
    expect(better.weight).toEqual(own.weight)
    expect(endFigures(b, priorErrors).sum?.value).toBeCloseTo(102 * 0.93, 9)
  })
})

describe('a span in plain sentences', () => {
  const span = (share: number, kg: number) =>
    composeSpan(followedEnd(facts('2026-08-30', 1, 74)), followedEnd(facts('2026-10-30', share, kg)), priorErrors)

  it('says what moved beyond error and what did not', () => {
    expect(summariseSpan(span(0.7, 71), UNITS)).toEqual([
      expect.stringMatching(/^Fat is down by \d\.\d kg, beyond the measuring error\.$/),
      expect.stringMatching(/^Lean mass/),
      'Weight is down by 3.0 kg, beyond the measuring error.',
      'Seven of seven folds are down beyond error.',
    ])
    expect(summariseSpan(span(1.004, 74.1), UNITS)).toEqual([
      'Fat, lean mass and weight are within error.',
      'No fold has moved beyond error (seven compared).',
    ])
  })

  it('holds neither weight nor masses in neutral mode', () => {
    const said = summariseSpan(span(0.7, 71), UNITS, true).join(' ')
    expect(said).not.toMatch(/kg|[Ww]eight|Fat|Lean|%/)
    expect(said).toBe(
      'The sum of folds is down by 30.6 mm, beyond the measuring error. Seven of seven folds are down beyond error.',
    )
  })

  it('speaks in pounds to those who read them', () => {
    expect(summariseSpan(span(0.7, 71), { mass: 'lb', length: 'in' }).join(' ')).toContain('Weight is down by 6.6 lb')
  })
})

describe('ways of reading', () => {
  it('offers each school its own variants, its own way first', () => {
    expect(policyChoices(seven)).toEqual({
      folds: ['laboratory', 'laboratory-strict', 'laboratory-large'],
      girths: ['tape', 'tape-percent'],
    })
    expect(policyChoices(PROTOCOLS['contest-prep-9']).folds).toEqual(['contest-prep', 'contest-prep-twice'])
    expect(isChoosable(seven, { folds: 'laboratory-strict', girths: null })).toBe(true)
    expect(isChoosable(seven, { folds: 'kinanthropometry-learner', girths: null })).toBe(false)
    expect(isChoosable(seven, OWN_POLICIES)).toBe(true)
  })

  it('asks for another round by the chosen way and not by the usual one', () => {
    const read = rounds(seven, FOLDS, [15.5, ...FOLDS.slice(1)])
    expect(sessionState(seven, read, []).complete).toBe(true)
    const strict = sessionState(seven, read, [], [], sessionPolicies({ folds: 'laboratory-strict', girths: null }))
    expect(strict.sites[0]?.status).toBe('disputed')
  })
})

it('counts four weeks to the next check-in', () => {
  expect(nextDue('2026-11-01T17:00:00.000Z')).toBe('2026-11-29')
  expect(nextDue('2026-12-20T08:00:00.000Z', 14)).toBe('2027-01-03')
})
