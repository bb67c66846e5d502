import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  ADHERENCE_SD,
  besideTheRule,
  dayFor,
  dynamicModel,
  expectedCourse,
  forecast,
  intakeChange,
  intakeFor,
  labelProblems,
  readLabel,
  splitDay,
  usualCarbohydrate,
  usualProtein,
  WATER_SD,
  type ForecastStart,
  type Label,
  type MacroWish,
} from '../../core/energy'
import { seededRandom } from '../../core/simulate'

const known = (value: number) => ({ value, variance: 0 })
const START: ForecastStart = {
  fatKg: known(22),
  weightKg: known(77),
  restingKcal: 1600,
  dailyKcal: known(2400),
}

describe('a forecast', () => {
  it('has no band where nothing is uncertain but keeping to it, and is then the closed linear case', () => {
    // A small deficit: the course is linear in what is eaten, so its spread is the slope times the spread of intake.
    const [day] = [84]
    const kcal = 2350
    const [point] = forecast(START, { kcal }, [day], seededRandom(3), 4000)
    const at = (eaten: number) => expectedCourse(START, { kcal: eaten }, [day])[0]?.weightKg ?? NaN
    const slope = (at(kcal + 50) - at(kcal - 50)) / 100
    const sd = slope * ADHERENCE_SD * kcal
    const width = (point?.weightHigh ?? NaN) - (point?.weightLow ?? NaN)
    expect(width / (2 * 1.96 * sd)).toBeGreaterThan(0.95)
    expect(width / (2 * 1.96 * sd)).toBeLessThan(1.05)
  })

  it('grows wider with what is not known, and with time', () => {
    const unsure = { ...START, dailyKcal: { value: 2400, variance: 200 ** 2 }, fatKg: { value: 22, variance: 1 } }
    const width = (start: ForecastStart, day: number) => {
      const [point] = forecast(start, { kcal: 2000 }, [day], seededRandom(4), 400)
      return (point?.weightHigh ?? 0) - (point?.weightLow ?? 0)
    }
    expect(width(unsure, 100)).toBeGreaterThan(1.8 * width(START, 100))
    expect(width(unsure, 200)).toBeGreaterThan(width(unsure, 50))
  })

  it('says the same for the same seed, its bounds in order', () => {
    const run = () => forecast(START, { kcal: 1900 }, [0, 30, 60], seededRandom(9), 50)
    expect(run()).toEqual(run())
    for (const { weightLow, weightKg, weightHigh, fatLow, fatKg, fatHigh } of run()) {
      expect(weightLow).toBeLessThanOrEqual(weightKg + 0.5)
      expect(weightHigh).toBeGreaterThanOrEqual(weightKg - 0.5)
      expect(fatLow <= fatHigh && fatLow <= fatKg + 0.5).toBe(true)
    }
  })

  it('takes a week at balance where a break is put in', () => {
    const change = intakeChange({ kcal: 2000, breaks: [14] }, 2400)
    expect([0, 13, 14, 20, 21].map(change)).toEqual([-400, -400, 0, 0, -400])
    const at = (breaks: number[]) => expectedCourse(START, { kcal: 2000, breaks }, [60])[0]?.weightKg ?? NaN
    expect(at([14])).toBeGreaterThan(at([]))
  })
})

describe('water of the first days', () => {
  const man = dynamicModel({ fatKg: 33, leanKg: 77, restingKcal: 2080, activity: 1.5 })

  it('a man of 110 kg who eats 500 kcal less loses 1.0 to 1.5 kg in the first week, most of it water', () => {
    const [week, month, year] = man.course(() => -500, [7, 28, 365])
    const lost = 110 - (week?.scaleKg ?? 0)
    expect(lost).toBeGreaterThan(1)
    expect(lost).toBeLessThan(1.5)
    // Tissue alone would be 0.38 kg by the same model.
    expect(110 - (week?.weightKg ?? 0)).toBeLessThan(0.5)
    // Water is gone early and stays gone: what follows is tissue.
    const later = (month?.scaleKg ?? 0) - (month?.weightKg ?? 0)
    expect((week?.scaleKg ?? 0) - (week?.weightKg ?? 0)).toBeCloseTo(later, 1)
    expect((year?.scaleKg ?? 0) - (year?.weightKg ?? 0)).toBeCloseTo(later, 1)
  })

  it('agrees with fine steps of Euler’s written apart from the printed equations', () => {
    // Hall et al. 2011: dG/dt = (CI - k G^2) / rho, dECF/dt = (dNa - xi (ECF) - xi_CI (1 - CI/CI_b)) / [Na].
    const balance = man.balanceKcal
    let [glycogen, fluid] = [0.5, 0]
    const by = 1 / 2000
    for (let t = 0; t < 5; t += by) {
      const share = 1 - 500 / balance
      glycogen += (by * (0.5 * balance * share - 0.5 * balance * (glycogen / 0.5) ** 2)) / (17_600 / 4.184)
      fluid += (by * (1.6 * balance * (share - 1) - 3000 * fluid - 4000 * (1 - share))) / 3220
    }
    const [point] = man.course(() => -500, [5])
    expect(point?.glycogenKg).toBeCloseTo(glycogen - 0.5, 4)
    expect(point?.fluidKg).toBeCloseTo(2.7 * (glycogen - 0.5) + fluid, 3)
  })

  it('stays at balance, comes back with it, and rises where more is eaten', () => {
    const [still] = man.course(() => 0, [10])
    expect([still?.glycogenKg, still?.fluidKg]).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)])
    const [back] = man.course((day) => (day < 20 ? -800 : 0), [60])
    expect((back?.scaleKg ?? 0) - (back?.weightKg ?? 0)).toBeCloseTo(0, 2)
    const [fed] = man.course(() => 500, [7])
    expect((fed?.scaleKg ?? 0) - (fed?.weightKg ?? 0)).toBeGreaterThan(0.3)
  })

  it('never runs dry, whatever is eaten', () => {
    fc.assert(
      fc.property(fc.integer({ min: -4000, max: 4000 }), fc.integer({ min: 0, max: 60 }), (change, day) => {
        for (const { glycogenKg, fluidKg, scaleKg } of man.course(() => change, [day])) {
          expect(glycogenKg).toBeGreaterThan(-0.5)
          expect(Number.isFinite(fluidKg) && scaleKg > 0).toBe(true)
        }
      }),
    )
  })

  it.each([3, 7, 14, 56])('a reading of the scale on day %i lies in its band in 93 to 97 of 100', (day) => {
    const random = seededRandom(100 + day)
    const { normal } = random
    let held = 0
    const people = 500
    for (let i = 0; i < people; i += 1) {
      // Somebody with a body, an expenditure and a way of keeping to it of their own; what is known of them errs.
      const [weight, fat, daily] = [95 + 12 * normal(), 28 + 4 * normal(), 2800 + 200 * normal()]
      const truth = dynamicModel({ fatKg: fat, leanKg: weight - fat, restingKcal: 1900, activity: daily / 1900 })
      const eaten = 2300 * (1 + ADHERENCE_SD * normal())
      const [point] = truth.course(() => eaten - daily, [day])
      const response = 1 + WATER_SD * normal()
      const scale = (point?.weightKg ?? 0) + response * ((point?.scaleKg ?? 0) - (point?.weightKg ?? 0))
      const reading = scale * (1 + 0.007 * normal())
      const known = {
        fatKg: { value: fat + 1.5 * normal(), variance: 1.5 ** 2 },
        weightKg: { value: weight * (1 + 0.007 * normal()), variance: (0.007 * weight) ** 2 },
        restingKcal: 1900,
        dailyKcal: { value: daily + 220 * normal(), variance: 220 ** 2 },
      }
      const [band] = forecast(known, { kcal: 2300 }, [day], random, 300)
      held += Number(reading >= (band?.scaleLow ?? 0) && reading <= (band?.scaleHigh ?? 0))
    }
    expect(held / people).toBeGreaterThan(0.93)
    expect(held / people).toBeLessThan(0.97 + 0.005)
  })
})

describe('the way back from a target', () => {
  it('inverse, then forward, comes back to the target', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        fc.integer({ min: 30, max: 300 }),
        fc.constantFrom('fat' as const, 'weight' as const),
        (loss, day, of) => {
          const kg = (of === 'fat' ? 22 : 77) - loss
          const kcal = intakeFor(START, { of, kg }, day)
          if (kcal === null) return
          const [point] = expectedCourse(START, { kcal }, [day])
          expect(of === 'fat' ? point?.fatKg : point?.scaleKg).toBeCloseTo(kg, 4)
        },
      ),
      { numRuns: 40 },
    )
  })

  it('finds the day an intake arrives, and none where it never does', () => {
    const target = { of: 'weight' as const, kg: 74 }
    const day = dayFor(START, target, { kcal: 2000 }) ?? NaN
    const [before, on] = expectedCourse(START, { kcal: 2000 }, [day - 1, day])
    expect(before?.scaleKg).toBeGreaterThan(74)
    expect(on?.scaleKg).toBeLessThanOrEqual(74)
    expect(dayFor(START, { of: 'weight', kg: 60 }, { kcal: 2300 })).toBeNull()
    expect(intakeFor(START, { of: 'fat', kg: 1 }, 20)).toBeNull()
  })

  it('stands beside the rule of thumb, which promises more the longer it runs', () => {
    const { ruleKg, modelKg, partsOnDay } = besideTheRule(START, { kcal: 1900 }, 365)
    expect(ruleKg).toBeCloseTo((-500 * 365) / (3500 / 0.45359237), 6)
    expect(modelKg).toBeGreaterThan(ruleKg)
    expect(partsOnDay).toBeGreaterThan(6)
    expect(partsOnDay).toBeLessThan(200)
    const [end] = dynamicModel({ fatKg: 22, leanKg: 55, restingKcal: 1600, activity: 1.5 }).course(() => -500, [365])
    expect(modelKg).toBeCloseTo((end?.weightKg ?? 0) - 77, 9)
  })
})

const WISH: MacroWish = {
  kcal: 2000,
  weightKg: 70,
  leanKg: null,
  protein: { perKg: 1.6, of: 'weight' },
  fatShare: 0.3,
  carbohydrate: { kind: 'rest' },
}

describe('a day split into macros', () => {
  it('by hand: 112 g of protein, 66.7 of fat, 238 of carbohydrate in 2,000 kcal', () => {
    const answer = splitDay(WISH)
    expect(answer.mix?.grams.protein).toBeCloseTo(112, 9)
    expect(answer.mix?.grams.fat).toBeCloseTo(600 / 9, 9)
    expect(answer.mix?.grams.carbohydrate).toBeCloseTo((2000 - 448 - 600) / 4, 9)
  })

  it('adds up, whatever is wished: shares to 1, kcal to the day’s, or it is said why not', () => {
    const share = fc.double({ min: 0, max: 0.7, noNaN: true })
    fc.assert(
      fc.property(
        share,
        fc.integer({ min: 1200, max: 5000 }),
        fc.double({ min: 0.5, max: 3, noNaN: true }),
        (fat, kcal, protein) => {
          const answer = splitDay({
            ...WISH,
            kcal,
            fatShare: fat,
            protein: { perKg: protein, of: 'weight' },
            alcoholG: 20,
          })
          if (answer.mix === null) {
            expect(answer.problem).toContain('too many')
            return
          }
          const sum = (all: Record<string, number>) => Object.values(all).reduce((a, b) => a + b, 0)
          expect(sum(answer.mix.share)).toBeCloseTo(1, 9)
          expect(sum(answer.mix.kcal)).toBeCloseTo(kcal, 6)
          for (const grams of Object.values(answer.mix.grams)) expect(grams).toBeGreaterThanOrEqual(-1e-9)
        },
      ),
    )
  })

  it('a third of a kcal over is over too, never a little less than no carbohydrate', () => {
    const answer = splitDay({ ...WISH, kcal: 1500, protein: { perKg: 2, of: 'weight' }, fatShare: 1 - 559.7 / 1500 })
    expect(answer).toMatchObject({ mix: null })
    expect('problem' in answer && answer.problem).toContain('1 too many')
  })

  it('says that 10 g/kg do not go into 2,000 kcal, and what would have to give', () => {
    const answer = splitDay({ ...WISH, carbohydrate: { kind: 'per-kg', perKg: 10 } })
    // 2,800 of carbohydrate and 448 of protein. Beside 400 of fat 1,152 are left: 288 g, 4.1 g/kg; all of it asks for 3,248 / 0.8.
    expect(answer).toMatchObject({ mix: null })
    expect('problem' in answer && answer.problem).toContain('3,248 kcal')
    expect('problem' in answer && answer.problem).toContain('1,248 too many')
    expect('problem' in answer && answer.problem).toContain(
      '4.1 g/kg would fit beside 20 % of fat, or a day of 4,060 kcal',
    )
  })

  it('by weight leaves the rest to fat; by lean mass needs one', () => {
    const answer = splitDay({ ...WISH, kcal: 3000, carbohydrate: { kind: 'per-kg', perKg: 6 } })
    expect(answer.mix?.grams.fat).toBeCloseTo((3000 - 448 - 1680) / 9, 9)
    expect(splitDay({ ...WISH, protein: { perKg: 2, of: 'lean' } }).mix).toBeNull()
    expect(splitDay({ ...WISH, leanKg: 50, protein: { perKg: 2, of: 'lean' } }).mix?.grams.protein).toBe(100)
  })

  it('notes what lies outside the usual', () => {
    const answer = splitDay({ ...WISH, fatShare: 0.5 })
    expect('notes' in answer && answer.notes).toEqual([
      'Fat is 50 % of the day, over the usual 20 to 35 %.',
      'Carbohydrate is 28 %, under the usual 45 to 65 %.',
    ])
  })
})

describe('protein and carbohydrate', () => {
  const adult = { ageYears: 40, athlete: false, bmi: 24, deficit: false, kidney: false, leanKnown: true }
  it.each([
    [{}, 0.8, 1, 'weight'],
    [{ ageYears: 70 }, 1, 1.2, 'weight'],
    [{ athlete: true }, 1.2, 2, 'weight'],
    [{ athlete: true, deficit: true }, 2.3, 3.1, 'lean'],
    [{ athlete: true, deficit: true, leanKnown: false }, 1.2, 2, 'weight'],
    [{ bmi: 33 }, 0.8, 1, 'lean'],
    [{ kidney: true, athlete: true }, 0.6, 0.8, 'weight'],
  ] as const)('usual for %o: %d to %d', (change, low, high, of) => {
    expect(usualProtein({ ...adult, ...change })).toMatchObject({ low, high, of })
  })

  it('carbohydrate goes by training: 3-5, 5-7, 6-10 and 8-12 g/kg', () => {
    expect([0, 1, 2, 4.5].map((hours) => [usualCarbohydrate(hours).low, usualCarbohydrate(hours).high])).toEqual([
      [3, 5],
      [5, 7],
      [6, 10],
      [8, 12],
    ])
  })

  it('with kidney disease is never mixed beyond 0.8 g a kg of body weight, however it is counted', () => {
    const kidney = { ...WISH, kidney: true }
    expect(splitDay({ ...kidney, protein: { perKg: 0.9, of: 'weight' } })).toMatchObject({ mix: null })
    expect(splitDay({ ...kidney, leanKg: 55, protein: { perKg: 1.1, of: 'lean' } })).toMatchObject({ mix: null })
    expect(splitDay({ ...kidney, protein: { perKg: 0.8, of: 'weight' } }).mix).not.toBeNull()
  })
})

describe('a label', () => {
  const none = { fat: 0, protein: 0, carbohydrate: 0, alcohol: 0 }
  const label = (grams: Partial<Label['grams']>, statedKcal: number | null, change: Partial<Label> = {}): Label => ({
    servingG: null,
    servings: 1,
    statedKcal,
    grams: { ...none, ...grams },
    ...change,
  })

  // Worked checks, common practice.
  it.each([
    [{ fat: 12 }, 250, 'fat', 43],
    [{ fat: 23 }, 440, 'fat', 47],
    [{ protein: 25 }, 440, 'protein', 23],
    [{ carbohydrate: 34 }, 440, 'carbohydrate', 31],
    [{ fat: 5 }, 120, 'fat', 37.5],
  ] as const)('%o in %i kcal', (grams, kcal, nutrient, percent) => {
    const share = 100 * readLabel(label(grams, kcal)).share[nutrient]
    expect(percent === 37.5 ? share : Math.round(share)).toBe(percent)
  })

  it('counts servings and alcohol, and says when the grams do not come to what is stated', () => {
    const wine = readLabel(label({ alcohol: 14, carbohydrate: 4 }, 120, { servings: 2 }))
    expect(wine.kcal.alcohol).toBe(196)
    expect(wine.totalKcal).toBe(228)
    expect(wine.notes).toEqual([])
    const odd = readLabel(label({ fat: 20, carbohydrate: 30 }, 200))
    expect(odd.off).toBeCloseTo(0.5, 9)
    expect(odd.notes[0]).toContain('50 % over what is stated')
    expect(readLabel(label({ fat: 10 }, null)).share.fat).toBe(1)
  })

  it('refuses grams beyond the serving, servings of none and grams below zero, each at its field', () => {
    expect(labelProblems(label({ fat: 30, carbohydrate: 30 }, 300, { servingG: 40 })).servingG).toContain(
      '60 g together',
    )
    expect(labelProblems(label({ fat: -1 }, 300)).fat).toBe('Grams cannot be below zero.')
    expect(labelProblems(label({ fat: 1 }, 0, { servings: 0 }))).toMatchObject({
      servings: 'Servings have to be above zero.',
      statedKcal: 'Stated kcal have to be above zero.',
    })
    expect(labelProblems(label({ fat: 12 }, 250, { servingG: 40 }))).toEqual({})
  })
})
