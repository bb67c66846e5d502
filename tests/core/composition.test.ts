import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ageInYears, composeCheckin, splitWeight } from '../../core/composition'
import { estimate, findEquation, percentFromDensity } from '../../core/equations'
import { type SiteId } from '../../core/sites'
import { PROTOCOLS } from '../../core/protocols'
import { fold, rounds, weight } from '../support/readings'

const seven = PROTOCOLS['laboratory-7']
const woman = { sex: 'female' as const, birthDate: '1992-03-14', heightCm: 174 }

function facts(
  readings: ReturnType<typeof fold>[],
  person: { sex: 'female' | 'male'; birthDate: string; heightCm: number | null } = woman,
) {
  return { person, protocol: seven, startedAt: '2026-10-23T17:20:00.000Z', readings, strikes: [] }
}

function folds(sum: number): Record<SiteId, number> {
  return Object.fromEntries(seven.sites.map((site) => [site, sum / 7])) as Record<SiteId, number>
}

function percent(id: string, values: Record<string, number>, sex: 'female' | 'male'): number {
  const equation = findEquation(id)
  if (!equation) throw new Error(`no ${id}`)
  const result = estimate(equation, values, { person: { sex }, conversion: 'siri' })
  if (!('percent' in result)) throw new Error(`${id} ${result.status}`)
  return result.percent
}

// Worked checks, common practice (no source): seven folds, Siri 1961.
describe('seven folds, worked checks', () => {
  it('man of 20, sum 113 mm: density 1.06410388, 15.18 %', () => {
    const equation = findEquation('jackson-pollock-7-men')
    if (!equation) throw new Error('missing')
    const result = estimate(equation, { ...folds(113), age: 20 }, { person: { sex: 'male' }, conversion: 'siri' })
    expect('density' in result && result.density).toBeCloseTo(1.06410388, 8)
    expect('percent' in result && result.percent).toBeCloseTo(15.18, 2)
  })

  it('woman of 21, sum 105.5 mm: 20.99 %', () => {
    expect(percent('jackson-pollock-7-women', { ...folds(105.5), age: 21 }, 'female')).toBeCloseTo(20.99, 2)
  })

  const woman34 = {
    chest: 4,
    abdominal: 5,
    thigh: 12,
    triceps: 12,
    subscapular: 6,
    suprailiac: 4,
    midaxillary: 4,
    age: 34,
  }
  it('woman of 34, site by site: 11.84 %, 106.67 lb lean of 121', () => {
    const value = percent('jackson-pollock-7-women', woman34, 'female')
    expect(value).toBeCloseTo(11.84, 2)
    expect(splitWeight(121, value).leanKg).toBeCloseTo(106.67, 2)
  })

  it('the same woman with the subscapular typed as 4: 11.48 %', () => {
    expect(percent('jackson-pollock-7-women', { ...woman34, subscapular: 4 }, 'female')).toBeCloseTo(11.48, 2)
  })

  it('9.7 % of 167 lb is 16.2 lb of fat', () => {
    expect(splitWeight(167, 9.7).fatKg).toBeCloseTo(16.2, 1)
  })

  it('Siri and Brozek as published: 495/D - 450, 457/D - 414.2', () => {
    // By hand at D = 1.05: 471.428571 - 450 and 435.238095 - 414.2.
    expect(percentFromDensity(1.05, 'siri')).toBeCloseTo(21.428571, 6)
    expect(percentFromDensity(1.05, 'brozek')).toBeCloseTo(21.038095, 6)
  })
})

describe('where the equations hold', () => {
  // Vertex b / 2c by hand: 0.00043499 / 0.0000011 = 395.4; 0.00046971 / 0.00000112 = 419.4.
  it.each([
    ['jackson-pollock-7-men', 'male', 395.4],
    ['jackson-pollock-7-women', 'female', 419.4],
  ] as const)('%s refuses from its vertex on', (id, sex, vertex) => {
    const equation = findEquation(id)
    if (!equation) throw new Error('missing')
    expect(equation.vertex?.at).toBeCloseTo(vertex, 0)
    expect(estimate(equation, { ...folds(vertex + 1), age: 30 }, { person: { sex }, conversion: 'siri' }).status).toBe(
      'refused',
    )
    expect(
      estimate(equation, { ...folds(vertex - 1), age: 30 }, { person: { sex }, conversion: 'siri' }).status,
    ).not.toBe('refused')
  })

  it('a larger fold never lowers percent fat below the vertex', () => {
    const site = fc.constantFrom<SiteId>(...seven.sites)
    const size = fc.double({ min: 2, max: 50, noNaN: true })
    const age = fc.integer({ min: 18, max: 61 })
    fc.assert(
      fc.property(site, fc.array(size, { minLength: 7, maxLength: 7 }), size, age, (at, sizes, more, years) => {
        const values: Record<string, number> = { age: years }
        seven.sites.forEach((id, i) => (values[id] = sizes[i] ?? 5))
        const sum = sizes.reduce((a, b) => a + b, 0) + more
        fc.pre(sum < 395)
        for (const [id, sex] of [
          ['jackson-pollock-7-men', 'male'],
          ['jackson-pollock-7-women', 'female'],
        ] as const) {
          const equation = findEquation(id)
          if (!equation) throw new Error('missing')
          const before = estimate(equation, values, { person: { sex }, conversion: 'siri' })
          const after = estimate(
            equation,
            { ...values, [at]: (values[at] ?? 0) + more },
            { person: { sex }, conversion: 'siri' },
          )
          if ('percent' in before && 'percent' in after) expect(after.percent).toBeGreaterThanOrEqual(before.percent)
        }
      }),
    )
  })

  it.each([
    ['jackson-pollock-7-men', 'male', 17, 62],
    ['jackson-pollock-7-women', 'female', 17, 56],
  ] as const)('%s computes outside its ages, with a caution', (id, sex, young, old) => {
    const equation = findEquation(id)
    if (!equation) throw new Error('missing')
    for (const age of [young, old]) {
      const result = estimate(equation, { ...folds(100), age }, { person: { sex }, conversion: 'siri' })
      expect('cautions' in result && result.cautions.map(({ code }) => code)).toContain('age')
    }
    expect(estimate(equation, { ...folds(100), age: young + 1 }, { person: { sex }, conversion: 'siri' }).status).toBe(
      'ok',
    )
    expect(estimate(equation, { ...folds(100), age: old - 1 }, { person: { sex }, conversion: 'siri' }).status).toBe(
      'ok',
    )
  })
})

describe('a check-in composed', () => {
  const values = [14, 13, 8, 10, 15, 20, 22]
  it('sums, estimates and splits without being asked', () => {
    const result = composeCheckin(facts([weight(71.5), ...rounds(seven, values, values)]))
    expect(result.sumMm).toBe(102)
    expect(result.ageYears).toBe(34)
    // By hand: 1.097 - 0.00046971*102 + 0.00000056*102^2 - 0.00012828*34 = 1.0505543..., 495/D - 450.
    const density = 1.097 - 0.00046971 * 102 + 0.00000056 * 102 * 102 - 0.00012828 * 34
    const fat = 495 / density - 450
    expect(result.estimate && 'percent' in result.estimate && result.estimate.percent).toBeCloseTo(fat, 10)
    expect(result.masses?.fatKg).toBeCloseTo((71.5 * fat) / 100, 10)
    expect((result.masses?.fatKg ?? 0) + (result.masses?.leanKg ?? 0)).toBeCloseTo(71.5, 12)
  })

  it('names the sites still missing and those still to confirm', () => {
    const result = composeCheckin(facts(rounds(seven, values).slice(0, 5)))
    expect(result.missing).toEqual(['abdominal', 'thigh'])
    expect(result.unsettled).toEqual(seven.sites.slice(0, 5))
    expect(result.sumMm).toBeNull()
    expect(result.estimate).toMatchObject({ status: 'missing', missing: ['abdominal', 'thigh'] })
  })

  it('gives a percent but no masses without a weight', () => {
    const result = composeCheckin(facts(rounds(seven, values, values)))
    expect(result.masses).toBeNull()
    expect(result.estimate?.status).toBe('ok')
  })

  it('gives the same result whatever units the readings were written in', () => {
    const kg = composeCheckin(facts([weight(71.5), ...rounds(seven, values, values)]))
    fc.assert(
      fc.property(
        fc.constantFrom('waist' as const, 'neck' as const, 'hip' as const),
        fc.integer({ min: 60, max: 120 }),
        (site, cm) => {
          const protocol = { ...seven, sites: [...seven.sites, site] }
          const inBoth = (['cm', 'in'] as const).map((unit) => {
            const girths = [1, 2].map((second) => ({
              ...fold(site, unit === 'cm' ? cm / 2 + 20 : (cm / 2 + 20) / 2.54, 300 + second),
              unit,
            }))
            const pounds = { ...weight(71.5 / 0.45359237), unit: 'lb' as const }
            const scale = unit === 'cm' ? weight(71.5) : pounds
            return composeCheckin({ ...facts([scale, ...rounds(seven, values, values), ...girths]), protocol })
          })
          const [metric, imperial] = inBoth
          expect(metric?.values[site]).toBeCloseTo(imperial?.values[site] ?? NaN, 10)
          expect(imperial?.masses?.fatKg).toBeCloseTo(kg.masses?.fatKg ?? NaN, 10)
        },
      ),
      { numRuns: 30 },
    )
  })

  it('takes the weight written last, struck ones aside', () => {
    const first = weight(71.5)
    const second = { ...weight(72), takenAt: '2026-10-23T17:01:00.000Z' }
    expect(composeCheckin(facts([first, second])).weightKg).toBe(72)
    const struck = { ...facts([first, second]), strikes: [{ readingId: second.id, struckAt: second.takenAt }] }
    expect(composeCheckin(struck).weightKg).toBe(71.5)
  })
})

describe('age in completed years', () => {
  it.each([
    ['1992-11-24', '2026-11-23', 33],
    ['1992-11-24', '2026-11-24', 34],
    ['2000-02-29', '2026-02-28', 25],
    ['2000-02-29', '2026-03-01', 26],
  ])('born %s, on %s: %d', (born, on, age) => {
    expect(ageInYears(born, on)).toBe(age)
  })
})
