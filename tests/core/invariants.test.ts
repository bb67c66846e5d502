import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { CheckinFacts, SpanEnd } from '../../core/composition'
import { composeSpan, endFigures, followedEnd, SIGN_ODDS, type Change, type Span } from '../../core/following'
import { sessionState, type Reading } from '../../core/readings'
import { PROTOCOLS, type ProtocolId } from '../../core/protocols'
import { readSpan } from '../../core/following'
import { fold, strike, weight } from '../support/readings'

/*
 * What has to hold for any check-ins of anybody, whatever the numbers: the laws the arithmetic stands on, rather than
 * the numbers it gives.
 */

const IDS = ['laboratory-7', 'laboratory-3-women', 'kinanthropometry-8'] as const satisfies readonly ProtocolId[]
const person = { sex: 'female' as const, birthDate: '1992-03-14', heightCm: 174 }

interface Visit {
  protocolId: ProtocolId
  /** A fold of every site, mm; two readings each, this far apart. */
  folds: number[]
  apart: number
  kg: number | null
}

const someVisit = (protocolId: ProtocolId): fc.Arbitrary<Visit> =>
  fc.record({
    protocolId: fc.constant(protocolId),
    folds: fc.array(fc.double({ min: 5, max: 28, noNaN: true }), {
      minLength: PROTOCOLS[protocolId].sites.length,
      maxLength: PROTOCOLS[protocolId].sites.length,
    }),
    apart: fc.double({ min: 0, max: 0.9, noNaN: true }),
    kg: fc.option(fc.double({ min: 45, max: 110, noNaN: true }), { freq: 6 }),
  })
const visit = fc.constantFrom(...IDS).chain(someVisit)
const pair = fc.constantFrom(...IDS).chain((id) => fc.tuple(someVisit(id), someVisit(id)))

function readingsOf({ protocolId, folds, apart, kg }: Visit): Reading[] {
  const { sites } = PROTOCOLS[protocolId]
  const round = (shift: number, from: number) => sites.map((site, i) => fold(site, (folds[i] ?? 10) + shift, from + i))
  return [...(kg === null ? [] : [weight(kg)]), ...round(0, 1), ...round(apart, 101)]
}

function factsOf(one: Visit, day: string, readings = readingsOf(one)): CheckinFacts {
  const protocol = PROTOCOLS[one.protocolId]
  return { person, protocol, startedAt: `${day}T17:00:00.000Z`, readings, strikes: [], assessorId: 'runa' }
}

const end = (one: Visit, day: string): SpanEnd => followedEnd(factsOf(one, day))
const spanOf = (a: Visit, b: Visit, days: [string, string] = ['2026-06-01', '2026-09-01']) =>
  composeSpan([end(a, days[0]), end(b, days[1])])

const FIGURES = ['weight', 'fat', 'lean', 'percent', 'sum'] as const
const changes = (span: Span) => FIGURES.map((figure) => [figure, span[figure]] as const)

function expectTurned(there: Change | null, back: Change | null, what: string): void {
  expect(there === null, what).toBe(back === null)
  if (!there || !back) return
  expect(back.now - back.then, what).toBeCloseTo(there.then - there.now, 9)
  expect(back.change, what).toBeCloseTo(-there.change, 6)
  expect(back.odds / there.odds, what).toBeCloseTo(1, 6)
  expect(back.verdict, what).toBe(there.verdict)
}

describe('any span', () => {
  it('read backwards says the same the other way round', () => {
    fc.assert(
      fc.property(pair, ([a, b]) => {
        // On one day, so that nobody grows older in between.
        const there = spanOf(a, b, ['2026-06-01', '2026-06-01'])
        const back = spanOf(b, a, ['2026-06-01', '2026-06-01'])
        for (const [figure, change] of changes(there)) expectTurned(change, back[figure], figure)
        there.folds.forEach(({ site, change }, i) => expectTurned(change, back.folds[i]?.change ?? null, site))
        if (there.recomposition) {
          expect(back.recomposition?.points).toBeCloseTo(-there.recomposition.points, 6)
        }
      }),
    )
  })

  it('of a check-in with itself has changed nothing', () => {
    fc.assert(
      fc.property(visit, (one) => {
        const span = spanOf(one, one, ['2026-06-01', '2026-06-01'])
        for (const [figure, change] of changes(span)) {
          if (change) expect([change.change, change.verdict], figure).toEqual([expect.closeTo(0, 9), 'too-early'])
        }
        for (const { change } of span.folds) expect(change.verdict).toBe('too-early')
      }),
    )
  })

  it('adds up: fat and lean to weight, sites to the sum', () => {
    fc.assert(
      fc.property(pair, ([a, b]) => {
        const { fat, lean, weight: kg, folds, sum } = spanOf(a, b)
        if (fat && lean && kg) {
          expect(fat.now + lean.now).toBeCloseTo(kg.now, 9)
          expect(fat.then + lean.then).toBeCloseTo(kg.then, 9)
        }
        expect(folds.reduce((total, { change }) => total + change.now, 0)).toBeCloseTo(sum?.now ?? NaN, 9)
      }),
    )
  })

  it('goes on from visit to visit: changes of two spans add to the change of both', () => {
    const three = fc.constantFrom(...IDS).chain((id) => fc.tuple(someVisit(id), someVisit(id), someVisit(id)))
    fc.assert(
      fc.property(three, (visits) => {
        const [a, b, c] = visits.map((one, i) => end(one, `2026-0${3 + i}-01`)) as [SpanEnd, SpanEnd, SpanEnd]
        const [ab, bc, ac] = [composeSpan([a, b]), composeSpan([b, c]), composeSpan([a, c])]
        for (const figure of FIGURES) {
          const [x, y, z] = [ab[figure], bc[figure], ac[figure]]
          if (x && y && z) expect(x.now - x.then + (y.now - y.then), figure).toBeCloseTo(z.now - z.then, 9)
        }
      }),
    )
  }, 120_000)

  it('is judged by its odds and its interval alone', () => {
    fc.assert(
      fc.property(pair, ([a, b]) => {
        const span = spanOf(a, b)
        for (const change of [...changes(span).map(([, one]) => one), ...span.folds.map((one) => one.change)]) {
          if (!change) continue
          const { verdict, odds, needed, low, high } = change
          expect(low).toBeLessThanOrEqual(change.change)
          expect(high).toBeGreaterThanOrEqual(change.change)
          if (verdict === 'real') expect(odds >= needed && (low > 0 || high < 0)).toBe(true)
          if (verdict === 'too-early') expect(odds).toBeGreaterThanOrEqual(1 / 3)
          if (verdict === 'some-sign') expect(odds).toBeGreaterThanOrEqual(SIGN_ODDS)
          if (verdict === 'no-sign' || verdict === 'steady') expect(odds).toBeLessThan(1 / 3)
          expect(Math.abs(change.change)).toBeLessThanOrEqual(Math.abs(change.now - change.then) + 1e-9)
        }
      }),
    )
  }, 120_000)

  it('is read in words with facts behind each', () => {
    fc.assert(
      fc.property(pair, ([a, b]) => {
        for (const { facts } of readSpan(spanOf(a, b))) expect(facts.length).toBeGreaterThan(0)
      }),
    )
  })
})

describe('any check-in', () => {
  it('is the same in whatever order its readings arrive, and however often', () => {
    fc.assert(
      fc.property(visit, fc.infiniteStream(fc.nat()), (one, draws) => {
        const readings = readingsOf(one)
        const plain = endFigures(followedEnd(factsOf(one, '2026-06-01', readings)))
        const shuffled = [...readings, ...readings.slice(0, 4)]
        for (let i = shuffled.length - 1; i > 0; i -= 1) {
          const j = (draws.next().value ?? 0) % (i + 1)
          ;[shuffled[i], shuffled[j]] = [shuffled[j] as Reading, shuffled[i] as Reading]
        }
        expect(endFigures(followedEnd(factsOf(one, '2026-06-01', shuffled)))).toEqual(plain)
      }),
    )
  })

  it('knows nothing of a reading that was struck', () => {
    fc.assert(
      fc.property(visit, fc.double({ min: 2, max: 70, noNaN: true }), (one, wrong) => {
        const protocol = PROTOCOLS[one.protocolId]
        const readings = readingsOf(one)
        const slip = fold(protocol.sites[0] ?? 'triceps', wrong, 300)
        const plain = sessionState(protocol, readings, [])
        const struck = sessionState(protocol, [...readings, slip], [strike(slip)])
        expect(struck.sites.map(({ value }) => value)).toEqual(plain.sites.map(({ value }) => value))
      }),
    )
  })

  it('is surer the more it is read', () => {
    fc.assert(
      fc.property(visit, (one) => {
        const twice = readingsOf({ ...one, apart: 0 })
        const folds = twice.filter(({ unit }) => unit === 'mm')
        const again = folds.map((reading, i) => ({ ...fold(reading.site as never, reading.value, 500 + i) }))
        const figures = [twice, [...twice, ...again]].map((readings) =>
          endFigures(followedEnd(factsOf(one, '2026-06-01', readings))),
        )
        const [two, four] = figures
        expect(four?.sum?.value).toBeCloseTo(two?.sum?.value ?? NaN, 9)
        expect(four?.sum?.variance).toBeLessThan(two?.sum?.variance ?? 0)
      }),
    )
  })
})
