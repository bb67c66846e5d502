import { describe, expect, it } from 'vitest'
import { cautionsFor, ESSENTIAL_FAT, type CautionFacts } from '../../core/cautions'
import {
  adjustedFatFreeMassIndex,
  composeCheckin,
  correctedGirth,
  fatFreeMassIndex,
  skeletalMuscleKg,
  type Person,
} from '../../core/composition'
import { bmi } from '../../core/equations'
import { ATHLETES_HAVE_NO_TABLE, NORM_TABLES, standings } from '../../core/norms'
import { PROTOCOLS } from '../../core/protocols'
import { rounds, weight } from '../support/readings'

describe('indexes', () => {
  it('BMI of 190 lb at 5 ft 10 in is 27.26 (common practice)', () => {
    expect(bmi(190 * 0.45359237, 70 * 2.54)).toBeCloseTo(27.26, 2)
  })

  it('FFMI, adjusted to 1.80 m, corrected girth and muscle by hand', () => {
    // 60 / 1.74^2 = 19.8177; + 6.3 x 0.06 = 20.1957
    expect(fatFreeMassIndex(60, 174)).toBeCloseTo(19.8177, 4)
    expect(adjustedFatFreeMassIndex(60, 174)).toBeCloseTo(20.1957, 4)
    expect(correctedGirth(32, 10)).toBeCloseTo(28.8584, 4)
    // 1.74 x (0.00744 x 784 + 0.00088 x 2500 + 0.00441 x 1156) + 2.4 - 1.632 + 7.8 = 31.4159
    expect(
      skeletalMuscleKg({ arm: 28, thigh: 50, calf: 34 }, { sex: 'male', ageYears: 34, heightCm: 174 }),
    ).toBeCloseTo(31.4159, 3)
  })
})

describe('where people stand', () => {
  const band = (id: string, value: number, sex: 'female' | 'male', ageYears = 34) =>
    standings({ [NORM_TABLES.find((table) => table.id === id)?.of ?? '']: value }, { sex, ageYears }).find(
      ({ table }) => table.id === id,
    )?.band?.name ?? null

  it.each([
    ['fitness-industry', 17.9, 'male', 'fit'],
    ['fitness-industry', 18, 'male', 'average'],
    ['fitness-industry', 25, 'male', 'high'],
    ['fitness-industry', 20.9, 'female', 'athletic'],
    ['fitness-industry', 32, 'female', 'high'],
    ['healthy-wide', 21, 'male', 'above the range'],
    ['gallagher', 22, 'female', 'in the range'],
    ['who-bmi', 24.9, 'female', 'normal range'],
    ['who-bmi', 40, 'male', 'obese III'],
    ['waist-industry', 88, 'female', 'at risk'],
    ['waist-industry', 79.9, 'male', 'low'],
    // WHO 2008, recalled: raised from 80 (women) and 94 (men), much raised from 88 and 102.
    ['waist-who', 88, 'female', 'much raised'],
    ['waist-who', 79.9, 'female', 'not raised'],
    ['waist-who', 94, 'male', 'risk raised'],
    ['waist-to-hip-who', 0.85, 'female', 'risk raised'],
    ['waist-to-hip', 0.86, 'female', 'at risk'],
    ['waist-to-height', 0.49, 'male', 'in the range'],
  ] as const)('%s: %d for a %s is %s', (id, value, sex, name) => {
    expect(band(id, value, sex)).toBe(name)
  })

  it('says nothing where a table says nothing', () => {
    expect(band('gallagher', 22, 'female', 17)).toBeNull()
    expect(band('who-bmi', 22, 'female', 15)).toBeNull()
    for (const id of ['waist-who', 'waist-industry', 'waist-to-height', 'fitness-industry'])
      expect(band(id, 22, 'male', 17), id).toBeNull()
  })

  it('gives athletes no percent table but the sentence why', () => {
    const [first] = standings({ percent: 12 }, { sex: 'male', ageYears: 28, athlete: true })
    expect(first).toMatchObject({ band: null, note: ATHLETES_HAVE_NO_TABLE })
  })

  it('has bands without holes, lowest first', () => {
    for (const table of NORM_TABLES) {
      for (const sex of ['female', 'male'] as const) {
        const rows = table.bands(sex, 34)
        rows.forEach(({ low, high }, i) => {
          expect(high).toBeGreaterThan(low)
          expect(low).toBe(i === 0 ? 0 : rows[i - 1]?.high)
        })
      }
    }
  })
})

describe('cautions', () => {
  const facts: CautionFacts = {
    sex: 'female',
    ageYears: 34,
    bmi: 23,
    percent: 24,
    largestFoldMm: 22,
    flags: [],
    consent: true,
    guardianConsent: false,
  }
  const codes = (change: Partial<CautionFacts>) => cautionsFor({ ...facts, ...change }).map(({ code }) => code)

  it('are silent where nothing applies', () => {
    expect(codes({})).toEqual([])
  })

  it.each([
    [{ consent: false }, 'consent'],
    [{ ageYears: 17, guardianConsent: true }, 'under-18'],
    [{ flags: ['eating-disorder'] as const }, 'eating-disorder'],
    [{ flags: ['neutral-wish'] as const }, 'neutral-wish'],
    [{ flags: ['pregnant'] as const }, 'pregnant'],
    [{ flags: ['implanted-device'] as const }, 'implanted-device'],
    [{ bmi: 35 }, 'large-folds'],
    [{ largestFoldMm: 62 }, 'large-folds'],
    [{ percent: ESSENTIAL_FAT.female.high - 0.1 }, 'essential-fat'],
    [{ caliper: { daysSinceCheck: 400, deviationMm: 0 } }, 'caliper-overdue'],
    [{ caliper: { daysSinceCheck: 10, deviationMm: -0.6 } }, 'caliper-off'],
  ])('%j: %s', (change, code) => {
    expect(codes(change)).toEqual([code])
  })

  it('asks for a guardian’s consent where it is not on record', () => {
    const said = (guardianConsent: boolean) =>
      cautionsFor({ ...facts, ageYears: 15, guardianConsent }).find(({ code }) => code === 'guardian')
    expect(said(false)?.sentence).toContain('guardian’s consent is needed')
    expect(said(false)?.effects).toEqual(['not-yet'])
    expect(said(true)).toBeUndefined()
  })

  it('withhold the percent in pregnancy, and all but children’s equations under 18', () => {
    const seven = PROTOCOLS['laboratory-7']
    const compose = (change: Partial<Person>) =>
      composeCheckin({
        person: { sex: 'female', birthDate: '1992-03-14', heightCm: 174, ...change },
        protocol: seven,
        startedAt: '2026-10-23T17:00:00.000Z',
        readings: [weight(71), ...rounds(seven, Array(7).fill(12), Array(7).fill(12))],
        strikes: [],
      })
    expect(compose({}).estimate?.status).toBe('ok')
    const pregnant = compose({ flags: ['pregnant'] })
    expect(pregnant.estimate).toMatchObject({ status: 'refused', reason: expect.stringContaining('Pregnant') })
    expect(pregnant.masses).toBeNull()
    expect(pregnant.sumMm).toBe(84)
    const junior = compose({ birthDate: '2011-03-14' })
    expect(junior.estimates.every(({ status }) => status === 'refused' || status === 'missing')).toBe(true)
  })
})
