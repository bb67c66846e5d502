import { describe, expect, it } from 'vitest'
import { composeWith } from '../../core/composition'
import type { SpanEnd } from '../../core/composition'
import { equationsFor } from '../../core/equations'
import { handBias, shrunkHand, type KnownHand } from '../../core/error'
import { ASSUMED_NOISES, composeSpan, clientEvidence, StudioNoise, studyEvidence } from '../../core/following'
import { PROTOCOLS } from '../../core/protocols'
import type { Reading } from '../../core/readings'
import { seededRandom } from '../../core/simulate'

const PROTOCOL = PROTOCOLS['laboratory-7']
const FOLDS = [12, 15, 9, 11, 18, 22, 20]

/** A visit with every fold at a share of the usual, by an assessor. */
function visit(day: string, share: number, assessorId: string, hands: readonly KnownHand[] = []): SpanEnd {
  const random = seededRandom(Number(day.replaceAll('-', '')))
  const startedAt = `${day}T08:00:00.000Z`
  const readings = PROTOCOL.sites.flatMap((site, i): Reading[] =>
    [1, 2].map((round) => ({
      id: random.uuid(),
      site,
      round,
      value: Math.round((FOLDS[i] as number) * share * 10 + (round === 1 ? -1 : 1)) / 10,
      unit: 'mm',
      takenAt: startedAt,
      source: 'pad',
    })),
  )
  const person = { sex: 'male' as const, birthDate: '1980-05-05', heightCm: 180 }
  const facts = { person, protocol: PROTOCOL, startedAt, day, readings, strikes: [], assessorId }
  return {
    facts,
    result: composeWith(equationsFor('male', PROTOCOL.sites), facts),
    ...(hands.length > 0 ? { hands } : {}),
  }
}

const hand = (log: number, variance: number): KnownHand => ({
  of: 'assessor',
  from: 'runa',
  to: 'ivo',
  sites: Object.fromEntries(PROTOCOL.sites.map((site) => [site, { log, variance }])),
  people: 20,
  studyId: 's',
  day: '2026-01-20',
})

describe('a bias of a hand', () => {
  it('is shrunk to none by what is assumed of hands: half of it where a study knows as little', () => {
    const found = shrunkHand(0.08, 0.05 ** 2)
    expect(found.log).toBeCloseTo(0.04, 9)
    expect(found.variance).toBeCloseTo(0.05 ** 2 / 2, 9)
    expect(shrunkHand(0.08, 1e-9).log).toBeCloseTo(0.08, 4)
  })

  it('turns round, adds up over assessor and caliper, and is assumed where no study says', () => {
    const known = [hand(0.06, 1e-4)]
    const [runa, ivo] = [
      { assessorId: 'runa', caliperId: 'x' },
      { assessorId: 'ivo', caliperId: 'x' },
    ]
    expect(handBias(known, runa, ivo, 'triceps')).toEqual({ log: 0.06, variance: 1e-4, known: true })
    expect(handBias(known, ivo, runa, 'triceps').log).toBe(-0.06)
    expect(handBias(known, runa, runa, 'triceps')).toEqual({ log: 0, variance: 0, known: true })
    expect(handBias([], runa, ivo, 'triceps')).toEqual({ log: 0, variance: 0.05 ** 2, known: false })
    // The caliper changed as well, and nobody has held the two against each other.
    expect(handBias(known, runa, { assessorId: 'ivo', caliperId: 'y' }, 'triceps')).toEqual({
      log: 0.06,
      variance: 0.05 ** 2,
      known: false,
    })
    // The newest study of the two speaks.
    expect(handBias([...known, hand(0.02, 1e-4)], runa, ivo, 'triceps').log).toBe(0.02)
  })
})

describe('a verdict after a study', () => {
  const days = ['2026-02-02', '2026-02-16', '2026-03-02', '2026-03-16', '2026-03-30', '2026-04-13']
  /** Unchanged folds; another assessor, who reads 8 % more, takes over for the last three. */
  const course = (hands: readonly KnownHand[]) =>
    days.map((day, i) => visit(day, i < 3 ? 1 : 1.08, i < 3 ? 'runa' : 'ivo', hands))

  it('takes off what the study found of the other hand, and keeps what was measured', () => {
    const plain = composeSpan(course([]), {})
    const studied = composeSpan(course([hand(Math.log(1.08), 1e-4)]), {})
    expect(studied.sum?.now).toBe(plain.sum?.now)
    expect(Math.abs(studied.sum?.change ?? 99)).toBeLessThan(Math.abs(plain.sum?.change ?? 0) / 2)
    expect(studied.sum?.odds).toBeLessThan(1)
  })

  it('tells a true change sooner where the study leaves less unknown about the other hand', () => {
    const lost = (hands: readonly KnownHand[]) =>
      days.map((day, i) => visit(day, i < 3 ? 1 : 0.8, i < 3 ? 'runa' : 'ivo', hands))
    const plain = composeSpan(lost([]), {})
    const studied = composeSpan(lost([hand(0, 1e-4)]), {})
    expect(studied.sum?.odds).toBeGreaterThan((plain.sum?.odds ?? 0) * 2)
    const width = (span: typeof plain) => (span.sum?.high ?? 0) - (span.sum?.low ?? 0)
    expect(width(studied)).toBeLessThan(width(plain))
  })

  it('narrows for an assessor whose repeats are steady and widens for one whose are not, for nobody else', () => {
    const visits = days.map((day, i) => visit(day, 1 - i * 0.012, 'runa'))
    const own = new Map([['c', clientEvidence(visits)]])
    const study = (squares: number, assessorId = 'runa') =>
      studyEvidence([{ figure: 'sum', freedom: 20, squares }], { assessorId, day: '2026-01-20' })
    const widthWith = (studies: ReturnType<typeof study>[]) => {
      const noises = new StudioNoise(own, studies).for('c', '2026-04-13')
      const span = composeSpan(visits, { noises })
      return { width: (span.sum?.high ?? 0) - (span.sum?.low ?? 0), odds: span.sum?.odds ?? 0, noises }
    }
    const [none, steady, loose] = [widthWith([]), widthWith([study(8)]), widthWith([study(60)])]
    expect(none.noises).toEqual(ASSUMED_NOISES)
    expect(steady.width).toBeLessThan(none.width)
    expect(loose.width).toBeGreaterThan(none.width)
    expect(steady.odds).toBeGreaterThan(none.odds)
    expect(loose.odds).toBeLessThan(none.odds)
    expect(widthWith([study(8, 'ivo')]).noises).toEqual(none.noises)
    // A study is no client, and says nothing before its day.
    expect(steady.noises.sum.learntFrom.clients).toBe(0)
    const early = new StudioNoise(own, [study(8)]).for('c', '2026-01-10')
    expect(early).toEqual(ASSUMED_NOISES)
  })
})
