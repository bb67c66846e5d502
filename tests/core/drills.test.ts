import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  CALLS,
  dialMiss,
  DRILLS,
  drawBody,
  drawCalls,
  drawClient,
  drawDial,
  drawSite,
  foldMoved,
  HARD,
  jawsShow,
  learningCurve,
  liftFold,
  missCm,
  needleAt,
  nextLevel,
  scoreCalls,
  scorePractice,
  spoken,
} from '../../core/drills'
import { corrected, readBlock } from '../../core/devices'
import { composeCheckin } from '../../core/composition'
import { PROTOCOLS } from '../../core/protocols'
import type { Reading } from '../../core/readings'
import { seededRandom } from '../../core/simulate'
import { FOLD_CLOSE_UPS, markAt } from '../../core/sites/close-ups'
import type { FoldSiteId } from '../../core/sites'
import { METHODS, nextSteps, OTHER_METHODS, refusal, siteProgress, STRETCHES, type RepeatsAt } from '../../core/study'

const SITES = Object.keys(FOLD_CLOSE_UPS) as FoldSiteId[]

describe('find the site', () => {
  it('draws the usual body as the reference does', () => {
    const usual = { sex: 'male' as const, length: 1, build: 1, lean: 0, mirrored: false }
    for (const site of SITES) {
      const { mark } = drawSite(site, usual)
      expect(missCm(mark, markAt(FOLD_CLOSE_UPS[site]))).toBeCloseTo(0, 9)
    }
  })

  it('moves landmarks with the body, and keeps centimetres centimetres on either side', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 5 }), (seed, level) => {
        const body = drawBody(seededRandom(seed), level)
        for (const [site, from, mm] of [
          ['abdominal', 'navel', 20],
          ['abdominal-5cm', 'navel', 50],
          ['subscapular', 'corner', 20],
        ] as const) {
          const drawn = drawSite(site, body)
          const at = drawn.landmarks.find(({ id }) => id === from)?.at ?? { x: NaN, y: NaN }
          expect(10 * missCm(drawn.mark, at)).toBeCloseTo(mm, 6)
        }
        const triceps = drawSite('triceps', body)
        const [shoulder, elbow] = triceps.landmarks.map(({ at }) => at)
        if (shoulder && elbow) expect(missCm(triceps.mark, shoulder)).toBeCloseTo(missCm(triceps.mark, elbow), 6)
      }),
    )
  })

  it('says more of a larger miss, and nothing of none', () => {
    expect(foldMoved(0)).toEqual({ low: 0, high: 0 })
    expect(foldMoved(1).high).toBeGreaterThan(foldMoved(1).low)
    expect(foldMoved(2).low).toBeCloseTo(2 * foldMoved(1).low, 9)
  })
})

describe('read the dial', () => {
  it('stands on the fold at the second it is read, above it before and below it after', () => {
    for (let seed = 1; seed < 40; seed += 1) {
      const round = { ...drawDial(seededRandom(seed), 3), trembleMm: 0 }
      const at = (second: number) => needleAt(round, round.settles + second)
      expect(at(2)).toBeCloseTo(round.foldMm, 6)
      expect(at(0.5)).toBeGreaterThan(at(2))
      expect(at(4)).toBeLessThan(at(2))
      expect(needleAt(round, 0)).toBeCloseTo(45, 0)
    }
  })

  it('tells the error of reading from that of time', () => {
    const round = drawDial(seededRandom(4), 1)
    expect(dialMiss(round, round.foldMm + 1, round.settles + 2)).toEqual({ mm: 1, seconds: expect.closeTo(0, 9) })
    expect(dialMiss(round, round.foldMm, round.settles + 3.5).seconds).toBeCloseTo(1.5, 9)
  })
})

describe('call and write', () => {
  it('calls eight values, two or three of them odd, near last time else', () => {
    for (let seed = 1; seed < 60; seed += 1)
      for (const level of [1, 3, 5]) {
        const calls = drawCalls(seededRandom(seed), level)
        expect(calls).toHaveLength(CALLS)
        const odd = calls.filter((call) => call.odd)
        expect([2, 3]).toContain(odd.length)
        for (const { odd: isOdd, calledMm, lastMm } of calls) {
          expect(calledMm).toBeGreaterThan(0)
          if (isOdd) expect(Math.abs(calledMm - lastMm)).toBeGreaterThan(2)
          else expect(Math.abs(calledMm - lastMm)).toBeLessThan(6)
        }
      }
  })

  it('counts an odd one right only when it was questioned, any other when written as called', () => {
    const calls = drawCalls(seededRandom(7), 1)
    const perfect = calls.map(({ odd, calledMm }) =>
      odd ? { kind: 'questioned' as const } : { kind: 'wrote' as const, mm: calledMm },
    )
    expect(scoreCalls(calls, perfect)).toMatchObject({ percent: 100, needless: 0 })
    const copied = calls.map(({ calledMm }) => ({ kind: 'wrote' as const, mm: calledMm }))
    expect(scoreCalls(calls, copied).caught).toBe(0)
    const doubted = calls.map(() => ({ kind: 'questioned' as const }))
    expect(scoreCalls(calls, doubted).needless).toBe(CALLS - scoreCalls(calls, doubted).odd)
    expect(scoreCalls([], []).percent).toBe(0)
  })

  it('speaks a value as one says it', () => {
    expect(spoken({ site: 'triceps', lastMm: 12, calledMm: 12.5, odd: false })).toBe('Triceps, 12 point 5')
    expect(spoken({ site: 'thigh', lastMm: 12, calledMm: 22, odd: false })).toBe('Thigh, 22')
  })
})

describe('levels', () => {
  it('rise after three good rounds running, fall after three that missed by twice, and stay between', () => {
    expect(nextLevel('count', 1, [0.3, 0.3, 0.3])).toBe(2)
    expect(nextLevel('count', 1, [0.3, 0.3])).toBe(1)
    expect(nextLevel('count', 2, [0.2, 0.5, 0.2])).toBe(2)
    expect(nextLevel('count', 2, [0.9, 0.9, 0.9])).toBe(1)
    expect(nextLevel('count', 5, [0.1, 0.1, 0.1])).toBe(5)
    expect(nextLevel('call-write', 1, [80, 90, 75])).toBe(2)
    for (const { passes } of Object.values(DRILLS)) expect(passes).toHaveLength(5)
  })
})

describe('a learning curve', () => {
  it('holds the level of somebody who does not change in its band in some 95 % of simulated people', () => {
    const random = seededRandom(17)
    let held = 0
    const PEOPLE = 2000
    for (let k = 0; k < PEOPLE; k += 1) {
      const scores = Array.from({ length: 15 }, () => 5 + random.normal())
      const now = learningCurve(scores).at(-1)
      if (now && now.low <= 5 && now.high >= 5) held += 1
    }
    expect(held / PEOPLE).toBeGreaterThan(0.93)
  })

  it('follows who gets better, and has no band under three rounds', () => {
    const falling = Array.from({ length: 30 }, (_, i) => 3 - i * 0.08 + (i % 2) * 0.2)
    const curve = learningCurve(falling)
    expect(curve.at(-1)?.level).toBeLessThan((curve[0]?.level ?? 0) - 1.5)
    expect(learningCurve([1, 2])).toEqual([
      { level: 1, low: 1, high: 1 },
      { level: 2, low: 2, high: 2 },
    ])
    expect(learningCurve([])).toEqual([])
    expect(learningCurve([2, 2, 2, 2]).every(({ level }) => level === 2)).toBe(true)
  })
})

describe('a whole client', () => {
  const PROTOCOL = PROTOCOLS['laboratory-7']
  it.each(HARD)('that is %s gives way like a fold, and moves as often as said', (hard) => {
    const random = seededRandom(3)
    const client = drawClient(random, PROTOCOL, hard)
    const lift = liftFold(random, client, 'triceps')
    expect(jawsShow(lift, client, 2)).toBeCloseTo(lift.foldMm, 9)
    expect(jawsShow(lift, client, 0.3)).toBeGreaterThan(jawsShow(lift, client, 4))
    const lifts = Array.from({ length: 2000 }, () => liftFold(random, client, 'thigh'))
    expect(lifts.filter(({ moved }) => moved).length / 2000).toBeCloseTo(client.moves, 1)
  })

  it('puts truth beside readings: bias, repeatability, slips caught', () => {
    const random = seededRandom(8)
    const client = drawClient(random, PROTOCOL, 'easy')
    const readings = PROTOCOL.sites.flatMap((site) =>
      [1, 2].map((round): Reading => {
        const truth = client.trueMm[site] ?? 0
        const value = Math.round(truth * 1.1 * 2) / 2
        return { id: random.uuid(), site, round, value, unit: 'mm', takenAt: '2026-03-03T08:00:00.000Z', source: 'pad' }
      }),
    )
    const slip = { ...(readings[0] as Reading), id: random.uuid(), round: 3, value: 60 }
    const struck = [{ readingId: slip.id, struckAt: '2026-03-03T08:05:00.000Z' }]
    const score = scorePractice(client, PROTOCOL, [...readings, slip], struck, new Set([slip.id]))
    expect(score.biasPercent).toBeGreaterThan(6)
    expect(score.biasPercent).toBeLessThan(14)
    expect(score).toMatchObject({ slips: 1, caught: 1 })
    expect(score.sites.every(({ spreadMm }) => spreadMm === 0)).toBe(true)
    const nothing = scorePractice(client, PROTOCOL, [], [], new Set())
    expect(nothing).toMatchObject({ offPercent: null, biasPercent: null })
  })
})

describe('a block check', () => {
  it('offers a correction where a line takes the deviation away, and asks for adjusting where none does', () => {
    const even = [0, 10, 20, 30, 40].map((blockMm) => ({ blockMm, readMm: blockMm * 1.01 + 0.8 }))
    const found = readBlock(even)
    expect(found?.correction?.offsetMm).toBeCloseTo(0.8, 6)
    expect(found?.correction?.gain).toBeCloseTo(1.01, 6)
    expect(corrected(40 * 1.01 + 0.8, found?.correction ?? { offsetMm: 0, gain: 1 })).toBeCloseTo(40, 6)
    const bent = [0, 10, 20, 30, 40].map((blockMm, i) => ({ blockMm, readMm: blockMm + ([0, 2, -1.5, 2, 0][i] ?? 0) }))
    expect(readBlock(bent)).toMatchObject({ correction: null, adjust: true })
    expect(readBlock([{ blockMm: 0, readMm: 0.4 }])).toMatchObject({ correction: null, adjust: false })
    expect(readBlock([{ blockMm: 0, readMm: 0.8 }])?.correction).toEqual({ offsetMm: 0.8, gain: 1 })
    expect(readBlock([])).toBeNull()
  })

  it('is taken off values, sum and percent, and leaves the readings', () => {
    const random = seededRandom(5)
    const protocol = PROTOCOLS['laboratory-7']
    const readings = protocol.sites.flatMap((site) =>
      [1, 2].map((round): Reading => ({
        id: random.uuid(),
        site,
        round,
        value: 20.8,
        unit: 'mm',
        takenAt: '2026-03-03T08:00:00.000Z',
        source: 'pad',
      })),
    )
    const facts = {
      person: { sex: 'male' as const, birthDate: '1980-05-05', heightCm: 180 },
      protocol,
      startedAt: '2026-03-03T08:00:00.000Z',
      readings,
      strikes: [],
    }
    const plain = composeCheckin(facts)
    const taken = composeCheckin({ ...facts, correction: { offsetMm: 0.8, gain: 1 } })
    expect(plain.sumMm).toBeCloseTo(7 * 20.8, 6)
    expect(taken.sumMm).toBeCloseTo(7 * 20, 6)
    expect(taken.values.triceps).toBeCloseTo(20, 9)
    expect(taken.session.sites[0]?.value).toBeCloseTo(20.8, 9)
    expect(taken.correction).toEqual({ offsetMm: 0.8, gain: 1 })
    const percent = (result: typeof plain) =>
      result.estimate && 'percent' in result.estimate ? result.estimate.percent : NaN
    expect(percent(taken)).toBeLessThan(percent(plain))
  })
})

describe('progress', () => {
  const repeats = (site: RepeatsAt['site'], percent: number, freedom: number, stretch = 0): RepeatsAt => ({
    site,
    stretch,
    squares: freedom * (0.16 * percent) ** 2,
    freedom,
    total: 16 * 2 * freedom,
    readings: 2 * freedom,
  })

  it('gives the worst against its mark first, with its course over the seasons', () => {
    const found = siteProgress([
      repeats('triceps', 3, 40),
      repeats('subscapular', 9, 20, 1),
      repeats('subscapular', 7, 20),
      repeats('waist', 1.4, 30),
    ])
    expect(found.map(({ site }) => site)).toEqual(['subscapular', 'waist', 'triceps'])
    const [worst] = found
    expect(worst?.now.percent).toBeCloseTo(Math.sqrt((81 + 49) / 2), 6)
    expect(worst?.course).toHaveLength(STRETCHES)
    expect(worst?.course.slice(-2)).toEqual([expect.closeTo(9, 6), expect.closeTo(7, 6)])
    expect(found.at(-1)).toMatchObject({ standing: 'trained', sure: true, more: null })
  })

  it('says how many more repeats would tell, and those are enough', () => {
    const [open] = siteProgress([repeats('thigh', 6, 8)])
    expect(open?.sure).toBe(false)
    const more = open?.more ?? 0
    expect(more).toBeGreaterThan(0)
    const [told] = siteProgress([repeats('thigh', 6, 8 + more)])
    expect(told?.now.percentLow ?? 0).toBeGreaterThan(5)
    const [short] = siteProgress([repeats('thigh', 6, 8 + more - 1)])
    expect(short?.now.percentLow ?? 9).toBeLessThanOrEqual(5)
    expect(nextSteps(siteProgress([repeats('subscapular', 8.1, 12)]))[0]).toMatch(
      /^Subscapular 8\.1 %: mark again with the hand behind the back/,
    )
    expect(nextSteps([])[0]).toMatch(/Read every site twice/)
    expect(siteProgress([repeats('thigh', 6, 2)])).toEqual([])
  })
})

describe('other methods', () => {
  it('each say what they measure and how one prepares; impedance refuses an implanted device', () => {
    for (const id of OTHER_METHODS) {
      expect(METHODS[id].about.length).toBeGreaterThan(30)
      expect(METHODS[id].prepare.length).toBeGreaterThan(20)
      for (const { low, high } of METHODS[id].told) expect(high).toBeGreaterThan(low)
    }
    expect(refusal('bia-hand-foot', { implant: 'yes' })).toMatch(/implanted device/)
    expect(refusal('bia-foot', { implant: 'yes' })).not.toBeNull()
    expect(refusal('bia-foot', { implant: 'no' })).toBeNull()
    expect(refusal('dxa', { implant: 'yes' })).toBeNull()
  })
})
