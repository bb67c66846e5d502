import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  agreementOf,
  analyseStudy,
  biasWords,
  doubtWords,
  repeatWords,
  chiSquareAt,
  ENOUGH_TO_FEED,
  fisherAt,
  intraclass,
  limitFactors,
  noncentralStudentAt,
  knownHands,
  latinSquare,
  orderFor,
  pairsForTem,
  peopleForBias,
  powerOfPairs,
  ratioBias,
  scaleSaid,
  studentAt,
  temBetween,
  temOfPairs,
  twoWay,
  type StudyFacts,
  type RepeatSite,
  type StudyTurn,
  type TemResult,
} from '../../core/study'
import { PROTOCOLS } from '../../core/protocols'
import { seededRandom, type Random, simulatePeople, simulateTurn, type SimulatedPen } from '../../core/simulate'

/** Peak expiratory flow by two meters, first and second readings of each (Bland & Altman 1986, Lancet 327, table 1; recalled). */
const WRIGHT = [494, 395, 516, 434, 476, 557, 413, 442, 650, 433, 417, 656, 267, 478, 178, 423, 427]
const WRIGHT_AGAIN = [490, 397, 512, 401, 470, 611, 415, 431, 638, 429, 420, 633, 275, 492, 165, 372, 421]
const MINI = [512, 430, 520, 428, 500, 600, 364, 380, 658, 445, 432, 626, 260, 477, 259, 350, 451]
const both = WRIGHT.map((one, i) => [one, MINI[i] as number] as const)

/** Four judges rate six targets (Shrout & Fleiss 1979, table 2; recalled). */
const JUDGED = [
  [9, 2, 5, 8],
  [6, 1, 3, 2],
  [8, 4, 6, 8],
  [7, 1, 2, 6],
  [10, 5, 6, 9],
  [6, 2, 4, 7],
]

describe('quantiles', () => {
  it('are those of printed tables (Fisher & Yates; recalled)', () => {
    expect(chiSquareAt(0.975, 10)).toBeCloseTo(20.483, 3)
    expect(chiSquareAt(0.025, 20)).toBeCloseTo(9.591, 3)
    expect(studentAt(0.975, 16)).toBeCloseTo(2.12, 3)
    expect(fisherAt(0.95, 5, 10)).toBeCloseTo(3.326, 3)
  })
})

describe('agreement', () => {
  it('of two flow meters is as published: -2.1 (sd 38.8), limits -79.7 to 75.5 with 2 sd', () => {
    // The paper takes Wright less mini.
    const found = agreementOf(
      both.map(([wright, mini]) => [mini, wright]),
      'plain',
    )
    expect(found?.bias.value).toBeCloseTo(-2.1, 1)
    expect(found?.sd).toBeCloseTo(38.8, 1)
    // -2.1 -+ 1.96 x 38.8: the paper rounds 1.96 up to 2.
    expect(found?.lower.value).toBeCloseTo(-78.1, 0)
    expect(found?.upper.value).toBeCloseTo(73.9, 0)
    expect(found?.bias.low).toBeCloseTo(-22.1, 0)
    expect(found?.bias.high).toBeCloseTo(17.8, 0)
  })

  it.each([7, 10, 20])('of %i pairs has limits whose intervals hold the true limits in 95 % of studies', (count) => {
    const random = seededRandom(5 + count)
    const STUDIES = 4000
    let [bias, upper, lower] = [0, 0, 0]
    const limit = 1.96 * 1.3
    const holds = (one: { low: number; high: number } | undefined, value: number) =>
      Number(one !== undefined && one.low <= value && one.high >= value)
    for (let k = 0; k < STUDIES; k += 1) {
      const pairs = Array.from({ length: count }, () => {
        const a = 20 + 5 * random.normal()
        return [a, a + 0.7 + 1.3 * random.normal()] as const
      })
      const found = agreementOf(pairs, 'plain')
      bias += holds(found?.bias, 0.7)
      upper += holds(found?.upper, 0.7 + limit)
      lower += holds(found?.lower, 0.7 - limit)
    }
    for (const held of [bias, upper, lower]) {
      expect(held / STUDIES).toBeGreaterThan(0.93)
      expect(held / STUDIES).toBeLessThan(0.97)
    }
  })

  it('has factors that agree with printed one-sided tolerance factors: 2.911 for ten, 2.396 for twenty (Owen; recalled)', () => {
    const factor = (count: number) =>
      noncentralStudentAt(0.95, count - 1, 1.6448536 * Math.sqrt(count)) / Math.sqrt(count)
    expect(factor(10)).toBeCloseTo(2.911, 2)
    expect(factor(20)).toBeCloseTo(2.396, 2)
    const { near, far } = limitFactors(1000)
    expect([near, far]).toEqual([expect.closeTo(1.96, 0), expect.closeTo(1.96, 0)])
  })

  it('takes the log scale where the spread grows with the size, and gives ratios', () => {
    const random = seededRandom(9)
    const pairs = Array.from({ length: 60 }, (_, i) => {
      const a = 5 + i
      return [a, a * 1.1 * Math.exp(0.06 * random.normal())] as const
    })
    const found = agreementOf(pairs)
    expect(found?.scale).toBe('log')
    expect(found?.bias.value).toBeCloseTo(1.1, 1)
    expect(found?.lower.value).toBeGreaterThan(0.9)
    const steady = agreementOf(pairs.map(([a]) => [a, a + 1 + 0.5 * random.normal()] as const))
    expect(steady?.scale).toBe('plain')
  })

  it('says nothing of two pairs, and nothing on a log scale of values at or below zero', () => {
    expect(agreementOf([[1, 2], [2, 3]])).toBeNull() // prettier-ignore
    expect(agreementOf([[0, 2], [2, 3], [4, 4]], 'log')).toBeNull() // prettier-ignore
    expect(ratioBias([[-1, 2], [2, 3]])).toBeNull() // prettier-ignore
  })

  it('of values that are all equal is none, with no spread and no NaN', () => {
    const found = agreementOf([[9, 9], [9, 9], [9, 9], [9, 9], [9, 9]]) // prettier-ignore
    expect(found).toMatchObject({ bias: { value: 0, low: 0, high: 0 }, sd: 0, grows: false })
  })

  it('turns round with its pairs', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 2, max: 60, noNaN: true }), fc.double({ min: 2, max: 60, noNaN: true })), {
          minLength: 3,
          maxLength: 30,
        }),
        (pairs) => {
          const there = agreementOf(pairs, 'log')
          const back = agreementOf(
            pairs.map(([a, b]) => [b, a] as const),
            'log',
          )
          expect((there?.bias.value ?? 0) * (back?.bias.value ?? 0)).toBeCloseTo(1, 6)
          expect((there?.upper.value ?? 0) * (back?.lower.value ?? 0)).toBeCloseTo(1, 6)
        },
      ),
    )
  })
})

describe('technical error', () => {
  it('of a flow meter read twice is as published: within-subject sd 15.3 (Bland & Altman 1986)', () => {
    const found = temOfPairs(WRIGHT.map((one, i) => [one, WRIGHT_AGAIN[i] as number] as const))
    expect(found?.tem).toBeCloseTo(15.3, 1)
  })

  it('has an interval that holds the truth in 95 % of simulated studies', () => {
    const random = seededRandom(11)
    const STUDIES = 4000
    let held = 0
    for (let k = 0; k < STUDIES; k += 1) {
      const pairs = Array.from({ length: 12 }, () => {
        const fold = 15 + 4 * random.normal()
        return [fold + 0.8 * random.normal(), fold + 0.8 * random.normal()] as const
      })
      const found = temOfPairs(pairs)
      if (found && found.low <= 0.8 && found.high >= 0.8) held += 1
    }
    expect(held / STUDIES).toBeGreaterThan(0.93)
    expect(held / STUDIES).toBeLessThan(0.97)
  })

  it('between two assessors is that of their pairs; of more it takes in their biases', () => {
    expect(temBetween(both)?.tem).toBeCloseTo(temOfPairs(both)?.tem ?? NaN, 9)
    const { rows, columns, rest } = twoWay(JUDGED)
    // Analysis of variance of the table (Shrout & Fleiss 1979): 11.24, 32.49 and 1.02 a degree of freedom.
    expect(rows / 5).toBeCloseTo(11.24, 2)
    expect(columns / 3).toBeCloseTo(32.49, 2)
    expect(rest / 15).toBeCloseTo(1.02, 2)
    expect(temBetween(JUDGED)?.tem).toBeCloseTo(Math.sqrt((3 * 32.486 + 15 * 1.019) / 18), 2)
  })

  it('refuses a table with holes', () => {
    expect(() => twoWay([[1, 2], [3]])).toThrow(RangeError)
  })
})

/** People and assessors studies are often made of, and fall short with. */
const FEW = [7, 10, 20].flatMap((people) => [2, 3].map((pens) => [people, pens] as const))

interface Drawn {
  people: number
  pens: number
  /** Standard deviations: of people, of assessors' biases, of what is left. */
  spread: number
  bias: number
  rest: number
}

function tableOf(random: Random, { people, pens, spread, bias, rest }: Drawn): number[][] {
  const hands = Array.from({ length: pens }, () => bias * random.normal())
  return Array.from({ length: people }, () => {
    const person = 20 + spread * random.normal()
    return hands.map((hand) => person + hand + rest * random.normal())
  })
}

/** Share of simulated studies in which something holds. */
function heldIn(studies: number, drawn: Drawn, holds: (table: number[][]) => boolean): number {
  const random = seededRandom(drawn.people * 100 + drawn.pens)
  let held = 0
  for (let k = 0; k < studies; k += 1) if (holds(tableOf(random, drawn))) held += 1
  return held / studies
}

describe('intraclass correlation', () => {
  it('(2,1) of the judges is as published: 0.29, between 0.02 and 0.76', () => {
    const found = intraclass(JUDGED)
    expect(found?.value).toBeCloseTo(0.29, 2)
    // The published interval is by Satterthwaite's degrees of freedom, which fall short with few judges; ours lies about it.
    expect(Math.abs((found?.low ?? 1) - 0.02)).toBeLessThan(0.04)
    expect(Math.abs((found?.high ?? 0) - 0.76)).toBeLessThan(0.04)
  })

  it('is not given where nothing differs, of two people, or of one judge', () => {
    expect(intraclass([[5, 5], [5, 5], [5, 5]])).toBeNull() // prettier-ignore
    expect(intraclass([[5, 6], [7, 8]])).toBeNull() // prettier-ignore
    expect(intraclass([[5], [6], [7]])).toBeNull()
  })

  it.each(FEW)(
    'of %i people and %i assessors who stand for others holds the truth',
    { timeout: 120_000 },
    (people, pens) => {
      const studies = 1200
      // People 4, assessors 1, rest 1: 16 / 18.
      const held = heldIn(studies, { people, pens, spread: 4, bias: 1, rest: 1 }, (table) => {
        const found = intraclass(table)
        return found !== null && found.low <= 16 / 18 && found.high >= 16 / 18
      })
      expect(held).toBeGreaterThan(0.93)
      expect(held).toBeLessThan(0.975)
    },
  )
})

describe('technical error between assessors who stand for others', () => {
  it.each(FEW)('of %i people and %i assessors has an interval that holds the truth', (people, pens) => {
    for (const bias of [0.5, 1]) {
      const truth = Math.hypot(bias, 1)
      const held = heldIn(3000, { people, pens, spread: 4, bias, rest: 1 }, (table) => {
        const found = temBetween(table)
        return found !== null && found.low <= truth && found.high >= truth
      })
      expect(held, `bias ${bias}`).toBeGreaterThan(0.93)
      expect(held, `bias ${bias}`).toBeLessThan(0.975)
    }
  })

  it('is wider with two assessors than with eight: they say little of how far others lie apart', () => {
    const width = (pens: number) => {
      const found = temBetween(tableOf(seededRandom(4), { people: 20, pens, spread: 4, bias: 1, rest: 1 }))
      return found ? found.high / found.tem : NaN
    }
    expect(width(2)).toBeGreaterThan(2 * width(8))
  })
})

describe('a design', () => {
  it('puts every pen in every place equally often, and behind every other equally often', () => {
    for (const pens of [2, 3, 4, 5, 6]) {
      const square = latinSquare(pens)
      const places = new Map<string, number>()
      const follows = new Map<string, number>()
      for (const row of square)
        row.forEach((pen, place) => {
          places.set(`${pen} ${place}`, (places.get(`${pen} ${place}`) ?? 0) + 1)
          if (place > 0) follows.set(`${row[place - 1]} ${pen}`, (follows.get(`${row[place - 1]} ${pen}`) ?? 0) + 1)
        })
      expect(places.size).toBe(pens * pens)
      expect(new Set(places.values()).size).toBe(1)
      expect(follows.size).toBe(pens * (pens - 1))
      expect(new Set(follows.values()).size).toBe(1)
    }
    expect(orderFor(0, 0)).toEqual([])
  })

  it('needs as many people as tables of power say (Cohen 1988, paired t test at 5 %, 80 %; recalled)', () => {
    expect(peopleForBias(0.05, 0.1)).toBe(34)
    expect(peopleForBias(0.08, 0.1)).toBe(15)
    expect(peopleForBias(0.001, 0.5)).toBeNull()
    expect(peopleForBias(0, 0.1)).toBeNull()
  })

  it('has the power that simulated studies have', () => {
    const random = seededRandom(31)
    const STUDIES = 4000
    let found = 0
    for (let k = 0; k < STUDIES; k += 1) {
      const pairs = Array.from({ length: 20 }, () => [20, 20 * Math.exp(0.05 + 0.07 * random.normal())] as const)
      const bias = ratioBias(pairs)
      if (bias && (bias.low > 1 || bias.high < 1)) found += 1
    }
    expect(found / STUDIES).toBeCloseTo(powerOfPairs(0.05 / 0.07, 20), 1)
  })

  it('knows a technical error to a quarter from the pairs on that it names, and not before', () => {
    const pairs = pairsForTem(0.25)
    const high = (n: number) => Math.sqrt(n / chiSquareAt(0.025, n))
    expect(high(pairs)).toBeLessThanOrEqual(1.25)
    expect(high(pairs - 1)).toBeGreaterThan(1.25)
  })
})

const PROTOCOL = PROTOCOLS['laboratory-7']

/** A study of invented people by invented pens, through the reading rules. */
function simulated(seed: number, people: number, pens: readonly SimulatedPen[], kind: StudyFacts['kind']): StudyFacts {
  const random = seededRandom(seed)
  const trials = kind === 'repeat' ? ([1, 2] as const) : ([1] as const)
  const turns = simulatePeople(random, people, PROTOCOL).flatMap((person, i) =>
    pens.flatMap((pen, j) =>
      trials.map((trial): StudyTurn => {
        const startedAt = new Date(Date.UTC(2026, 2, 3, 8, i * 10 + j * 20 + trial * 30))
        const { values, repeats } = simulateTurn(random, { protocol: PROTOCOL, person, pen, startedAt })
        return {
          personId: `p${i}`,
          penId: pen.id,
          trial,
          startedAt: startedAt.toISOString(),
          values,
          readings: repeats,
        }
      }),
    ),
  )
  return { kind, sites: PROTOCOL.sites, penIds: pens.map(({ id }) => id), referenceId: pens[0]?.id ?? '', turns }
}

const RUNA: SimulatedPen = { id: 'runa', bias: 0, reading: 0.04, mark: 0.04 }
const IVO: SimulatedPen = { id: 'ivo', bias: 0.08, reading: 0.05, mark: 0.05 }

describe('a simulated study', () => {
  it('side by side finds the bias put in, its interval holding it in 95 %', () => {
    let [held, sites] = [0, 0]
    for (let seed = 1; seed <= 60; seed += 1) {
      for (const { pens } of analyseStudy(simulated(seed, 15, [RUNA, IVO], 'assessors')).sides) {
        const ratio = pens[0]?.ratio
        sites += 1
        if (ratio && ratio.low <= 1.08 && ratio.high >= 1.08) held += 1
      }
    }
    expect(held / sites).toBeGreaterThan(0.93)
    expect(held / sites).toBeLessThan(0.975)
  })

  it('repeated finds readings and marks apart', () => {
    const found = Array.from({ length: 20 }, (_, seed) => analyseStudy(simulated(seed + 1, 20, [RUNA], 'repeat')))
    const mean = (pick: (site: (typeof found)[0]['repeats'][0]) => number | null) => {
      const all = found.flatMap(({ repeats }) => repeats.map((site) => (pick(site) ?? 0) ** 2))
      return Math.sqrt(all.reduce((sum, one) => sum + one, 0) / all.length)
    }
    // Folds of some 16 mm read to half millimetres: 0.04 and the marks' own error, a little less where a third reading is asked for.
    expect(mean(({ reading }) => (reading?.percent ?? 0) / 100)).toBeCloseTo(0.042, 2)
    expect(mean(({ markShare }) => markShare)).toBeCloseTo(0.04, 2)
  })

  it('says who is trained, and whether it is sure of it', () => {
    const good = analyseStudy(simulated(3, 20, [{ ...RUNA, reading: 0.02, mark: 0.01 }], 'repeat'))
    expect(good.repeats.filter(({ standing, sure }) => standing === 'trained' && sure).length).toBeGreaterThan(5)
    const poor = analyseStudy(simulated(3, 20, [{ ...RUNA, reading: 0.1, mark: 0.12 }], 'repeat'))
    expect(poor.repeats.every(({ standing }) => standing === 'beyond')).toBe(true)
    expect(good.doubts).toEqual([])
  })

  it('feeds how two hands differ, shrunk to none; from few people nothing', () => {
    const source = { studyId: 's', day: '2026-03-03' }
    const [hand] = knownHands(simulated(8, 25, [RUNA, IVO], 'assessors'), source)
    expect(hand).toMatchObject({ of: 'assessor', from: 'runa', to: 'ivo', people: 25 })
    const logs = Object.values(hand?.sites ?? {}).map(({ log }) => log)
    expect(logs.reduce((sum, one) => sum + one, 0) / logs.length).toBeCloseTo(0.07, 1)
    expect(Object.values(hand?.sites ?? {}).every(({ variance }) => variance < 0.02 ** 2)).toBe(true)
    expect(knownHands(simulated(8, ENOUGH_TO_FEED - 1, [RUNA, IVO], 'assessors'), source)).toEqual([])
    expect(knownHands(simulated(8, 10, [RUNA], 'repeat'), source)).toEqual([])
  })

  it('feeds the scale of an error: about one for who measures as assumed, less for a steady hand', () => {
    const scaleOf = (pen: SimulatedPen) => {
      const all = Array.from({ length: 15 }, (_, seed) => scaleSaid(simulated(seed + 40, 20, [pen], 'repeat')))
      const sums = all.flatMap((said) => said.filter(({ figure }) => figure === 'sum'))
      return sums.reduce((sum, { squares }) => sum + squares, 0) / sums.reduce((sum, { freedom }) => sum + freedom, 0)
    }
    // As assumed: 4 % and 0.4 mm a reading, marks at one and a half times that.
    expect(scaleOf({ id: 'a', bias: 0, reading: 0.047, mark: 0.071 })).toBeGreaterThan(0.85)
    expect(scaleOf({ id: 'a', bias: 0, reading: 0.047, mark: 0.071 })).toBeLessThan(1.15)
    expect(scaleOf({ id: 'a', bias: 0, reading: 0.02, mark: 0.02 })).toBeLessThan(0.75)
    expect(scaleOf({ id: 'a', bias: 0, reading: 0.09, mark: 0.12 })).toBeGreaterThan(1.8)
  })
})

describe('words', () => {
  it('say a bias either way, and that it may be none', () => {
    const pairs = (by: number, scatter: number) =>
      [10, 14, 18, 22, 26].map((mm, i) => [mm, mm * (1 + by + (i % 2 === 0 ? scatter : -scatter))] as const)
    expect(biasWords(ratioBias(pairs(-0.06, 0.005)))).toBe('reads 5.9 % less.')
    expect(biasWords(ratioBias(pairs(0.06, 0.005)))).toBe('reads 6.1 % more.')
    expect(biasWords(ratioBias(pairs(0.01, 0.08)))).toMatch(/too small to be sure of/)
    expect(biasWords(ratioBias([[10, 11]]))).toBe('Too few measured by both.')
  })

  it('say every doubt by the name of who it is about', () => {
    const name = (id: string) => (id === 'p' ? 'Aila Reed' : 'somebody')
    expect(doubtWords({ code: 'same-minute', personId: 'p' }, name)).toMatch(
      /^Aila Reed was measured twice within a minute/,
    )
    expect(doubtWords({ code: 'too-soon', personId: 'p', minutes: 3 }, name)).toMatch(/after 3 minutes/)
    expect(doubtWords({ code: 'few-people', people: 3 }, name)).toMatch(/^3 people: at least 10/)
    expect(doubtWords({ code: 'one-site' }, name)).toMatch(/One site alone/)
    expect(doubtWords({ code: 'none-finished' }, name)).toMatch(/nothing can be said/)
    expect(doubtWords({ code: 'all-equal', site: 'triceps' }, name)).toMatch(/it is not none/)
  })

  it('say of a repeat which side of the mark it is on, and whether that is sure', () => {
    const site = (visit: TemResult | null, standing: RepeatSite['standing'], sure: boolean): RepeatSite => ({
      site: 'triceps',
      visit,
      reading: null,
      markShare: null,
      standing,
      sure,
    })
    const visit = temOfPairs([[10, 11], [12, 12.5], [9, 9]]) // prettier-ignore
    expect(repeatWords(site(null, null, false))).toBe('Not measured twice.')
    expect(repeatWords(site(visit, 'trained', true))).toBe('within 5 %: a trained hand.')
    expect(repeatWords(site(visit, 'learning', false))).toMatch(/more people would tell for sure/)
    expect(repeatWords(site(visit, 'beyond', true))).toMatch(/mark it again/)
    expect(repeatWords(site(temOfPairs([[9, 9], [8, 8]]), 'trained', true))).toMatch(/below the marks/) // prettier-ignore
  })
})

describe('a study that is not one', () => {
  const turn = (personId: string, penId: string, minute: number, value: number, trial: 1 | 2 = 1): StudyTurn => ({
    personId,
    penId,
    trial,
    startedAt: new Date(Date.UTC(2026, 2, 3, 8, minute)).toISOString(),
    values: { triceps: value },
    readings: { triceps: [value, value] },
  })
  const study = (turns: StudyTurn[], kind: StudyFacts['kind'] = 'assessors'): StudyFacts => ({
    kind,
    sites: ['triceps'],
    penIds: kind === 'repeat' ? ['a'] : ['a', 'b'],
    referenceId: 'a',
    turns,
  })

  it('of nobody, or of turns half done, says so', () => {
    expect(analyseStudy(study([])).doubts).toEqual([{ code: 'none-finished' }])
    expect(analyseStudy(study([turn('p', 'a', 0, 9)])).people).toBe(0)
  })

  it('of three people at one site gives what it can, with both doubts', () => {
    const turns = ['p', 'q', 'r'].flatMap((id, i) => [
      turn(id, 'a', i * 30, 9 + i),
      turn(id, 'b', i * 30 + 12, 9.5 + i),
    ])
    const { people, sides, doubts } = analyseStudy(study(turns))
    expect(people).toBe(3)
    expect(doubts).toEqual([{ code: 'few-people', people: 3 }, { code: 'one-site' }])
    expect(sides[0]?.pens[0]?.agreement?.bias.value).toBeCloseTo(0.5, 9)
    expect(sides[0]?.intraclass?.value ?? 0).toBeLessThanOrEqual(1)
  })

  it('of values that are all equal knows no error, and says it lies below the marks', () => {
    const turns = ['p', 'q', 'r'].flatMap((id, i) => [turn(id, 'a', i * 60, 9), turn(id, 'a', i * 60 + 20, 9, 2)])
    const { repeats, doubts } = analyseStudy(study(turns, 'repeat'))
    expect(repeats[0]?.visit).toMatchObject({ tem: 0, belowMarks: true })
    expect(repeats[0]?.markShare).toBeNull()
    expect(doubts).toContainEqual({ code: 'all-equal', site: 'triceps' })
  })

  it('leaves a person out who was measured twice in one minute, and doubts marks of three minutes', () => {
    const turns = ['p', 'q', 'r'].flatMap((id, i) => [
      turn(id, 'a', i * 60, 9 + i),
      turn(id, 'a', i * 60 + ([0, 3, 20][i] ?? 0), 9, 2),
    ])
    const { people, doubts } = analyseStudy(study(turns, 'repeat'))
    expect(people).toBe(2)
    expect(doubts).toContainEqual({ code: 'same-minute', personId: 'p' })
    expect(doubts).toContainEqual({ code: 'too-soon', personId: 'q', minutes: 3 })
  })

  it('never gives a number that is none', () => {
    const value = fc.constantFrom(2, 9, 9.5, 40)
    fc.assert(
      fc.property(fc.array(fc.tuple(value, value), { maxLength: 8 }), fc.boolean(), (pairs, repeat) => {
        const turns = pairs.flatMap(([a, b], i) => [
          turn(`p${i}`, 'a', i * 60, a),
          turn(`p${i}`, repeat ? 'a' : 'b', i * 60 + 20, b, repeat ? 2 : 1),
        ])
        const numbers: unknown[] = []
        JSON.stringify(analyseStudy(study(turns, repeat ? 'repeat' : 'assessors')), (_, one: unknown) => {
          if (typeof one === 'number') numbers.push(one)
          return one
        })
        expect(numbers.every((one) => Number.isFinite(one))).toBe(true)
      }),
    )
  })
})
