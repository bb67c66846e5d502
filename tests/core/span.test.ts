import { describe, expect, it } from 'vitest'
import { composeCheckin, type CheckinFacts, type SpanEnd } from '../../core/composition'
import { composeSpan } from '../../core/following'
import { priorErrors, smallestRealChange, visitVariance, Z_95 } from '../../core/error'
import { gradientOf } from '../../core/error'
import { findEquation } from '../../core/equations'
import { type SiteId } from '../../core/sites'
import { PROTOCOLS, type Protocol } from '../../core/protocols'
import { readSpan } from '../../core/following'
import { fold, weight } from '../support/readings'

const seven = PROTOCOLS['laboratory-7']
const person = { sex: 'female' as const, birthDate: '1992-03-14', heightCm: 174 }
const THEN = [14, 13, 8, 10, 15, 20, 22]

interface Visit {
  folds: number[]
  kg: number
  protocol?: Protocol
  more?: Partial<CheckinFacts>
  girths?: Partial<Record<SiteId, number>>
}

function end({ folds, kg, protocol = seven, more = {}, girths = {} }: Visit, month: string): SpanEnd {
  const sites = [...protocol.sites, ...(Object.keys(girths) as SiteId[])]
  const value = (site: SiteId, i: number) => folds[i] ?? girths[site] ?? 12
  const readings = [0, 1].flatMap((round) =>
    sites.map((site, i) => ({
      ...fold(site, value(site, i), round * 50 + i),
      unit: girths[site] === undefined ? ('mm' as const) : ('cm' as const),
    })),
  )
  const facts: CheckinFacts = {
    person,
    protocol: { ...protocol, sites },
    startedAt: `2026-${month}-01T17:00:00.000Z`,
    readings: [weight(kg), ...readings],
    strikes: [],
    ...more,
  }
  return { facts, result: composeCheckin(facts) }
}

function span(a: Visit, b: Visit) {
  return composeSpan(end(a, '09'), end(b, '11'), priorErrors)
}

const scaled = (share: number) => THEN.map((mm) => mm * share)
const codes = (found: ReturnType<typeof span>) => readSpan(found).map(({ code }) => code)

describe('a span of two check-ins', () => {
  const found = span({ folds: THEN, kg: 74 }, { folds: scaled(0.7), kg: 71 })

  it('gives each site its own smallest real change, by hand', () => {
    // Triceps 14 mm, prior 5 %: TEM 0.7 then and 0.49 now; two readings each.
    const expected = smallestRealChange(visitVariance(0.7, 2), visitVariance(0.49, 2))
    expect(found.folds[0]?.change.change).toBeCloseTo(-4.2, 10)
    expect(found.folds[0]?.change.error).toBeCloseTo(expected, 10)
    expect(found.folds[0]?.change.verdict).toBe('real')
  })

  it('adds the variances of the sites for the sum', () => {
    const squares = found.folds.reduce((sum, { change }) => sum + change.error ** 2, 0)
    expect(found.sum?.change).toBeCloseTo(-0.3 * 102, 9)
    expect(found.sum?.error).toBeCloseTo(Math.sqrt(squares), 9)
    expect(found.summed).toEqual(seven.sites)
  })

  it('propagates site and weight errors to percent, fat and lean through the equation, not its standard error', () => {
    const equation = findEquation('jackson-pollock-7-women')
    if (!equation) throw new Error('missing')
    const variance = [1, 0.7].reduce((total, share) => {
      const folds = scaled(share)
      const measures = Object.fromEntries(seven.sites.map((site, i) => [site, folds[i] ?? 0])) as never
      const gradient = gradientOf(equation, { ...(measures as object), age: 34 } as never, {
        person,
        conversion: 'siri',
      })
      return (
        total +
        seven.sites.reduce((sum, site, i) => {
          return sum + (gradient?.[site] ?? 0) ** 2 * visitVariance(0.05 * (folds[i] ?? 0), 2)
        }, 0)
      )
    }, 0)
    expect(found.percent?.error).toBeCloseTo(Z_95 * Math.sqrt(variance), 6)
    // The level's 3.8 points would have made this change within error; it does not belong here.
    expect(found.percent?.error).toBeLessThan(3)
    expect(found.percent?.verdict).toBe('real')
    expect((found.fat?.change ?? 0) + (found.lean?.change ?? 0)).toBeCloseTo(-3, 9)
    expect(found.recomposition?.points).toBeCloseTo(
      ((found.lean?.change ?? 0) - (found.fat?.change ?? 0)) / 0.45359237,
      9,
    )
  })

  it('says within error for a tiny change and knows the days between', () => {
    const tiny = span({ folds: THEN, kg: 74 }, { folds: THEN.map((mm) => mm + 0.25), kg: 74.1 })
    expect(tiny.sum?.verdict).toBe('within error')
    expect(tiny.weight?.verdict).toBe('within error')
    expect(tiny.folds.every(({ change }) => change.verdict === 'within error')).toBe(true)
    expect(tiny.days).toBe(61)
  })

  it('takes a week’s mean for the weight where there is one', () => {
    const [a, b] = [end({ folds: THEN, kg: 74 }, '09'), end({ folds: THEN, kg: 72.8 }, '11')]
    const single = composeSpan(a, b, priorErrors).weight
    const weekly = composeSpan(
      { ...a, week: { weightKg: 74, count: 7 } },
      { ...b, week: { weightKg: 72.8, count: 7 } },
      priorErrors,
    ).weight
    expect(weekly?.error).toBeCloseTo((single?.error ?? 0) / Math.sqrt(7), 9)
    expect([single?.verdict, weekly?.verdict]).toEqual(['likely', 'real'])
  })
})

describe('what cannot be compared', () => {
  const three = PROTOCOLS['laboratory-3-women']

  it('refuses the percent across equations and sums the shared sites', () => {
    const found = span({ folds: THEN, kg: 74 }, { folds: [13, 14, 20], kg: 73, protocol: three })
    expect(found.comparability.percent).toBe(false)
    expect([found.percent, found.fat, found.lean, found.recomposition]).toEqual([null, null, null, null])
    expect(found.summed).toEqual(['triceps', 'suprailiac', 'thigh'])
    expect(found.sum?.change).toBeCloseTo(13 + 14 + 20 - (14 + 15 + 22), 9)
    expect(found.comparability.differences.map(({ code }) => code)).toEqual(['sites', 'equation'])
  })

  it('shares nothing but like sites across schools', () => {
    const eight = PROTOCOLS['kinanthropometry-8']
    const found = span({ folds: THEN, kg: 74 }, { folds: [], kg: 74, protocol: eight })
    expect(found.summed).toEqual(['triceps', 'subscapular'])
    expect(found.comparability.differences.map(({ code }) => code)).toContain('school')
  })

  it('refuses the percent across conversions', () => {
    const [a, b] = [end({ folds: THEN, kg: 74 }, '09'), end({ folds: THEN, kg: 74 }, '11')]
    const found = composeSpan(a, { ...b, choices: { conversion: 'brozek', equationId: null } }, priorErrors)
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
    const same = span({ folds: THEN, kg: 74, more: before }, { folds: scaled(0.9), kg: 74, more: before })
    const other = span({ folds: THEN, kg: 74, more: before }, { folds: scaled(0.9), kg: 74, more: after })
    expect(other.sum?.error ?? 0).toBeGreaterThan((same.sum?.error ?? 0) * 1.3)
    expect(other.comparability.differences.map(({ code }) => code)).toEqual(['assessor', 'caliper', 'conditions'])
    expect(same.comparability.differences).toEqual([])
  })
})

// Rules over verdicts: common practice.
describe('a check-in put into words', () => {
  it.each([
    ['lean-or-water', { folds: THEN, kg: 70 }],
    ['fat-for-lean', { folds: scaled(0.75), kg: 74 }],
    ['fat-down', { folds: scaled(0.75), kg: 70 }],
    ['intake', { folds: scaled(1.3), kg: 78 }],
    ['steady', { folds: THEN, kg: 74.1 }],
    ['lean-for-fat', { folds: scaled(1.3), kg: 74 }],
    ['lean-or-water-up', { folds: THEN, kg: 78 }],
    ['fat-off-weight-on', { folds: scaled(0.75), kg: 78 }],
    ['folds-against-weight', { folds: scaled(1.3), kg: 70 }],
  ] as const)('%s', (code, now) => {
    expect(codes(span({ folds: THEN, kg: 74 }, { ...now, folds: [...now.folds] }))).toContain(code)
  })

  it('asks for the girths again when they go down with the folds at a steady weight', () => {
    const found = span(
      { folds: THEN, kg: 74, girths: { 'arm-relaxed': 30, 'thigh-girth': 56 } },
      { folds: scaled(0.75), kg: 74, girths: { 'arm-relaxed': 26, 'thigh-girth': 50 } },
    )
    expect(codes(found)).toContain('girths-with-folds')
    expect(codes(found)).not.toContain('fat-for-lean')
  })

  it('shows the facts that fired it', () => {
    const [first] = readSpan(span({ folds: THEN, kg: 74 }, { folds: scaled(0.75), kg: 70 }))
    expect(first?.facts).toContain('weight −4.0 kg, real')
    expect(first?.facts[0]).toMatch(/^sum of folds −25\.5 mm, real$/)
  })

  it('asks to measure one fold again that moved against all others', () => {
    const folds = scaled(0.7).map((mm, i) => (i === 2 ? 14 : mm))
    const said = readSpan(span({ folds: THEN, kg: 74 }, { folds, kg: 74 })).find(({ code }) => code === 'odd-fold')
    expect(said?.sentence).toBe('Chest moved against all other folds: measure it again.')
  })

  it('waits where conditions differ', () => {
    const more = (when: string) => ({ conditions: { training: when } })
    const found = span({ folds: THEN, kg: 74, more: more('before') }, { folds: THEN, kg: 74, more: more('after') })
    expect(codes(found)).toContain('conditions')
  })

  it('follows fold-corrected girths', () => {
    const girths = { 'arm-relaxed': 30, 'thigh-girth': 56 }
    const found = span({ folds: THEN, kg: 74, girths }, { folds: scaled(0.75), kg: 74, girths })
    expect(found.girths.map(({ site }) => site)).toEqual(['arm-relaxed', 'thigh-girth'])
    // Arm: 30 - pi x 1.4 then, 30 - pi x 1.05 now.
    expect(found.corrected[0]?.change.change).toBeCloseTo(Math.PI * 0.35, 9)
    expect(codes(found)).toContain('fat-for-lean')
  })
})
