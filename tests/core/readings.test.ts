import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { joinLog, nextStep, parseFold, POLICIES, reconcile, sessionState, withNext } from '../../core/readings'
import { type SiteId } from '../../core/sites'
import { PROTOCOLS } from '../../core/protocols'
import { fold, rounds, strike, takeSession } from '../support/readings'

const seven = PROTOCOLS['laboratory-7']
const laboratory = POLICIES.laboratory
const mm = fc.integer({ min: 4, max: 120 }).map((halves) => halves / 2)

function state(readings: ReturnType<typeof fold>[], strikes: ReturnType<typeof strike>[] = []) {
  return sessionState(seven, readings, strikes)
}

describe('joining the repeats of one site, laboratory school', () => {
  // Policy of the laboratory school: two within 2 mm, then the closest agreeing pair, after four the median (common practice).
  it.each([
    { readings: [], status: 'empty', value: null },
    { readings: [12.5], status: 'partial', value: 12.5 },
    { readings: [13.5, 13], status: 'agreed', value: 13.25 },
    { readings: [12, 14], status: 'agreed', value: 13 },
    { readings: [12.5, 15.5], status: 'disputed', value: 14 },
    { readings: [12.5, 15.5, 13], status: 'agreed', value: 12.75 },
    { readings: [10, 13, 16, 19], status: 'unsteady', value: 14.5 },
    { readings: [10, 13, 16, 12.5], status: 'agreed', value: 12.75 },
  ])('$readings is $status, $value', ({ readings, status, value }) => {
    expect(reconcile(readings, laboratory)).toMatchObject({ status, value })
  })

  it('says how far apart two readings are', () => {
    expect(reconcile([12.5, 15.5], laboratory).apart).toBe(3)
  })

  it('treats tenths exactly 2.0 apart as agreeing, whatever binary arithmetic makes of them', () => {
    expect(reconcile([8.1, 10.1], laboratory).status).toBe('agreed')
    expect(reconcile([10.3, 12.3], laboratory).status).toBe('agreed')
  })

  it('does not depend on the order of the readings', () => {
    fc.assert(
      fc.property(fc.array(mm, { maxLength: 5 }), (values) => {
        expect(reconcile([...values].reverse(), laboratory)).toEqual(reconcile(values, laboratory))
        expect(reconcile([...values].sort(), laboratory)).toEqual(reconcile(values, laboratory))
      }),
    )
  })

  it('gives a value inside its readings', () => {
    fc.assert(
      fc.property(fc.array(mm, { minLength: 1, maxLength: 4 }), (values) => {
        const { value } = reconcile(values, laboratory)
        expect(value).toBeGreaterThanOrEqual(Math.min(...values))
        expect(value).toBeLessThanOrEqual(Math.max(...values))
      }),
    )
  })
})

describe('the order of a session', () => {
  it('goes once through all sites, then again from the top', () => {
    const taken = takeSession(seven, () => 12)
    expect(taken.map(({ site }) => site)).toEqual([...seven.sites, ...seven.sites])
  })

  it('adds a further round only for the sites more than 2 mm apart', () => {
    const taken = takeSession(seven, (site, round) => (site === 'chest' && round === 2 ? 15.5 : 12))
    expect(taken.slice(14).map(({ site }) => site)).toEqual(['chest'])
  })

  it('never asks for one site twice in a row while another is waiting', () => {
    const site = fc.constantFrom(...seven.sites)
    fc.assert(
      fc.property(fc.array(fc.tuple(site, mm), { maxLength: 40 }), (values) => {
        const now = state(values.map(([at, value], i) => fold(at, value, i)))
        const step = nextStep(now)
        const waiting = now.sites.filter(({ status }) => status !== 'agreed' && status !== 'unsteady')
        if (step.kind === 'measure' && waiting.length > 1) expect(step.site).not.toBe(now.lastSite)
      }),
    )
  })

  it('ends within four rounds, however unsteady the hand', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e9 }), (seed) => {
        const taken = takeSession(seven, (site, round) => 5 + ((seed + site.length * 31 + round * 17) % 40))
        expect(taken.length).toBeLessThanOrEqual(28)
        expect(state(taken).complete).toBe(true)
      }),
    )
  })

  it('asks again for a site whose reading was struck', () => {
    const taken = rounds(seven, Array(7).fill(12), Array(7).fill(12.5))
    const [, subscapular] = taken
    if (!subscapular) throw new Error('no reading')
    expect(nextStep(state(taken))).toEqual({ kind: 'finished' })
    expect(nextStep(state(taken, [strike(subscapular)]))).toMatchObject({ site: 'subscapular', round: 2 })
  })
})

describe('facts and their deliveries', () => {
  const taken = takeSession(seven, (site, round) => site.length + round / 2)

  it('strike and re-enter equals never having erred', () => {
    fc.assert(
      fc.property(fc.constantFrom<SiteId>(...seven.sites), mm, (site, slip) => {
        const wrong = fold(site, slip, 50)
        const values = (readings: typeof taken, strikes = [strike(wrong)]) =>
          state(readings, strikes).sites.map(({ value, status, apart }) => ({ value, status, apart }))
        expect(values([...taken, wrong])).toEqual(values(taken, []))
      }),
    )
  })

  it('gives the same session for any order and repetition of delivery', () => {
    const struck = taken.slice(3, 5).map(strike)
    const expected = state(taken, struck)
    const delivery = fc.shuffledSubarray([...taken, ...taken], { minLength: taken.length * 2 })
    fc.assert(
      fc.property(delivery, (delivered) => {
        expect(state(delivered, [...struck, ...struck])).toEqual(expected)
      }),
    )
  })

  it('gives reading by reading what it gives of them all together', () => {
    const site = fc.constantFrom<SiteId>(...seven.sites, 'medial-calf')
    fc.assert(
      fc.property(fc.array(fc.tuple(site, mm), { maxLength: 40 }), (values) => {
        const read = values.map(([at, value], i) => fold(at, value, i))
        expect(read.reduce(withNext, state([]))).toEqual(state(read))
      }),
    )
  })

  it('keeps a struck reading in the log, crossed out', () => {
    const [first] = taken
    if (!first) throw new Error('no reading')
    expect(joinLog([first], [strike(first)])).toEqual([{ ...first, struck: true }])
  })

  it('lets a strike wait for a reading that has not arrived', () => {
    const [first, second] = taken
    if (!first || !second) throw new Error('no reading')
    expect(joinLog([first], [strike(second)])).toEqual([{ ...first, struck: false }])
  })
})

describe('a fold as typed', () => {
  it.each([
    ['12.5', 12.5],
    ['12,5', 12.5],
    ['8', 8],
    ['.5', null],
    ['0', null],
    ['900', null],
    ['12.55', null],
    ['-4', null],
    ['ten', null],
    ['', null],
  ])('%j is %s', (text, value) => {
    const entry = parseFold(text)
    expect(entry.ok ? entry.mm : null).toBe(value)
  })

  it('asks about a lost decimal point', () => {
    const entry = parseFold('125')
    expect(!entry.ok && entry.sentence).toContain('12.5')
  })
})
