import { FetchError } from 'ofetch'
import fc from 'fast-check'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { foldAngle, MARK_WORDS } from '../../app/components/figure/marks'
import { markOf } from '../../app/components/measure/sheet'
import { readTyped, tryFields } from '../../app/components/reference/typed-measures'
import { joinFacts, NO_FACTS, waitingFacts } from '../../app/composables/session-facts'
import { problemOf } from '../../app/composables/useApi'
import { sayAgo, sayDay, todayHere } from '../../app/composables/useDays'
import { firstError, useProblems } from '../../app/composables/useProblems'
import { STANDINGS, TARGET_NAMES, targetShown } from '../../app/components/plan/target-shown'
import { EQUATIONS, estimate } from '../../core/equations'
import { sessionState, type SiteState } from '../../core/readings'
import { SITES } from '../../core/sites'
import { PROTOCOLS } from '../../core/protocols'
import { fold, strike } from '../support/readings'

const KG = { mass: 'kg', length: 'cm' } as const
const LB = { mass: 'lb', length: 'in' } as const

describe('the mark of a site on the sheet', () => {
  const seven = PROTOCOLS['laboratory-7']
  const stateOf = (...values: number[]): SiteState => {
    const readings = values.map((value, i) => fold('triceps', value, i * 100))
    const found = sessionState(seven, readings, []).sites.find(({ site }) => site === 'triceps')
    if (!found) throw new Error('no triceps')
    return found
  }

  it.each([
    ['to-come', []],
    ['once', [14]],
    ['agreed', [14, 14.5]],
    ['disputed', [14, 22]],
    ['agreed', [14, 22, 14.5]],
  ] as const)('%s after %j', (mark, values) => {
    expect(markOf(stateOf(...values), null, null)).toBe(mark)
  })

  it('says now before all else, and next only of what is still to be read', () => {
    expect(markOf(stateOf(14, 14.5), 'triceps', null)).toBe('now')
    expect(markOf(stateOf(14, 22), 'triceps', 'triceps')).toBe('now')
    expect(markOf(stateOf(14), null, 'triceps')).toBe('next')
    expect(markOf(stateOf(14, 14.5), null, 'triceps')).toBe('agreed')
    expect(markOf(stateOf(14, 22), null, 'triceps')).toBe('disputed')
  })

  it('has a word for each', () => {
    expect(new Set(Object.values(MARK_WORDS)).size).toBe(Object.keys(MARK_WORDS).length)
  })
})

describe('the direction of a fold on the figure', () => {
  it('is turned over with the figure for people measured on the left', () => {
    for (const site of Object.values(SITES)) {
      const angle = foldAngle(site, false)
      expect(foldAngle(site, true) + angle, site.name).toBe(0)
      expect(Math.abs(angle), site.name).toBeLessThanOrEqual(90)
      if (site.kind === 'girth') expect(angle, site.name).toBe(90)
    }
    expect(foldAngle(SITES.triceps, false)).toBe(0)
    // Down and in, seen from behind, runs the other way than from before.
    expect(foldAngle(SITES.subscapular, false)).toBe(
      -foldAngle({ ...SITES.subscapular, figure: { ...SITES.subscapular.figure, view: 'front' } }, false),
    )
  })
})

describe('the facts of a session', () => {
  const [a, b, c] = [fold('triceps', 14), fold('chest', 8), fold('thigh', 22)]

  it('are joined from wherever they come, and core counts each once', () => {
    const joined = joinFacts({ readings: [a, b] }, {}, { readings: [b, c], strikes: [strike(b)] })
    expect(joined.readings).toEqual([a, b, b, c])
    const seven = PROTOCOLS['laboratory-7']
    const state = sessionState(seven, joined.readings, joined.strikes)
    const live = state.sites.flatMap((site) => site.live.map(({ id }) => id))
    expect(live.sort()).toEqual([a.id, c.id].sort())
    expect(joinFacts()).toEqual(NO_FACTS)
  })

  it('on their way to the server are told apart by what they are', () => {
    const skip = { id: a.id, site: 'chest' as const, reason: 'A graze.', at: a.takenAt }
    const remark = { id: a.id, readingId: a.id, words: 'Moist.', at: a.takenAt }
    const waiting = [{ reading: a }, { strike: strike(b) }, { skip }, { remark }, { reading: c }]
    expect(waitingFacts(waiting as never)).toEqual({
      readings: [a, c],
      strikes: [strike(b)],
      skips: [skip],
      remarks: [remark],
    })
  })
})

describe('what a person is told went wrong', () => {
  function answered(status: number, data: unknown): FetchError {
    const error = new FetchError('failed')
    Object.defineProperties(error, { status: { value: status }, data: { value: data } })
    return error
  }

  it('is the server’s sentence, with its fields', () => {
    const fields = [{ field: 'value', message: 'A weight is a number.' }]
    expect(problemOf(answered(422, { message: 'A weight is a number.', fields }))).toEqual({
      status: 422,
      message: 'A weight is a number.',
      fields,
    })
  })

  it('is a plain sentence when there is none, or no answer', () => {
    expect(problemOf(answered(500, '<html>'))).toMatchObject({
      status: 500,
      message: 'Something went wrong. Please try again.',
    })
    expect(problemOf(answered(502, undefined)).fields).toEqual([])
    for (const lost of [new FetchError('no network'), new TypeError('x'), undefined]) {
      expect(problemOf(lost)).toMatchObject({ status: 0, fields: [] })
      expect(problemOf(lost).message).toMatch(/cannot be reached/)
    }
  })

  it('stands at the field it is about, or with the form when that field is not shown', async () => {
    const { problem, byField, ofForm, send } = useProblems(['name'])
    const fields = (field: string) => [{ field, message: 'Please give a name.' }]
    problem.value = { message: 'Please give a name.', fields: fields('name') }
    expect([byField.value.get('name'), ofForm.value]).toEqual(['Please give a name.', null])
    problem.value = { message: 'Please give a name.', fields: fields('body') }
    expect([byField.value.get('name'), ofForm.value]).toEqual([undefined, 'Please give a name.'])
    expect(await send(() => Promise.resolve())).toBe(true)
    expect([byField.value.size, ofForm.value]).toEqual([0, null])
    expect(await send(() => Promise.reject(new FetchError('no network')))).toBe(false)
    expect(ofForm.value).toMatch(/cannot be reached/)
  })

  it('is the first sentence of a field, whatever found it', () => {
    expect(firstError([])).toBeUndefined()
    expect(firstError([undefined, 'later'])).toBeUndefined()
    expect(firstError(['Please write one number.'])).toBe('Please write one number.')
    expect(firstError([[{ message: 'From a schema.' }], 'other'])).toBe('From a schema.')
  })
})

describe('days as people say them', () => {
  afterEach(() => {
    vi.useRealTimers()
  })
  const at = (day: string) => vi.useFakeTimers({ now: new Date(`${day}T12:00:00`) })

  it('leave out this year and name another', () => {
    at('2026-11-25')
    expect(sayDay('2026-10-23')).toBe('23 Oct')
    expect(sayDay('2025-10-23')).toBe('23 Oct 2025')
    expect(sayDay('2027-01-02')).toBe('2 Jan 2027')
  })

  it('count days up to a fortnight, then weeks', () => {
    at('2026-11-25')
    for (const [day, said] of [
      ['2026-11-25', 'today'],
      ['2026-11-26', 'today'],
      ['2026-11-24', 'yesterday'],
      ['2026-11-12', '13 days ago'],
      ['2026-11-11', '2 weeks ago'],
      ['2026-10-21', '5 weeks ago'],
    ] as const) {
      expect(sayAgo(day), day).toBe(said)
    }
  })

  it('of a calendar are the same wherever the clock stands', () => {
    at('2026-03-29')
    expect(todayHere()).toBe('2026-03-29')
    expect(sayDay('2026-03-29')).toBe('29 Mar')
  })
})

describe('an equation to try', () => {
  it.each(EQUATIONS.map((equation) => [equation.id, equation] as const))(
    '%s: its examples give an answer in either unit',
    (_, equation) => {
      const sexes = equation.sex === 'both' ? (['female', 'male'] as const) : [equation.sex]
      for (const units of [KG, LB]) {
        const fields = tryFields(equation, units)
        expect(fields.map(({ input }) => input)).toEqual(equation.inputs)
        const { known, problems } = readTyped(fields, {}, units)
        expect(problems).toEqual({})
        for (const sex of sexes) {
          const { status } = estimate(equation, known, { person: { sex }, conversion: 'siri' })
          expect(['ok', 'caution'], `${sex} ${units.mass}`).toContain(status)
        }
      }
    },
  )

  it('says at the field what cannot be read', () => {
    const seven = EQUATIONS.find(({ id }) => id === 'jackson-pollock-7-women')
    if (!seven) throw new Error('no equation')
    const { problems, known } = readTyped(tryFields(seven, KG), { triceps: 'thick', age: '34.5', chest: '400' }, KG)
    expect(Object.keys(problems).sort()).toEqual(['age', 'chest', 'triceps'])
    expect(known.thigh).toBeGreaterThan(0)
    fc.assert(
      fc.property(fc.string(), (text) => {
        const found = readTyped(tryFields(seven, KG), { triceps: text }, KG)
        expect(found.problems.triceps === undefined).toBe(found.known.triceps !== undefined)
      }),
    )
  })
})

describe('a target as shown', () => {
  it('is in the person’s unit, its changes signed, a change of percent in points', () => {
    const fat = targetShown('fat', LB)
    expect([fat.unit, fat.changeUnit, fat.value(10), fat.change(-10)]).toEqual(['lb', 'lb', '22.0', '−22.0'])
    expect(fat.scale(0.45359237)).toBeCloseTo(1, 12)
    const percent = targetShown('percent', LB)
    expect([percent.unit, percent.changeUnit, percent.value(17.04), percent.change(0.5)]).toEqual([
      '%',
      'points',
      '17.0',
      '+0.5',
    ])
    const sum = targetShown('sum', LB)
    expect([sum.unit, sum.scale(80), sum.change(0)]).toEqual(['mm', 80, '0.0'])
    expect(targetShown('weight', KG).value(70.456, 2)).toBe('70.46')
  })

  it('has a name, and each standing its words', () => {
    expect(Object.keys(TARGET_NAMES).sort()).toEqual(['fat', 'percent', 'sum', 'weight'])
    expect(STANDINGS.on).toMatch(/as far as can be said/)
    for (const off of ['ahead', 'behind'] as const)
      expect(STANDINGS[off]).toMatch(new RegExp(`^${off} (of )?the plan$`))
  })
})
