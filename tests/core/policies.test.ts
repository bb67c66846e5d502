import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { agrees, nextStep, POLICIES, reconcile, sessionState } from '../../core/readings'
import { CONFUSABLE, FOLDS, GIRTHS, isFold, SITES, type SiteId } from '../../core/sites'
import { customProtocol, foldsOf, PROTOCOLS } from '../../core/protocols'
import { fold, takeSession } from '../support/readings'

// Reading policies: common practice of the schools; kinanthropometry limits after ISAK practice (recalled).
describe('policies of the schools', () => {
  it.each([
    ['kinanthropometry', [10, 10.4], 'agreed', 10.2],
    ['kinanthropometry', [10, 11], 'disputed', 10.5],
    ['kinanthropometry', [10, 11, 13], 'agreed', 11],
    ['kinanthropometry-learner', [10, 11], 'agreed', 10.5],
    ['kinanthropometry-girth', [80, 80.7], 'agreed', 80.35],
    ['kinanthropometry-girth', [80, 81.5], 'disputed', 80.75],
    ['contest-prep', [12], 'agreed', 12],
    ['contest-prep-twice', [12, 18], 'agreed', 15],
    ['home', [12, 15], 'agreed', 13.5],
    ['tape', [80, 81], 'agreed', 80.5],
    ['tape', [80, 81.2], 'disputed', 80.6],
    ['tape', [80, 81.2, 82.5], 'agreed', 81.2],
    ['tape-percent', [40, 40.5], 'disputed', 40.25],
    ['laboratory-strict', [12, 13.5], 'disputed', 12.75],
    ['laboratory-large', [30, 32.9], 'agreed', 31.45],
    ['laboratory-large', [12, 14.5], 'disputed', 13.25],
    ['height', [174, 174.2, 174.4], 'agreed', 174.2],
    ['height', [174, 174.2, 175], 'disputed', 174.2],
  ] as const)('%s: %j is %s, %d', (id, readings, status, value) => {
    const result = reconcile(readings, POLICIES[id])
    expect(result.status).toBe(status)
    expect(result.value).toBeCloseTo(value, 10)
  })

  it('agrees at the limit and not beyond it', () => {
    expect(agrees(10, 12, { kind: 'absolute', limit: 2 })).toBe(true)
    expect(agrees(10, 12.1, { kind: 'absolute', limit: 2 })).toBe(false)
    expect(agrees(19.5, 20.5, { kind: 'percent', limit: 5 })).toBe(true)
    expect(agrees(19.4, 20.6, { kind: 'percent', limit: 5 })).toBe(false)
  })

  it('joins the same whatever the order, in every policy', () => {
    const policy = fc.constantFrom(...Object.values(POLICIES))
    const values = fc.array(
      fc.integer({ min: 10, max: 120 }).map((halves) => halves / 2),
      { maxLength: 5 },
    )
    fc.assert(
      fc.property(policy, values, (school, readings) => {
        expect(reconcile([...readings].reverse(), school)).toEqual(reconcile(readings, school))
      }),
    )
  })
})

describe('every protocol', () => {
  const all = Object.values(PROTOCOLS).map((protocol) => [protocol.id, protocol] as const)

  it.each(all)(
    '%s can be taken to its end: folds first, then the tape, never one site twice in a row',
    (_, protocol) => {
      const taken = takeSession(protocol, (site, round) => (isFold(site) ? 12 : 40) + round / 10)
      const state = sessionState(protocol, taken, [])
      expect(state.complete).toBe(true)
      const kinds = taken.map(({ site }) => isFold(site as SiteId))
      expect(kinds).toEqual([...kinds].sort((a, b) => Number(b) - Number(a)))
      const folds = foldsOf(protocol)
      const repeated = taken.some(({ site }, i) => i > 0 && site === taken[i - 1]?.site)
      if (folds.length > 1 || protocol.sites.length > 1) expect(repeated).toBe(false)
    },
  )

  it.each(all)('%s names each site once, by its own school', (_, { sites, school }) => {
    expect(new Set(sites).size).toBe(sites.length)
    for (const site of sites) expect(SITES[site].schools, site).toContain(school === 'home' ? 'laboratory' : school)
  })

  it('leaves skipped sites out, with their reason, until they are read after all', () => {
    const protocol = PROTOCOLS['laboratory-3-men']
    const skips = [{ site: 'chest' as const, reason: 'covered' as const }]
    expect(nextStep(sessionState(protocol, [], [], skips))).toMatchObject({ site: 'abdominal' })
    const taken = [fold('abdominal', 20, 1), fold('thigh', 15, 2), fold('abdominal', 20, 3), fold('thigh', 15, 4)]
    expect(sessionState(protocol, taken, [], skips).complete).toBe(true)
    expect(sessionState(protocol, [...taken, fold('chest', 8, 5)], [], skips).complete).toBe(false)
  })

  it('makes a studio’s own set into one, folds first, and says what cannot be', () => {
    const set = customProtocol({ id: 'ours', name: 'Ours', sites: ['waist', 'thigh'], policy: 'laboratory' })
    expect(set.sites).toEqual(['thigh', 'waist'])
    expect(() => customProtocol({ id: 'x', name: 'X', sites: [], policy: 'tape' })).toThrow('at least one site')
    expect(() => customProtocol({ id: 'x', name: 'X', sites: ['hip', 'hip'], policy: 'tape' })).toThrow('once')
  })
})

describe('the catalogue of sites', () => {
  it.each(Object.values(SITES).map((site) => [site.id, site] as const))('%s is described and drawn', (id, site) => {
    expect(site.id).toBe(id)
    expect(site.where.length).toBeGreaterThan(20)
    expect(site.steps.length).toBeGreaterThan(0)
    expect(site.figure.x).toBeGreaterThan(24)
    expect(site.figure.x).toBeLessThan(176)
    expect(site.figure.y).toBeLessThan(456)
  })

  it('has the 18 folds and 18 girths of the trade and old thighs without a level, and says which are confused', () => {
    expect(Object.keys(FOLDS)).toHaveLength(18)
    expect(Object.keys(GIRTHS)).toHaveLength(19)
    for (const { sites } of CONFUSABLE) for (const site of sites) expect(SITES[site]).toBeDefined()
  })
})
