import { describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import { cautionFacts, cautionsFor, hasEffect } from '../../core/cautions'
import { composeWith, onTermsOf, suggestProtocols, type CheckinFacts, type SpanEnd } from '../../core/composition'
import { composeSpan, endFigures, followedEnd } from '../../core/following'
import { checkSlip, type Reading } from '../../core/readings'
import { PROTOCOLS, protocolFor } from '../../core/protocols'
import { formatTape } from '../../core/units'
import { isNeutral } from '../../shared/neutral'
import { fold, rounds, weight } from '../support/readings'

const four = PROTOCOLS['density-table-4']
const FOLDS = [14, 8, 16, 18, 20, 22, 24]

function visit(day: string, change: Partial<CheckinFacts> = {}): CheckinFacts {
  const protocol = change.protocol ?? four
  return {
    // Thirty on 15 June 2026: Durnin and Womersley's bands change there (equations page, recalled from the paper).
    person: { sex: 'female', birthDate: '1996-06-15', heightCm: 170 },
    protocol,
    startedAt: `${day}T17:00:00.000Z`,
    day,
    readings: [weight(70), ...rounds(protocol, FOLDS, FOLDS)],
    strikes: [],
    ...change,
  }
}
const height = (cm: number, second: number): Reading => ({
  ...fold('triceps', 10, second),
  site: 'height',
  value: cm,
  unit: 'cm',
})

describe('two visits on one age and one height', () => {
  const choices = { conversion: 'siri' as const, equationId: 'durnin-womersley' }

  it('are unchanged by a birthday in an equation with age bands', () => {
    const ends = ['2026-06-10', '2026-06-20'].map((day) => followedEnd(visit(day), { choices }))
    const [then, now] = ends
    if (!then || !now) throw new Error('no ends')
    expect([then.result.ageYears, now.result.ageYears]).toEqual([29, 30])
    // Each by itself jumps with the birthday: that is the equation's, not the body's.
    expect(Math.abs((then.result.masses?.fatKg ?? 0) - (now.result.masses?.fatKg ?? 0))).toBeGreaterThan(0.5)
    const span = composeSpan([then, now])
    expect(span.fat?.change).toBeCloseTo(0, 9)
    expect(span.percent?.change).toBeCloseTo(0, 9)
    expect(onTermsOf(then, now)).toBe(onTermsOf(then, now))
    const three = composeSpan([...ends, followedEnd(visit('2026-06-25'), { choices })])
    expect([three.fat?.change, three.fat?.verdict]).toEqual([expect.closeTo(0, 9), 'too-early'])
  })

  it('are composed from what was read as they would be from the readings themselves', () => {
    const [then, now] = ['2026-06-10', '2026-06-20'].map((day) => followedEnd(visit(day), { choices }))
    if (!then || !now) throw new Error('no ends')
    const terms = { ageYears: 30, heightCm: 170 }
    const equations = then.result.estimates.map(({ equation }) => equation)
    expect(onTermsOf(then, now).result).toEqual(composeWith(equations, { ...then.facts, terms }, choices))
    expect(onTermsOf(then, now).result.ageYears).not.toBe(then.result.ageYears)
  })

  it('are unchanged by a height measured anew', () => {
    const tape = PROTOCOLS['navy-tape']
    const of = (heightCm: number, day: string) =>
      followedEnd(
        visit(day, {
          protocol: tape,
          person: { sex: 'male', birthDate: '1986-06-15', heightCm },
          readings: [weight(80), ...rounds(tape, [38, 90, 92, 100], [38, 90, 92, 100])],
        }),
      )
    const span = composeSpan([of(176, '2026-01-10'), of(178, '2026-02-10')])
    expect(span.percent?.change).toBeCloseTo(0, 9)
  })
})

describe('a height', () => {
  it('of three trials, one of them off, is the middle one: 179, 178.1 and 187 are not 181.4', () => {
    const heights = [179, 178.1, 187].map((cm, i) => height(cm, i))
    const facts = visit('2026-06-10', { readings: [...heights, weight(70)] })
    expect(composeWith([], facts).heightCm).toBe(179)
    const agreeing = [179, 179.2, 178.9].map((cm, i) => height(cm, i))
    expect(composeWith([], { ...facts, readings: agreeing }).heightCm).toBeCloseTo(179.0333, 3)
  })
})

describe('weights', () => {
  const week = (last: string) => Array.from({ length: 7 }, (_, i) => ({ day: addDays(last, -i), weightKg: 60 }))

  it('of weeks and of visits are never in one line', () => {
    const days = ['2026-06-01', '2026-06-15', '2026-06-29']
    const ends = days.map((day, i) => followedEnd(visit(day), { weighIns: i === 2 ? week(day) : [] }))
    // 70 kg at every visit; the mean of the last week, 60, is another thing.
    const span = composeSpan(ends)
    expect([span.weight?.then, span.weight?.now, span.weight?.visits, span.week]).toEqual([70, 70, 3, null])
    const weighed = days.map((day) => followedEnd(visit(day), { weighIns: week(day) }))
    // The weight stays the visit's; the weeks' means are a figure of their own.
    const both = composeSpan(weighed)
    expect(endFigures(weighed[0] as SpanEnd).weight?.value).toBe(70)
    expect([both.weight?.now, both.week?.then, both.week?.now]).toEqual([70, 60, 60])
  })

  it('of the week before leave what a check-in says as it was', () => {
    const [plain, weekly] = [
      followedEnd(visit('2026-06-20')),
      followedEnd(visit('2026-06-20'), { weighIns: week('2026-06-20') }),
    ]
    const [a, b] = [endFigures(plain), endFigures(weekly)]
    expect(b).toEqual(a)
    // No weight enters this equation: the error of fat is that of the percent and of the weight.
    const percent = a.percent?.value ?? NaN
    const byFolds = (70 / 100) ** 2 * (a.percent?.variance ?? NaN)
    const byWeight = (percent / 100) ** 2 * (a.weight?.variance ?? NaN)
    expect(a.fat?.variance).toBeCloseTo(byFolds + byWeight, 12)
  })
})

describe('a slip', () => {
  it('is half an inch of girth in a week, and four kilograms in six days', () => {
    const girth = (value: number, daysSince: number | null) =>
      checkSlip({ measure: 'waist', value, last: { waist: 82 }, here: {}, daysSince })
    expect(girth(83.3, 7)).toMatchObject({ code: 'fast', blocks: false })
    expect(girth(83.3, 7)?.sentence).toContain('misplaced tape')
    expect(girth(83.2, 7)).toBeNull()
    expect(girth(83.3, 14)).toBeNull()
    expect(girth(83.3, null)).toBeNull()
    const kg = (value: number, daysSince: number) =>
      checkSlip({ measure: 'weight', value, last: { weight: 71 }, here: {}, daysSince })
    expect(kg(75, 6)).toMatchObject({ code: 'fast' })
    expect(kg(72, 6)).toBeNull()
    expect(kg(75, 60)).toBeNull()
  })
})

describe('cautions as effects', () => {
  const person = { sex: 'female' as const, birthDate: '2012-05-01', flags: [], consentOn: '2026-01-10' }

  it('hold measuring back under 18 until a guardian has agreed, counted on the day', () => {
    expect(hasEffect(person, '2026-06-10', 'not-yet')).toBe(true)
    expect(hasEffect({ ...person, guardianConsent: true }, '2026-06-10', 'not-yet')).toBe(false)
    expect(hasEffect(person, '2030-04-30', 'not-yet')).toBe(true)
    expect(hasEffect(person, '2030-05-01', 'not-yet')).toBe(false)
    expect(cautionsFor(cautionFacts(person, '2026-06-10')).map(({ code }) => code)).toEqual(['under-18', 'guardian'])
  })

  it('say who is shown no number, whatever the flag is called', () => {
    const grown = { ...person, birthDate: '1990-05-01' }
    expect(isNeutral(grown, '2026-06-10')).toBe(false)
    // Under 18 by default.
    expect(isNeutral(person, '2030-04-30')).toBe(true)
    expect(isNeutral(person, '2030-05-01')).toBe(false)
    for (const flag of ['eating-disorder', 'neutral-wish', 'pregnant', 'breastfeeding', 'dialysis'] as const)
      expect(isNeutral({ ...grown, flags: [flag] }, '2026-06-10')).toBe(true)
  })

  it('judge neither a child nor somebody pregnant by tables made on adults, and say why', () => {
    const of = (birthDate: string, flags: ('pregnant' | 'abnormal-limb')[]) =>
      composeWith([], visit('2026-06-10', { person: { sex: 'female', birthDate, heightCm: 170, flags } }))
    expect(of('1990-05-01', []).standings.length).toBeGreaterThan(0)
    expect(of('1990-05-01', []).noStandings).toBeNull()
    expect([of('2012-05-01', []).standings, of('1990-05-01', ['pregnant']).standings]).toEqual([[], []])
    expect(of('2012-05-01', []).noStandings).toMatch(/percentiles/)
    expect(of('1990-05-01', ['pregnant']).noStandings).toMatch(/pregnancy/)
  })

  it('offer somebody pregnant no folds', () => {
    const facts = { sex: 'female' as const, ageYears: 30, bmi: 24, largestFoldMm: 20, lastProtocolId: 'laboratory-7' }
    const offered = suggestProtocols({ ...facts, pregnant: true })
    expect(offered.map(({ protocolId }) => protocolId)).toEqual(['full-tape'])
    expect(suggestProtocols(facts).map(({ protocolId }) => protocolId)).toContain('laboratory-7')
  })
})

describe('the navy tape', () => {
  it('asks each sex for what its equation needs, and for more where it is wished or read', () => {
    const tape = PROTOCOLS['navy-tape']
    expect(protocolFor(tape, 'male').sites).toEqual(['neck', 'abdomen'])
    expect(protocolFor(tape, 'female').sites).toEqual(['neck', 'waist', 'hip'])
    expect(protocolFor(tape, 'male', ['hip']).sites).toEqual(['neck', 'abdomen', 'hip'])
    expect(protocolFor(four, 'male')).toBe(four)
  })
})

describe('a girth in inches', () => {
  it.each([
    [34.25, '34 1/4'],
    [34, '34'],
    [34.125, '34 1/8'],
    [33.99, '34'],
    [12.5, '12 1/2'],
    [7.875, '7 7/8'],
  ])('%d is read as %s', (inches, words) => {
    expect(formatTape(inches * 2.54, { mass: 'lb', length: 'in' })).toBe(words)
    expect(formatTape(inches * 2.54, { mass: 'kg', length: 'cm' })).toBe((inches * 2.54).toFixed(1))
  })
})
