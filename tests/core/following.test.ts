import { describe, expect, it } from 'vitest'
import { comparability, sameFolds, type CheckinFacts, type Choices } from '../../core/composition'
import {
  composeSpan,
  endFigures,
  errorParts,
  followedEnd,
  ASSUMED_NOISE,
  isWorthwhile,
  PROMISE,
  remediesFor,
  visitsUntilTold,
  wasReal,
} from '../../core/following'
import { ASSUMED_ERRORS, withFoldShare } from '../../core/error'
import { isChoosable, OWN_POLICIES, policyChoices, sessionPolicies, sessionState } from '../../core/readings'
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

  it('compares visits with visits, and a week’s mean with a week’s mean only', () => {
    const [a, b] = [facts('2026-09-30', 1, 73), facts('2026-10-30', 1, 72)]
    const mixed = composeSpan([followedEnd(a), followedEnd(b, { weighIns: diary })])
    expect(mixed.week).toBeNull()
    expect([mixed.weight?.then, mixed.weight?.now]).toEqual([73, 72])
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

/** Check-ins every four weeks, the folds and weight on straight ways. */
function history(share: number, kg: number, count = 7) {
  return Array.from({ length: count }, (_, i) => {
    const day = new Date(Date.UTC(2026, 0, 5 + 28 * i)).toISOString().slice(0, 10)
    return followedEnd(facts(day, 1 + ((share - 1) * i) / (count - 1), 74 + ((kg - 74) * i) / (count - 1)))
  })
}

describe('with better technique', () => {
  it('the same history says more, and the weight the same', () => {
    const ends = history(0.88, 73, 4)
    const own = composeSpan(ends)
    const better = composeSpan(ends, { model: withFoldShare(ASSUMED_ERRORS, 0.015) })
    expect(better.sum?.noise.sd).toBeLessThan(own.sum?.noise.sd ?? NaN)
    expect(better.sum?.odds).toBeGreaterThan(own.sum?.odds ?? NaN)
    expect(better.weight).toEqual(own.weight)
    const last = ends.at(-1)
    expect(last && endFigures(last).sum?.value).toBeCloseTo(102 * 0.88, 9)
  })

  it('is told sooner, the larger the change and the closer the check-ins the sooner', () => {
    const told = (perWeek: number, weeksApart: number, variance = 20) =>
      visitsUntilTold(perWeek, { weeksApart, variance }, ASSUMED_NOISE) ?? Infinity
    expect(told(2, 4)).toBeLessThan(told(1, 4))
    expect(told(1, 4)).toBeLessThan(told(1, 1))
    expect(told(1, 1, 9)).toBeLessThan(told(1, 1, 25))
    expect(visitsUntilTold(0.001, { weeksApart: 1, variance: 20 }, ASSUMED_NOISE)).toBeNull()
  })
})

describe('what an error is made of', () => {
  it('adds up to the whole, and says what would shrink it', () => {
    const parts = errorParts('sum', history(0.9, 73, 2), ASSUMED_NOISE)
    if (!parts) throw new Error('no parts')
    expect(Object.values(parts.shares).reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 12)
    expect(parts.shares.weight).toBe(0)
    expect(parts.shares.mark).toBeGreaterThan(parts.shares.reading)
    const [first, ...rest] = remediesFor(parts)
    expect(first?.sd).toBeLessThan(1)
    for (const one of rest) expect(one.sd).toBeGreaterThanOrEqual(first?.sd ?? NaN)
    const other = history(0.9, 73, 2).map((end, i) => ({ ...end, facts: { ...end.facts, assessorId: `a${i}` } }))
    expect(errorParts('sum', other, ASSUMED_NOISE)?.shares.hand).toBeGreaterThan(0.05)
  })
})

describe('a span in plain sentences', () => {
  const span = (share: number, kg: number) => composeSpan(history(share, kg))

  it('says what moved beyond error and what did not', () => {
    expect(summariseSpan(span(0.7, 71), UNITS)).toEqual([
      expect.stringMatching(/^Fat is down by \d\.\d kg, from \d+\.\d to \d+\.\d: a real loss\.$/),
      expect.stringMatching(/^Weight is down by \d\.\d kg, from .*: a real loss\.$/),
      'No sure change yet of lean mass.',
      'No single fold has changed for sure.',
    ])
    expect(summariseSpan(span(1.004, 74.1), UNITS)).toEqual([
      'No sure change yet of fat, lean mass and weight.',
      'No single fold has changed for sure.',
    ])
  })

  it('holds neither weight nor masses in neutral mode', () => {
    const said = summariseSpan(span(0.7, 71), UNITS, true).join(' ')
    expect(said).not.toMatch(/kg|[Ww]eight|Fat|Lean|%/)
    expect(said).toMatch(/^The sum of folds is down by \d+\.\d mm, from/)
  })

  it('speaks in pounds to those who read them', () => {
    expect(summariseSpan(span(0.7, 71), { mass: 'lb', length: 'in' }).join(' ')).toMatch(/Weight is down by \d\.\d lb/)
  })

  it('says where what is real is small', () => {
    const found = span(0.7, 71)
    expect(found.fat && isWorthwhile(found.fat)).toBe(true)
    const words = summariseSpan(found, UNITS, false, { fatKg: 10, sumPercent: 60 }).join(' ')
    expect(words).toContain('a real loss, though small')
    expect(PROMISE).toMatch(/at most one in twenty/)
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

describe('what was real and is not now', () => {
  const shares = [1, 0.93, 0.86, 0.8, 0.74, 0.7, 0.7, 0.8, 0.9, 0.97, 1, 1]
  const visits = shares.map((share, i) =>
    followedEnd(facts(new Date(Date.UTC(2026, 0, 5 + 14 * i)).toISOString().slice(0, 10), share, 55 + 20 * share)),
  )

  it('keeps its day, and in neutral mode speaks of no mass', () => {
    const back = composeSpan(visits)
    expect(back.sum?.verdict).toBe('back')
    const was = wasReal(back, false)
    expect(was.map(({ figure }) => figure)).toEqual(expect.arrayContaining(['sum', 'fat', 'weight']))
    expect(was.find(({ figure }) => figure === 'sum')?.on).toBe(back.sum?.realOn)
    expect(wasReal(back, true).map(({ figure }) => figure)).toEqual(['sum'])
    // While it is real it is said as such, and not as something that was.
    const down = composeSpan(visits.slice(0, 7))
    expect(down.sum?.verdict).toBe('real')
    expect(wasReal(down, false)).toEqual([])
  })
})
