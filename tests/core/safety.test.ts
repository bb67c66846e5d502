import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  challengeFindings,
  courseFindings,
  homePhotoBarred,
  intakeFindings,
  LIMITS,
  personFindings,
  verdictOf,
  type Finding,
  type SafetyFacts,
} from '../../core/safety'

/*
 * The gate itself, by properties that hold for everybody. The numbers are those of the domain page on safety, whose sources
 * (ACSM, IOC, WHO classes of BMI) are recalled from memory.
 */

const RANK = { allow: 0, caution: 1, stop: 2 } as const
const rank = (findings: readonly Finding[]) => RANK[verdictOf(findings).outcome]
const codes = (findings: readonly Finding[]) => findings.map(({ code }) => code)

const well: SafetyFacts = { sex: 'female', ageYears: 34, heightCm: 170, weightKg: 72, percent: 29, flags: [] }
const course = { startKg: 72, endKg: 68, endPercent: 25, weekKg: -0.4, direction: 'loss' } as const

const people = fc.record({
  sex: fc.constantFrom('female' as const, 'male' as const),
  ageYears: fc.integer({ min: 8, max: 90 }),
  heightCm: fc.option(fc.integer({ min: 130, max: 210 })),
  weightKg: fc.option(fc.integer({ min: 30, max: 180 })),
  percent: fc.option(fc.double({ min: 2, max: 55, noNaN: true })),
  flags: fc.subarray(['pregnant', 'eating-disorder', 'neutral-wish'] as const),
})

const courses = fc.record({
  startKg: fc.integer({ min: 40, max: 180 }),
  endKg: fc.integer({ min: 35, max: 180 }),
  endPercent: fc.double({ min: 2, max: 50, noNaN: true }),
  weekKg: fc.double({ min: -3, max: -0.01, noNaN: true }),
})

describe('a loss', () => {
  it('is allowed where nothing speaks against it', () => {
    expect(courseFindings(well, course)).toEqual([])
  })

  it.each([
    ['ends at BMI 18.4', well, { ...course, endKg: 18.4 * 1.7 ** 2 }, 'bmi-end', 'stop'],
    ['ends at BMI 19', well, { ...course, endKg: 19 * 1.7 ** 2 }, 'bmi-end', 'caution'],
    ['ends at 12.9 % fat, a woman', well, { ...course, endPercent: 12.9 }, 'percent-end', 'stop'],
    ['ends at 12.9 % fat, a man', { ...well, sex: 'male' }, { ...course, endPercent: 12.9 }, null, 'allow'],
    ['takes 0.73 kg a week of 72 kg', well, { ...course, weekKg: -0.73 }, 'pace', 'stop'],
    [
      'takes 0.95 kg a week of 95 kg',
      { ...well, heightCm: 190, weightKg: 95 },
      { ...course, startKg: 95, weekKg: -0.95 },
      'pace',
      'stop',
    ],
    ['is at 66 years and BMI 22', { ...well, ageYears: 66, weightKg: 22 * 1.7 ** 2 }, course, 'older', 'stop'],
    ['is of somebody of 17', { ...well, ageYears: 17 }, course, 'under-18', 'stop'],
  ] as const)('that %s', (_, facts, leads, code, outcome) => {
    const found = courseFindings(facts as SafetyFacts, leads)
    expect(verdictOf(found).outcome).toBe(outcome)
    if (code) expect(codes(found)).toContain(code)
  })

  it('of anybody under 18, pregnant, with an eating disorder or in neutral mode is stopped, whatever is known of them', () => {
    fc.assert(
      fc.property(people, courses, (facts, leads) => {
        fc.pre(facts.ageYears < 18 || facts.flags.length > 0)
        expect(rank(courseFindings(facts, { ...leads, direction: 'loss' }))).toBe(RANK.stop)
        expect(rank(challengeFindings(facts))).toBe(RANK.stop)
      }),
    )
  })

  it('is never judged milder for being faster, or for ending lower', () => {
    fc.assert(
      fc.property(people, courses, fc.double({ min: 0, max: 3, noNaN: true }), (facts, leads, more) => {
        const milder = rank(courseFindings(facts, { ...leads, direction: 'loss' }))
        const faster = { ...leads, weekKg: leads.weekKg - more, direction: 'loss' as const }
        const lower = {
          ...leads,
          endKg: leads.endKg - more,
          endPercent: leads.endPercent - more,
          direction: 'loss' as const,
        }
        expect(rank(courseFindings(facts, faster))).toBeGreaterThanOrEqual(milder)
        expect(rank(courseFindings(facts, lower))).toBeGreaterThanOrEqual(milder)
      }),
    )
  })

  it('is stopped by weight and height alone: nothing hangs on a percentage being known', () => {
    fc.assert(
      fc.property(people, courses, (facts, leads) => {
        fc.pre(facts.heightCm !== null && facts.ageYears >= 18)
        const bmi = leads.endKg / ((facts.heightCm ?? 0) / 100) ** 2
        fc.pre(bmi < LIMITS.leastBmi.value.stop)
        const unknown = { ...facts, percent: null }
        expect(rank(courseFindings(unknown, { ...leads, endPercent: null, direction: 'loss' } as never))).toBe(
          RANK.stop,
        )
      }),
    )
  })
})

describe('an intake', () => {
  const eaten = { intakeKcal: 1800, dailyKcal: 2200, restingKcal: 1450, trainingKcal: 250, fatFreeKg: 50 }

  it('is allowed where nothing speaks against it', () => {
    expect(intakeFindings(well, eaten)).toEqual([])
  })

  it.each([
    ['under 1,200 kcal, a woman', { ...eaten, intakeKcal: 1190 }, 'floor'],
    ['under what she uses at rest', { ...eaten, intakeKcal: 1440 }, 'resting'],
    ['1,002 kcal short of what she uses', { ...eaten, dailyKcal: 2802 }, 'deficit'],
    ['24 kcal a kg of lean mass', { ...eaten, intakeKcal: 1500, trainingKcal: 300 }, 'availability'],
  ])('is stopped at %s', (_, intake, code) => {
    const found = intakeFindings(well, intake)
    expect(verdictOf(found).outcome).toBe('stop')
    expect(codes(found)).toContain(code)
  })

  it('is never judged milder for being smaller', () => {
    fc.assert(
      fc.property(
        people,
        fc.integer({ min: 800, max: 2199 }),
        fc.integer({ min: 0, max: 600 }),
        (facts, intakeKcal, less) => {
          const at = (kcal: number) => rank(intakeFindings(facts, { ...eaten, intakeKcal: kcal }))
          expect(at(intakeKcal - less)).toBeGreaterThanOrEqual(at(intakeKcal))
        },
      ),
    )
  })

  it('short of what is used is stopped for whom no deficit is; enough is not', () => {
    fc.assert(
      fc.property(people, (facts) => {
        fc.pre(facts.flags.includes('pregnant'))
        expect(rank(intakeFindings(facts, eaten))).toBe(RANK.stop)
        const adult = { ...facts, ageYears: 30 }
        expect(codes(intakeFindings(adult, { ...eaten, intakeKcal: 2200 }))).not.toContain('pregnant')
      }),
    )
  })
})

describe('a challenge', () => {
  it('takes nobody under BMI 20, and no woman under 20 % or man under 12 %', () => {
    expect(challengeFindings(well)).toEqual([])
    expect(codes(challengeFindings({ ...well, weightKg: 19.9 * 1.7 ** 2 }))).toEqual(['bmi-challenge'])
    expect(codes(challengeFindings({ ...well, percent: 19.9 }))).toEqual(['percent-challenge'])
    expect(challengeFindings({ ...well, sex: 'male', percent: 12 })).toEqual([])
    expect(codes(challengeFindings({ ...well, sex: 'male', percent: 11.9 }))).toEqual(['percent-challenge'])
  })
})

describe('what a finding says', () => {
  it('names the fact it rests on, and refers to those who decide', () => {
    fc.assert(
      fc.property(people, (facts) => {
        for (const { outcome, code, sentence } of personFindings(facts)) {
          expect(sentence.length).toBeGreaterThan(20)
          if (outcome === 'stop' && code !== 'neutral-wish') expect(sentence).toContain('doctor')
        }
      }),
    )
  })
})

describe('photographs from home', () => {
  it.each([
    ['2012-05-01', '2026-01-01', 'Under 16'],
    ['2009-05-01', null, 'guardian'],
    ['2009-05-01', '2026-01-01', null],
    ['1990-05-01', null, null],
  ])('born %s, guardian agreed to photographs on %s', (birthDate, guardianPhotoConsentOn, said) => {
    const barred = homePhotoBarred({ birthDate, guardianPhotoConsentOn }, '2026-11-27')
    if (said === null) expect(barred).toBeNull()
    else expect(barred).toContain(said)
  })
})
