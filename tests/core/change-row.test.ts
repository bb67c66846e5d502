import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  changeRow,
  composeSpan,
  figureShown,
  leadSentences,
  numberShown,
  rowSaid,
  VERDICTS,
  type RowFacts,
  type VerdictKind,
} from '../../core/following'
import type { Units } from '../../core/units'
import { steadily } from '../support/span-ends'

const KG: Units = { mass: 'kg', length: 'cm' }
const LB: Units = { mass: 'lb', length: 'in' }
const FIGURES = ['sum', 'fat', 'lean', 'weight', 'week-weight', 'percent', 'triceps', 'waist', 'corrected-arm'] as const

const facts = (over: Partial<RowFacts>): RowFacts => ({
  figure: 'sum',
  then: 142.8,
  now: 129.8,
  change: -6.5,
  verdict: 'too-early',
  visits: 2,
  error: 14,
  noise: { clients: 12 },
  ...over,
})

describe('the row of a change', () => {
  it('subtracts: its difference is that of the two figures as they are shown', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FIGURES),
        fc.double({ min: 0.1, max: 400, noNaN: true }),
        fc.double({ min: 0.1, max: 400, noNaN: true }),
        fc.constantFrom(KG, LB),
        (figure, then, now, units) => {
          const row = changeRow(facts({ figure, then, now }), units)
          expect(row.then).toBe(figureShown(figure, then, units))
          expect(row.now).toBe(figureShown(figure, now, units))
          // In tenths, as whole numbers.
          const tenths = (text: string) => Math.round(10 * numberShown(text))
          expect(tenths(row.difference)).toBe(tenths(row.now) - tenths(row.then))
        },
      ),
      { numRuns: 2000 },
    )
  })

  it('is what a coach reads out: then, now, difference, sign and why', () => {
    const row = changeRow(facts({}), KG)
    expect([row.then, row.now, row.difference, row.unit]).toEqual(['142.8', '129.8', '−13.0', 'mm'])
    expect(row.reason).toBe('measuring error of two visits ± 14.0')
    expect(rowSaid(row)).toBe('142.8 → 129.8 mm, −13.0: too early to say')
    expect(rowSaid(changeRow(facts({ figure: 'percent', then: 27.44, now: 26.06 }), KG))).toBe(
      '27.4 → 26.1 %, −1.3 points: too early to say',
    )
  })

  it('says so where the whole history decides against the two visits, and what two visits lack', () => {
    const reasonOf = (over: Partial<RowFacts>) => changeRow(facts(over), KG).reason
    expect(reasonOf({ visits: 18, verdict: 'real', now: 135 })).toBe(
      'by all 18 check-ins together; two visits alone: ± 14.0',
    )
    expect(reasonOf({ visits: 18, verdict: 'no-sign', now: 120 })).toMatch(/^by all 18 check-ins/)
    expect(reasonOf({ visits: 18, verdict: 'real', now: 120 })).toBe('measuring error of two visits ± 14.0')
    expect(reasonOf({ visits: 2, verdict: 'too-early', now: 120 })).toMatch(/; a third visit is needed$/)
  })

  it('never shows a sign beyond what the figures say without a reason', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<VerdictKind>(...VERDICTS),
        fc.double({ min: 90, max: 150, noNaN: true }),
        fc.integer({ min: 3, max: 30 }),
        (verdict, now, visits) => {
          const { reason } = changeRow(facts({ verdict, now, visits }), KG)
          const isWide = Math.abs(now - 142.8) > 14
          const saysMoved = ['real', 'some-sign', 'one-fold'].includes(verdict)
          expect(reason.startsWith('by all')).toBe(isWide !== saysMoved)
        },
      ),
    )
  })
})

describe('what a coach reads first', () => {
  const said = (span: ReturnType<typeof composeSpan>, next: string | null = '2026-12-15') =>
    leadSentences(span, {
      units: KG,
      from: '2026-01-05',
      to: '2026-11-28',
      next,
      unasked: null,
      neutral: false,
      say: (day) => `<${day}>`,
    })

  it('after two visits says how the folds went, that it is too early, and when to measure again', () => {
    const [first, second] = said(composeSpan(steadily(-0.05, 0, 2)))
    expect(first).toBe('All seven folds fell.')
    expect(second).toBe('Two visits are too few to be sure: measure again by <2026-12-15>.')
  })

  it('says a real loss by the difference that is shown', () => {
    const span = composeSpan(steadily(-0.3, -4))
    const row = span.fat && changeRow(span.fat, KG)
    expect(said(span)[0]).toBe(`Lost ${row?.difference.slice(1)} kg of fat since January.`)
  })

  it('says since when it has been steady, within the span', () => {
    const span = composeSpan(steadily(-0.3, -4))
    const settings = { units: KG, from: '2026-01-05', to: '2026-11-28', next: null, neutral: false, say: String }
    const with_ = (steadySince: string) => leadSentences(span, { ...settings, unasked: { lines: [], steadySince } })
    expect(with_('2026-06-01')).toContain('Steady since June.')
    expect(with_('2025-12-01').join(' ')).not.toContain('Steady')
  })

  it('speaks of the sum alone in neutral mode', () => {
    const span = composeSpan(steadily(-0.3, -4))
    const settings = { units: KG, from: '2026-01-05', to: '2026-11-28', next: null, unasked: null, say: String }
    expect(leadSentences(span, { ...settings, neutral: true }).join(' ')).not.toMatch(/fat|kg|weight/i)
  })
})
