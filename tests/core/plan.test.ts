import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import { type SpanEnd } from '../../core/composition'
import { ASSUMED_NOISES, endFigures, followedEnd } from '../../core/following'
import { compute, findEquation } from '../../core/equations'
import { Z_95 } from '../../core/error'
import {
  againstPlan,
  aimAt,
  arrivalOf,
  dayAfter,
  firstWeekKg,
  forecastAt,
  latestStart,
  lossRefusals,
  PACE_SPREAD,
  planLine,
  planNotes,
  planRefusals,
  reachedBy,
  startOf,
  toldAfter,
  waysOfTelling,
  weeksTo,
  type PlanContext,
  type Target,
} from '../../core/plan'
import { PROTOCOLS, type Protocol } from '../../core/protocols'
import { seededRandom } from '../../core/simulate'
import { KG_PER_LB } from '../../core/units'
import { rounds, weight } from '../support/readings'

const FOLDS = [14, 13, 8, 10, 15, 20, 22]
const WOMAN = { sex: 'female' as const, birthDate: '1992-03-14', heightCm: 174 }
const MAN = { sex: 'male' as const, birthDate: '1992-03-14', heightCm: 182 }
const UNITS = { mass: 'kg', length: 'cm' } as const

interface Visit {
  day: string
  share?: number
  kg?: number | null
  person?: typeof WOMAN | typeof MAN
  protocol?: Protocol
}

function visit({ day, share = 1, kg = 74, person = WOMAN, protocol = PROTOCOLS['laboratory-7'] }: Visit): SpanEnd {
  const values = protocol.sites.map((_, i) => (FOLDS[i] ?? 12) * share)
  return followedEnd({
    person,
    protocol,
    startedAt: `${day}T17:00:00.000Z`,
    readings: [...(kg === null ? [] : [weight(kg)]), ...rounds(protocol, values, values)],
    strikes: [],
  })
}

function context(start: SpanEnd, change: Partial<PlanContext> = {}): PlanContext {
  return {
    start,
    person: start.facts.person,
    today: '2026-11-24',
    units: UNITS,
    ...change,
  }
}

const START = visit({ day: '2026-06-01' })
const at = (kind: Target['kind']) => startOf(kind, START)?.value ?? NaN
const sentences = (target: Target, change: Partial<PlanContext> = {}, start = START) =>
  planRefusals(target, context(start, change)).map(({ field, sentence }) => `${field}: ${sentence}`)

describe('what a target stands for', () => {
  it('goal weight is lean mass over one less the target: 180 lb at 20 % is 169.4 lb at 15 %', () => {
    // Common practice, worked by hand: lean 144 lb; 144 / 0.85 = 169.41 lb; at 12 % 163.64 lb.
    const man = visit({ day: '2026-06-01', person: MAN, kg: 180 * KG_PER_LB })
    const lean = endFigures(man).lean?.value ?? NaN
    const scale = (144 * KG_PER_LB) / lean
    for (const [percent, lb] of [
      [15, 169.412],
      [12, 163.636],
    ] as const) {
      expect(((aimAt('percent', percent, man)?.weightKg ?? NaN) * scale) / KG_PER_LB).toBeCloseTo(lb, 3)
    }
  })

  it('says the same body however it is put', () => {
    const aim = aimAt('percent', 18, START)
    if (!aim) throw new Error('no aim')
    expect(aim.weightKg - aim.fatKg).toBeCloseTo(at('weight') - at('fat'), 9)
    for (const [kind, value] of [
      ['fat', aim.fatKg],
      ['weight', aim.weightKg],
    ] as const) {
      const same = aimAt(kind, value, START)
      expect(same?.percent).toBeCloseTo(18, 9)
      expect(same?.weightKg).toBeCloseTo(aim.weightKg, 9)
    }
  })

  it('takes a sum of folds through the equation of the check-in', () => {
    const equation = findEquation('jackson-pollock-7-women')
    if (!equation) throw new Error('no equation')
    const sum = 80
    const scaled = Object.fromEntries(
      PROTOCOLS['laboratory-7'].sites.map((site, i) => [site, ((FOLDS[i] ?? 0) * sum) / 102]),
    )
    const found = compute(equation, { ...scaled, age: 34 } as never, { person: WOMAN, conversion: 'siri' })
    const percent = 'percent' in found ? found.percent : NaN
    expect(aimAt('sum', sum, START)?.percent).toBeCloseTo(percent, 9)
  })

  it('knows no body for a weight below lean mass, nor without a weight', () => {
    expect(aimAt('weight', 50, START)).toBeNull()
    expect(aimAt('percent', 18, visit({ day: '2026-06-01', kg: null }))).toBeNull()
  })
})

describe('how long it takes', () => {
  it('weeks are how far over the pace, and a day follows from them', () => {
    // Six points at half a point a week: twelve weeks, 84 days.
    expect(weeksTo({ value: 12, perWeek: 0.5 }, 18)).toBe(12)
    expect(dayAfter('2026-06-01T17:00:00.000Z', 12)).toBe('2026-08-24')
    // A part of a day counts whole.
    expect(dayAfter('2026-06-01', 1 / 7 + 0.01)).toBe('2026-06-03')
  })

  it('the latest start before a day leaves a week’s slack', () => {
    // Twelve weeks and one: 91 days before 30 November is 31 August.
    expect(latestStart('2026-11-30', 12)).toBe('2026-08-31')
  })
})

describe('what is refused', () => {
  const gentle = (kind: Target['kind'], value: number): Target => ({ kind, value, perWeek: 0.2 })

  it('nothing about a moderate target', () => {
    expect(sentences(gentle('fat', at('fat') - 2))).toEqual([])
    expect(planNotes(gentle('fat', at('fat') - 2), context(START))).toEqual([])
  })

  it('targets below essential fat, with the range, whatever they are set in', () => {
    const nine = aimAt('percent', 9, START)
    if (!nine) throw new Error('no aim')
    for (const [kind, value] of [
      ['percent', 9],
      ['fat', nine.fatKg],
      ['weight', nine.weightKg],
    ] as const) {
      expect(sentences(gentle(kind, value)), kind).toContainEqual(
        'value: It would end at 9.0 % fat, under 13 (essential fat of women is about 10 to 13 %): refused. A doctor or registered dietitian decides here, not a coach.',
      )
    }
    expect(sentences({ kind: 'sum', value: 35, perWeek: 1 }).join()).toMatch(/essential fat of women/)
    const man = visit({ day: '2026-06-01', person: MAN })
    expect(sentences(gentle('percent', 9), {}, man)).toEqual([])
    expect(sentences(gentle('percent', 4.9), {}, man).join()).toMatch(/men is about 3 to 5 %/)
    expect(planNotes(gentle('percent', 7.5), context(man)).join()).toMatch(/close to essential fat/)
  })

  it('a weight at or under the lean mass', () => {
    expect(sentences(gentle('weight', 40)).join()).toMatch(/value: That is no more than the lean mass/)
  })

  it('a loss faster than 0.9 kg or 1 % of body weight a week, whichever is less, and a gain over 1 %', () => {
    const fast = (perWeek: number, kg = 74) =>
      sentences({ kind: 'fat', value: kg / 6, perWeek }, {}, visit({ day: '2026-06-01', kg }))
    expect(fast(0.74)).toEqual([])
    expect(fast(0.75)).toEqual([
      'perWeek: That is 0.75 kg (1.65 lb) a week; no more than 0.74 kg (1.63 lb) for this person.',
    ])
    // From a BMI of 30 on 1.2 % or 1.4 kg: 120 kg at 174 cm is one of 39.6.
    expect(fast(1.4, 120)).toEqual([])
    expect(fast(1.41, 120)).toHaveLength(1)
    expect(sentences({ kind: 'weight', value: 80, perWeek: 0.35 })).toEqual([])
    expect(sentences({ kind: 'weight', value: 80, perWeek: 0.95 }).join()).toMatch(
      /^perWeek: That is 0\.95 kg .* gained/,
    )
    expect(sentences({ kind: 'weight', value: 120, perWeek: 0.5 }).join()).toMatch(/value: It would end at 120 kg/)
    // A point of percent a week: weight at kept lean mass falls by lean/(1-p) - lean/(1-p+0.01).
    const lean = at('weight') - at('fat')
    const p = at('percent') / 100
    const week = firstWeekKg({ kind: 'percent', value: 15, perWeek: 1 }, context(START))
    expect(week).toBeCloseTo(lean / (1 - p + 0.01) - lean / (1 - p), 9)
    expect(sentences({ kind: 'percent', value: 15, perWeek: 1 }).join()).toMatch(
      /perWeek: That is 0\.9\d kg \(2\.\d\d lb\) a week/,
    )
  })

  it('any plan to lose for people whom no deficit is for, and only a sum where percent and weight are not shown', () => {
    const flagged = (flag: 'pregnant' | 'eating-disorder' | 'neutral-wish') => ({ person: { ...WOMAN, flags: [flag] } })
    const loss = { kind: 'sum', value: 90, perWeek: 1 } as const
    for (const flag of ['pregnant', 'eating-disorder', 'neutral-wish'] as const) {
      expect(sentences(loss, flagged(flag)).join(), flag).toMatch(/^plan: No plan to lose is kept\./)
      expect(sentences(gentle('fat', 18), flagged(flag)).join(), flag).toMatch(/^kind: Only a sum of folds/)
      expect(sentences({ ...loss, value: 110 }, flagged(flag)), flag).toEqual([])
    }
    const young = { person: { ...WOMAN, birthDate: '2010-05-01' } }
    expect(sentences(gentle('weight', 70), young).join()).toMatch(/^plan: No plan to lose is kept\. Under 18/)
    expect(lossRefusals(context(START, young))).toHaveLength(1)
    expect(lossRefusals(context(START))).toEqual([])
  })

  it('what the check-in does not hold, what is there already, and what takes years', () => {
    const unweighed = visit({ day: '2026-06-01', kg: null })
    expect(sentences(gentle('fat', 10), {}, unweighed)).toEqual(['kind: The check-in it starts from has no fat mass.'])
    expect(sentences({ kind: 'sum', value: 102, perWeek: 1 })).toEqual(['value: That is where it stands already.'])
    expect(sentences({ kind: 'sum', value: 92, perWeek: 0.05 }).join()).toMatch(/perWeek: At this pace it takes more/)
  })

  it('a change within the error of measuring is kept, and said to be', () => {
    const start = startOf('sum', START)
    const tell = Z_95 * Math.sqrt(2 * (start?.variance ?? NaN))
    const note = (mm: number) => planNotes({ kind: 'sum', value: 102 - mm, perWeek: 1 }, context(START))
    expect(note(tell * 0.99)).toHaveLength(1)
    expect(note(tell * 1.01)).toEqual([])
  })
})

describe('the plan against what happened', () => {
  const target: Target = { kind: 'sum', value: 82, perWeek: 1 }
  const line = planLine(target, START)
  if (!line) throw new Error('no line')

  it('is a straight line from the start that stops at the target, its band the start’s error and the spread of paces', () => {
    expect(line.weeks).toBeCloseTo(20, 9)
    expect(line.endsOn).toBe('2026-10-19')
    const half = forecastAt(line, '2026-08-10')
    expect(half.planned).toBeCloseTo(92, 9)
    expect(half.band).toBeCloseTo(Math.hypot(line.startError, PACE_SPREAD * 10), 9)
    expect(forecastAt(line, '2027-06-01').planned).toBe(82)
    expect(forecastAt(line, '2025-06-01').planned).toBe(102)
  })

  /** Fortnightly check-ins from the start on, the folds where the plan has them and so far off it by the last, mm. */
  const kept = (off: number, count = 6) => {
    const days = Array.from({ length: count }, (_, i) => addDays('2026-06-01', 14 * i))
    return days.map((day, i) => visit({ day, share: (102 - 2 * i + (off * i) / (count - 1)) / 102 }))
  }

  it('says behind and ahead only by odds of 20 and over', () => {
    const on = againstPlan(line, kept(0))
    expect(on?.planned).toBeCloseTo(92, 9)
    expect(on?.off).toBeCloseTo(0, 6)
    expect([on?.standing, on && on.low < 0 && on.high > 0]).toEqual(['on', true])
    for (const [off, standing] of [
      [4, 'on'],
      [30, 'behind'],
      [-4, 'on'],
      [-30, 'ahead'],
    ] as const) {
      const held = againstPlan(line, kept(off))
      expect(held?.standing, String(off)).toBe(standing)
      expect(held && held.odds >= 20, String(off)).toBe(standing !== 'on')
    }
  })

  it('turns ahead and behind round for a gain', () => {
    const gain = planLine({ kind: 'weight', value: 80, perWeek: 0.25 }, START)
    if (!gain) throw new Error('no line')
    const held = (kg: number) => {
      const ends = Array.from({ length: 6 }, (_, i) =>
        visit({ day: addDays('2026-06-01', 14 * i), kg: 74 + ((kg - 74) * i) / 5 }),
      )
      return againstPlan(gain, ends)?.standing
    }
    expect([held(71), held(76.5), held(82)]).toEqual(['behind', 'on', 'ahead'])
  })

  it('cannot say where the two check-ins do not compare', () => {
    const eight = visit({ day: '2026-08-10', protocol: PROTOCOLS['kinanthropometry-8'] })
    const fat = planLine({ kind: 'fat', value: 12, perWeek: 0.2 }, START)
    if (!fat) throw new Error('no line')
    expect(againstPlan(fat, [START, eight])).toBeNull()
    expect(againstPlan(line, [START, eight])).toBeNull()
    expect(planLine({ kind: 'fat', value: 12, perWeek: 0.2 }, visit({ day: '2026-06-01', kg: null }))).toBeNull()
  })

  it('gives the day of arrival at the pace so far with its interval, and none where none can be told', () => {
    const since = (to: number) => {
      const ends = Array.from({ length: 6 }, (_, i) =>
        visit({ day: addDays('2026-06-01', 14 * i), share: (102 + ((to - 102) * i) / 5) / 102 }),
      )
      const found = againstPlan(line, ends)
      if (!found) throw new Error('not comparable')
      return found
    }
    const real = since(85)
    const arrival = arrivalOf(line, real)
    // 17 of 102 mm in 70 days, three left: twelve days more, a little later because small changes are shrunk.
    expect(arrival?.on && arrival.on >= '2026-08-20' && arrival.on <= '2026-09-05').toBe(true)
    expect([arrival && arrival.earliest < arrival.on, arrival?.latest && arrival.latest > arrival.on]).toEqual([
      true,
      true,
    ])
    expect(arrivalOf(line, since(101.5))).toBeNull()
    expect(arrivalOf(line, since(120))).toBeNull()
    expect(arrivalOf(line, since(80))).toBeNull()
    expect(reachedBy(line, since(85))).toBe('no')
    expect(reachedBy(line, since(80))).toBe('yes')
    expect(reachedBy(line, since(50))).toBe('surely')
  })

  it('has the day of arrival in its interval for nineteen in twenty who lose at a steady pace', () => {
    const random = seededRandom(41)
    const sd = Math.sqrt(startOf('sum', START)?.variance ?? NaN)
    let [told, held] = [0, 0]
    for (let person = 0; person < 300; person += 1) {
      const ends = Array.from({ length: 10 }, (_, i) =>
        visit({ day: addDays('2026-06-01', 14 * i), share: (102 - 2.4 * i + sd * random.normal()) / 102 }),
      )
      const own = planLine({ kind: 'sum', value: 60, perWeek: 1 }, ends[0] as SpanEnd)
      const found = own && againstPlan(own, ends)
      const arrival = own && found && arrivalOf(own, found)
      if (!arrival) continue
      told += 1
      // From 102 to 60 at 1.2 mm a week: 35 weeks.
      const truth = addDays('2026-06-01', 245)
      if (arrival.earliest <= truth && (arrival.latest === null || arrival.latest >= truth)) held += 1
    }
    expect(told).toBeGreaterThan(150)
    expect(held / told).toBeGreaterThan(0.93)
  })

  it('says how many check-ins tell its pace', () => {
    const told = [1, 2, 4].map((weeks) => toldAfter(line, weeks, 20, ASSUMED_NOISES))
    expect(told.every(({ visits, day }) => visits !== null && day !== null)).toBe(true)
    const [weekly, , monthly] = told
    expect((weekly?.visits ?? 0) > (monthly?.visits ?? 0)).toBe(true)
  })

  it('sets ways of following it side by side: oftener, more readings, more folds tell sooner', () => {
    const ways = waysOfTelling(line, START, ASSUMED_NOISES)
    const visits = (kind: string, count?: number) =>
      ways
        .filter(({ way }) => way.kind === kind && (way.kind !== 'folds' || way.folds === count))
        .map(({ visits: told }) => told ?? Infinity)
    const [weekly = 0, fortnightly = 0, usual = 0] = visits('as-now')
    expect(weekly).toBeGreaterThanOrEqual(fortnightly)
    expect(fortnightly).toBeGreaterThanOrEqual(usual)
    const days = ways.slice(0, 3).map(({ day }) => day ?? '')
    expect([...days].sort()).toEqual(days)
    expect(visits('readings')[0]).toBeLessThanOrEqual(usual)
    expect(visits('folds', 9)[0]).toBeLessThanOrEqual(visits('folds', 3)[0] ?? 0)
  })

  it('has no folds to compare where the plan is in weight', () => {
    const weighed = planLine({ kind: 'weight', value: 70, perWeek: 0.3 }, START) as NonNullable<typeof line>
    expect(waysOfTelling(weighed, START, ASSUMED_NOISES).map(({ way }) => way.kind)).toEqual([
      'as-now',
      'as-now',
      'as-now',
    ])
  })

  it('holds for any target, pace and day', () => {
    const days = fc.integer({ min: 1, max: 700 })
    fc.assert(
      fc.property(
        fc.double({ min: 60, max: 140, noNaN: true }),
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        days,
        (value, perWeek, day) => {
          fc.pre(Math.abs(value - 102) > 1)
          const any = planLine({ kind: 'sum', value, perWeek }, START)
          if (!any) return false
          const when = addDays(any.startDay, day)
          const { planned, band } = forecastAt(any, when)
          const held = againstPlan(any, [START, visit({ day: when, share: planned / 102 })])
          const [low, high] = [Math.min(102, value), Math.max(102, value)]
          return (
            planned >= low - 1e-9 &&
            planned <= high + 1e-9 &&
            band >= any.startError &&
            held?.standing === 'on' &&
            Math.abs(held.off) < 0.01
          )
        },
      ),
    )
  })
})
