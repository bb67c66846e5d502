import { describe, expect, it } from 'vitest'
import { composeCheckin, type SpanEnd } from '../../core/composition'
import { composeSpan } from '../../core/following'
import { gradientOf } from '../../core/error'
import { findEquation } from '../../core/equations'
import { PROTOCOLS } from '../../core/protocols'
import { chosenShare, oddsSaid, oddsSentence, readSpan, searchedShare } from '../../core/following'
import { course, end, person, scaled, steadily, THEN, type Visit } from '../support/span-ends'

const seven = PROTOCOLS['laboratory-7']

function span(a: Visit, b: Visit) {
  return composeSpan([end(a, '09'), end(b, '11')])
}

const codes = (found: ReturnType<typeof span>) => readSpan(found).map(({ code }) => code)

describe('a span of two check-ins', () => {
  const found = span({ folds: THEN, kg: 74 }, { folds: scaled(0.7), kg: 71 })

  /** A fold's variance at a visit as following.md assumes it: floor, share and marks; mark anew; repeats alike count once. */
  const visit = (mm: number) => (1.5 ** 2 + 1) * (0.4 ** 2 + (0.04 * mm) ** 2 + 0.5 ** 2 / 12)
  const means = THEN.map((mm) => mm * 0.85)

  it('gives each site the error of a visit, by hand', () => {
    const [triceps = 0] = means
    expect(found.folds[0]?.change).toMatchObject({ then: 14, visits: 2 })
    // Seven sites share one verdict.
    expect(found.folds[0]?.change.needed).toBeCloseTo(7 * (found.sum?.needed ?? NaN), 9)
    expect(found.folds[0]?.change.now).toBeCloseTo(9.8, 10)
    expect(found.folds[0]?.change.noise.sd).toBeCloseTo(Math.sqrt(visit(triceps) + (0.03 * triceps) ** 2), 10)
  })

  it('adds the sites for the sum, the day common to them all', () => {
    const own = means.reduce((sum, mm) => sum + visit(mm), 0)
    const total = means.reduce((sum, mm) => sum + mm, 0)
    expect((found.sum?.now ?? NaN) - (found.sum?.then ?? NaN)).toBeCloseTo(-0.3 * 102, 9)
    expect(found.sum?.noise.sd).toBeCloseTo(Math.sqrt(own + (0.03 * total) ** 2), 9)
    expect(found.summed).toEqual(seven.sites)
    expect(found.leading).toBe(found.sum)
  })

  it('propagates site errors to percent through the equation, not its standard error', () => {
    const equation = findEquation('jackson-pollock-7-women')
    if (!equation) throw new Error('missing')
    const measures = Object.fromEntries(seven.sites.map((site, i) => [site, means[i] ?? 0]))
    const gradient = gradientOf(equation, { ...measures, age: 34 } as never, { person, conversion: 'siri' })
    const slope = (i: number) => gradient?.[seven.sites[i] ?? 'triceps'] ?? NaN
    const own = means.reduce((sum, mm, i) => sum + slope(i) ** 2 * visit(mm), 0)
    const day = means.reduce((sum, mm, i) => sum + slope(i) * 0.03 * mm, 0)
    expect(found.percent?.noise.sd).toBeCloseTo(Math.sqrt(own + day ** 2), 6)
    // The level's 3.8 points do not belong to a change.
    expect(found.percent?.noise.sd).toBeLessThan(1.5)
    expect((found.fat?.now ?? 0) + (found.lean?.now ?? 0)).toBeCloseTo(71, 9)
  })

  it('is too early to say anything of a tiny change, and knows the days between', () => {
    const tiny = span({ folds: THEN, kg: 74 }, { folds: THEN.map((mm) => mm + 0.25), kg: 74.1 })
    expect(tiny.sum?.verdict).toBe('too-early')
    expect(tiny.weight?.verdict).toBe('too-early')
    expect(tiny.folds.every(({ change }) => change.verdict === 'too-early')).toBe(true)
    expect(tiny.sum?.odds).toBeLessThan(1)
    expect(tiny.days).toBe(61)
  })

  it('holds the weeks’ means as a figure of its own, with less noise', () => {
    const [a, b] = [end({ folds: THEN, kg: 74 }, '09'), end({ folds: THEN, kg: 72.8 }, '11')]
    const single = composeSpan([a, b]).weight
    const weekly = composeSpan([
      { ...a, week: { weightKg: 74, count: 7 } },
      { ...b, week: { weightKg: 72.8, count: 7 } },
    ]).week
    // Days half alike: of seven, 1 + 2 (6/7 0.5 + 5/7 0.25 + ...) over seven are left.
    const left = [1, 2, 3, 4, 5, 6].reduce((sum, lag) => sum + 2 * (1 - lag / 7) * 0.5 ** lag, 1) / 7
    expect(weekly?.noise.sd).toBeCloseTo((single?.noise.sd ?? 0) * Math.sqrt(left), 9)
    expect(weekly?.odds).toBeGreaterThan(single?.odds ?? NaN)
  })
})

describe('what cannot be compared', () => {
  const three = PROTOCOLS['laboratory-3-women']

  it('refuses the percent across equations and sums the shared sites', () => {
    const found = span({ folds: THEN, kg: 74 }, { folds: [13, 14, 20], kg: 73, protocol: three })
    expect(found.comparability.percent).toBe(false)
    expect([found.percent, found.fat, found.lean, found.recomposition]).toEqual([null, null, null, null])
    expect(found.summed).toEqual(['triceps', 'suprailiac', 'thigh'])
    expect([found.sum?.then, found.sum?.now]).toEqual([14 + 15 + 22, 13 + 14 + 20])
    expect(found.comparability.differences.map(({ code }) => code)).toEqual(['sites', 'equation'])
  })

  it('shares nothing but like sites across schools', () => {
    const eight = PROTOCOLS['kinanthropometry-8']
    const found = span({ folds: THEN, kg: 74 }, { folds: [], kg: 74, protocol: eight })
    // The triceps of one school is not that of the other.
    expect(found.summed).toEqual(['subscapular'])
    expect(found.comparability.differences.map(({ code }) => code)).toContain('school')
  })

  it('refuses the percent across conversions', () => {
    const [a, b] = [end({ folds: THEN, kg: 74 }, '09'), end({ folds: THEN, kg: 74 }, '11')]
    const found = composeSpan([a, { ...b, choices: { conversion: 'brozek', equationId: null } }])
    expect(found.percent).toBeNull()
    expect(found.comparability.differences.map(({ code }) => code)).toEqual(['conversion'])
  })

  it('adds the error between assessors, and names caliper and conditions that differ', () => {
    const before = {
      assessorId: 'runa',
      caliper: { id: 'steel', daysSinceCheck: 3, deviationMm: 0 },
      conditions: { training: 'before' },
    }
    const after = {
      assessorId: 'ivo',
      caliper: { id: 'plastic', daysSinceCheck: 3, deviationMm: 0 },
      conditions: { training: 'after' },
    }
    const same = span({ folds: THEN, kg: 74, more: before }, { folds: scaled(0.7), kg: 74, more: before })
    const other = span({ folds: THEN, kg: 74, more: before }, { folds: scaled(0.7), kg: 74, more: after })
    expect(other.sum?.odds).toBeLessThan(same.sum?.odds ?? NaN)
    expect(other.comparability.differences.map(({ code }) => code)).toEqual(['assessor', 'caliper', 'conditions'])
    expect(same.comparability.differences).toEqual([])
  })
})

/** Check-ins four weeks apart, each with its folds as a share of the first's and its weight. */
const said = (ends: SpanEnd[]) => readSpan(composeSpan(ends)).map(({ code }) => code)

// A cause is named from what is real, and from nothing else (following.md).
describe('a history put into words', () => {
  it.each([
    ['fat-down', -0.3, -4],
    ['fat-for-lean', -0.35, 3],
    ['intake', 0.35, 5],
    ['lean-for-fat', 0.45, -3],
    ['lean-or-water', 0, -6],
    ['lean-or-water-up', 0, 6],
  ] as const)('%s', (code, share, kg) => {
    expect(said(steadily(share, kg))).toContain(code)
  })

  it('names no cause where nothing is established', () => {
    const causes = /fat-|lean-|intake|folds-against/
    for (const [share, kg] of [
      [0, 0],
      [-0.03, -0.4],
      [0.04, 0.3],
    ] as const)
      expect(said(steadily(share, kg, 4)).filter((code) => causes.test(code))).toEqual([])
  })

  it('says of some sign when it will be sure, of too early what was measured, and no sign', () => {
    // Some change between none and one that is plain shows some sign.
    const spans = Array.from({ length: 30 }, (_, i) => composeSpan(steadily(-0.01 * (i + 1), 0, 4)))
    const shows = spans.find(({ leading }) => leading?.verdict === 'some-sign')
    if (!shows) throw new Error('none shows a sign')
    const [reading] = readSpan(shows, undefined, (day) => `<${day}>`).filter(({ code }) => code === 'some-sign')
    expect(reading?.sentence).toMatch(
      /^Some sign of a loss, not sure yet\. At this pace it will be sure by about <\d{4}-/,
    )
    expect(reading?.facts[0]).toMatch(/^\d+\.\d → \d+\.\d mm, −\d+\.\d: some sign of a loss$/)
    expect(reading?.facts[1]).toMatch(/± \d/)
    const early = readSpan(composeSpan(steadily(0, 0, 3))).find(({ code }) => code === 'too-early')
    expect(early?.sentence).toMatch(/^Too early to say: the sum went from \d+\.\d to \d+\.\d mm\./)
    const none = readSpan(composeSpan(steadily(0, 0, 14))).find(({ code }) => code === 'no-sign')
    expect(none?.sentence).toMatch(/^No sign of change\.$/)
  })

  it('shows the facts that fired it, each as its row', () => {
    const [first] = readSpan(composeSpan(steadily(-0.3, -4)))
    expect(first?.facts[0]).toMatch(/^sum of folds \d+\.\d → \d+\.\d mm, −\d+\.\d: real loss$/)
    expect(first?.facts[1]).toMatch(/^weight \d+\.\d → \d+\.\d kg, −\d\.\d: real loss$/)
  })

  it('does not ask to check a weight that enters no equation', () => {
    const found = composeSpan(steadily(-0.3, -4))
    expect(found.percentHangsOn).toEqual([])
    expect(
      readSpan({ ...found, percentHangsOn: ['weight'], sum: found.sum && { ...found.sum, odds: 1 } }).map(
        ({ code }) => code,
      ),
    ).toContain('odd-percent')
    expect(readSpan({ ...found, sum: found.sum && { ...found.sum, odds: 1 } }).map(({ code }) => code)).not.toContain(
      'odd-percent',
    )
  })

  it('asks to measure one fold again that the whole sum rests on', () => {
    const ends = course([
      [1, 74],
      [1, 74],
      [1, 74],
      [1, 74],
    ])
    const folds = THEN.map((mm, i) => (i === 6 ? mm + 50 : mm))
    const wrong = ['2026-04-27', '2026-05-25'].map((day) =>
      end({ folds, kg: 74, more: { startedAt: `${day}T17:00:00.000Z` } }, '04'),
    )
    const found = composeSpan([...ends, ...wrong])
    expect([found.sum?.verdict, found.sum?.site]).toEqual(['one-fold', 'thigh'])
    expect(readSpan(found).map(({ code }) => code)).toContain('one-fold')
  })

  it('says what moved and came back', () => {
    const shares = [1, 0.85, 0.7, 0.6, 0.6, 0.7, 0.85, 1, 1]
    const found = composeSpan(course(shares.map((share) => [share, 74] as const)))
    expect(found.sum?.verdict).toBe('back')
    expect(found.sum?.realOn).toMatch(/^2026-0\d-\d\d$/)
    expect(readSpan(found).map(({ code }) => code)).toContain('back')
  })

  it('waits where conditions differ, and takes the day for wider there', () => {
    const more = (when: string) => ({ conditions: { training: when } })
    const [a, b] = [
      { folds: THEN, kg: 74, more: more('before') },
      { folds: scaled(0.9), kg: 74 },
    ] as const
    const differing = span(a, { ...b, more: more('after') })
    expect(codes(differing)).toContain('conditions')
    expect(differing.sum?.noise.sd).toBeGreaterThan(span(a, { ...b, more: more('before') }).sum?.noise.sd ?? NaN)
  })

  it('counts copied repeats once', () => {
    // Every second reading is the first again: 49 of 49 pairs, where chance gives about one in six.
    const found = composeSpan(steadily(0, 0))
    expect([...found.copying]).toEqual([''])
    expect(readSpan(found).map(({ code }) => code)).toContain('copied')
  })

  it('follows fold-corrected girths', () => {
    const girths = { 'arm-relaxed': 30, 'thigh-girth': 56 }
    const found = span({ folds: THEN, kg: 74, girths }, { folds: scaled(0.75), kg: 74, girths })
    expect(found.girths.map(({ site }) => site)).toEqual(['arm-relaxed', 'thigh-girth'])
    // Arm: 30 - pi x 1.4 then, 30 - pi x 1.05 now.
    const [arm] = found.corrected
    expect((arm?.change.now ?? NaN) - (arm?.change.then ?? NaN)).toBeCloseTo(Math.PI * 0.35, 9)
  })
})

describe('a searched start', () => {
  it('has to show as much more as its share of the budget is less', () => {
    const ends = steadily(-0.3, -4)
    const [pinned, searched] = [composeSpan(ends), composeSpan(ends, { share: searchedShare(3) })]
    expect(searched.sum?.odds).toBe(pinned.sum?.odds)
    expect((searched.sum?.needed ?? NaN) / (pinned.sum?.needed ?? NaN)).toBeCloseTo(
      chosenShare(1) / searchedShare(3),
      9,
    )
    expect([pinned.sum?.verdict, searched.sum?.verdict]).toEqual(['real', 'some-sign'])
  })
})

describe('on comparable terms', () => {
  it('a thigh lifted another way is left out of the sum and of the percent', () => {
    const ways = (method: 'as-it-is' | 'leg-straight') => {
      const own = end(
        { folds: THEN, kg: 74, protocol: PROTOCOLS['kinanthropometry-8'] },
        method === 'as-it-is' ? '01' : '03',
      )
      const readings = own.facts.readings.map((one) => ({ ...one, method }))
      const facts = { ...own.facts, readings }
      return { facts, result: composeCheckin(facts) }
    }
    const [a, b] = [ways('as-it-is'), ways('leg-straight')]
    const lifted = composeSpan([a, b])
    const shared = composeSpan([a, { ...ways('as-it-is'), facts: { ...b.facts, readings: a.facts.readings } }])
    expect(lifted.comparability.differences.map(({ code }) => code)).toContain('way')
    expect(lifted.summed.length).toBe(shared.summed.length - 1)
  })

  it('folds of two sides are not held against each other', () => {
    const found = span({ folds: THEN, kg: 74 }, { folds: THEN, kg: 74, more: { side: 'left' } })
    expect(found.comparability.differences.map(({ code }) => code)).toEqual(['side'])
    expect([found.sum, found.percent, found.folds.length]).toEqual([null, null, 0])
    expect(found.weight).not.toBeNull()
  })
})

describe('odds as they are said', () => {
  it.each([
    [34.2, '34', '34 times likelier if something changed than if nothing did'],
    [3.04, '3.0', '3.0 times likelier if something changed than if nothing did'],
    [0.05, '20', '20 times likelier if nothing changed than if something did'],
    [1e7, 'over 1,000', 'over 1,000 times likelier if something changed than if nothing did'],
  ])('%d', (odds, short, sentence) => {
    expect(oddsSaid(odds)).toBe(short)
    expect(oddsSentence(odds)).toBe(sentence)
  })
})
