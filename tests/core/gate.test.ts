import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import { cautionsFor, cautionFacts, FLAGS, SHORT_FLAGS, type Flag } from '../../core/cautions'
import { readSpan, READING_RULES } from '../../core/following'
import {
  courseFindings,
  homeFindings,
  isPreparing,
  personFindings,
  suspendedBy,
  unplannedLoss,
  verdictOf,
  withoutBody,
  type Finding,
  type Preparation,
  type SafetyFacts,
} from '../../core/safety'

/*
 * The gate’s further parts: flags and what each changes, preparation for a fixed day, weight lost without a plan, what is
 * suspended, and words for somebody who sees no numbers. Limits recalled; see core/safety/limits.ts.
 */

const well: SafetyFacts = { sex: 'female', ageYears: 34, heightCm: 170, weightKg: 72, percent: 29, flags: [] }
const loss = { startKg: 72, endKg: 68, endPercent: 25, weekKg: -0.4, direction: 'loss' } as const
const withFlags = (...flags: Flag[]) => ({ ...well, flags })
const outcome = (found: readonly Finding[]) => verdictOf(found).outcome

describe('a flag', () => {
  it.each([
    ['pregnant', 'stop'],
    ['breastfeeding', 'stop'],
    ['eating-disorder', 'stop'],
    ['dialysis', 'stop'],
    ['neutral-wish', 'stop'],
    ['diabetes-medication', 'stop'],
    ['appetite-medication', 'stop'],
    ['breastfeeding-later', 'caution'],
    ['missed-periods', 'caution'],
    ['stress-fracture', 'caution'],
    ['fainting', 'caution'],
    ['kidney-disease', 'allow'],
    ['anticoagulants', 'allow'],
    ['implanted-device', 'allow'],
  ] as const)('%s: a loss is answered with %s', (flag, said) => {
    expect(outcome(courseFindings(withFlags(flag), loss))).toBe(said)
  })

  it('of a medication gives way to the prescriber, and to nobody else', () => {
    for (const flag of ['diabetes-medication', 'appetite-medication'] as const)
      expect(outcome(personFindings(withFlags(flag, 'prescriber-agreed')))).toBe('caution')
    expect(outcome(personFindings(withFlags('pregnant', 'prescriber-agreed')))).toBe('stop')
  })

  it('that is asked says on every page what it changes', () => {
    const person = { sex: 'female' as const, birthDate: '1990-01-01', consentOn: '2026-01-01' }
    for (const flag of Object.keys(FLAGS) as Flag[]) {
      // The first is a choice of side, the second takes a caution back.
      if (flag === 'abnormal-limb' || flag === 'prescriber-agreed') continue
      expect(
        cautionsFor(cautionFacts({ ...person, flags: [flag] }, '2026-12-01')).map(({ code }) => code),
        flag,
      ).toEqual([flag])
    }
    expect(SHORT_FLAGS.every((flag) => flag in FLAGS)).toBe(true)
  })

  it('asks a reason for a daily weight wherever no loss is planned, for tape and pictures in neutral mode', () => {
    fc.assert(
      fc.property(fc.subarray(Object.keys(FLAGS) as Flag[]), (flags) => {
        const facts = withFlags(...flags)
        const stops = personFindings(facts).filter((one) => one.outcome === 'stop')
        expect(homeFindings(facts, 'weigh-ins')).toEqual(stops)
        expect(homeFindings(facts, 'girths').length).toBeLessThanOrEqual(stops.length)
        expect(homeFindings(facts, 'girths').map(({ code }) => code)).not.toContain('diabetes-medication')
      }),
    )
  })
})

describe('what passes the gate, whoever and whatever', () => {
  const anybody = fc.record({
    sex: fc.constantFrom('female' as const, 'male' as const),
    ageYears: fc.integer({ min: 10, max: 90 }),
    heightCm: fc.integer({ min: 140, max: 205 }),
    weightKg: fc.integer({ min: 35, max: 170 }),
    percent: fc.option(fc.double({ min: 2, max: 55, noNaN: true })),
    flags: fc.oneof(fc.constant([] as Flag[]), fc.subarray(Object.keys(FLAGS) as Flag[], { maxLength: 3 })),
    preparing: fc.boolean(),
  })
  const anywhere = fc.record({
    endKg: fc.integer({ min: 30, max: 170 }),
    endPercent: fc.option(fc.double({ min: 1, max: 55, noNaN: true })),
    weekKg: fc.double({ min: 0.01, max: 2, noNaN: true }),
    weekPoints: fc.option(fc.double({ min: 0.05, max: 2, noNaN: true })),
  })

  it('is within every limit, worked out here a second time by hand', () => {
    let passed = 0
    fc.assert(
      fc.property(anybody, anywhere, (facts, leads) => {
        const course = { ...leads, startKg: facts.weightKg, weekKg: -leads.weekKg, direction: 'loss' as const }
        if (outcome(courseFindings(facts, course)) === 'stop') return
        passed += 1
        const bmi = (kg: number) => kg / (facts.heightCm / 100) ** 2
        expect(facts.ageYears).toBeGreaterThanOrEqual(18)
        expect(Math.min(bmi(facts.weightKg), bmi(leads.endKg))).toBeGreaterThanOrEqual(facts.ageYears >= 65 ? 23 : 18.5)
        const floor = { female: [13, 10], male: [5, 3] }[facts.sex][facts.preparing ? 1 : 0] ?? NaN
        if (leads.endPercent !== null) expect(leads.endPercent).toBeGreaterThanOrEqual(floor)
        const byPoints = facts.preparing && leads.weekPoints !== null && leads.endPercent !== null
        if (byPoints) expect(leads.weekPoints).toBeLessThanOrEqual(1.001)
        else {
          const most = bmi(facts.weightKg) >= 30 ? [1.4, 0.012] : [0.9, 0.01]
          expect(leads.weekKg).toBeLessThanOrEqual(Math.min(most[0] ?? 0, (most[1] ?? 0) * facts.weightKg) + 1e-3)
        }
        for (const flag of ['pregnant', 'breastfeeding', 'eating-disorder', 'dialysis', 'neutral-wish'] as const)
          expect(facts.flags).not.toContain(flag)
        if (facts.flags.some((flag) => flag === 'diabetes-medication' || flag === 'appetite-medication'))
          expect(facts.flags).toContain('prescriber-agreed')
      }),
      { numRuns: 5000 },
    )
    expect(passed).toBeGreaterThan(50)
  })
})

describe('a preparation', () => {
  const today = '2026-12-01'
  const preparation: Preparation = {
    day: '2027-03-01',
    begunOn: '2026-11-01',
    clearedBy: 'Dr Elm',
    clearedOn: '2026-10-20',
    clearedUntil: '2027-03-15',
  }

  it('counts while its clearance covers it, for 26 weeks at most, and ends by itself after the day', () => {
    expect(isPreparing(preparation, today)).toBe(true)
    expect(isPreparing(preparation, '2027-03-01')).toBe(true)
    expect(isPreparing(preparation, '2027-03-02')).toBe(false)
    expect(isPreparing({ ...preparation, clearedBy: ' ' }, today)).toBe(false)
    expect(isPreparing({ ...preparation, clearedUntil: '2027-02-28' }, today)).toBe(false)
    expect(isPreparing({ ...preparation, begunOn: addDays(preparation.day, -183) }, today)).toBe(false)
    expect(isPreparing(null, today)).toBe(false)
  })

  it('allows ends and paces that are stopped outside it, and none below essential fat', () => {
    const lean = { ...well, percent: 16, weightKg: 62 }
    const to = (endPercent: number, weekPoints: number) => ({
      startKg: 62,
      endKg: 59,
      endPercent,
      weekKg: -0.4,
      weekPoints,
      direction: 'loss' as const,
    })
    const prepared = { ...lean, preparing: true }
    expect(outcome(courseFindings(lean, to(11, 0.4)))).toBe('stop')
    expect(outcome(courseFindings(prepared, to(11, 0.4)))).toBe('caution')
    expect(outcome(courseFindings(prepared, to(11, 0.6)))).toBe('stop')
    expect(outcome(courseFindings(prepared, to(9.9, 0.4)))).toBe('stop')
    // Above 18 % a point a week; the same body outside a preparation loses too fast with it.
    const fuller = { ...prepared, percent: 24 }
    expect(outcome(courseFindings(fuller, { ...to(19, 1), weekKg: -0.8 }))).toBe('allow')
    expect(outcome(courseFindings({ ...fuller, preparing: false }, { ...to(19, 1), weekKg: -0.8 }))).toBe('stop')
    // Everything else still stops.
    expect(outcome(courseFindings({ ...prepared, flags: ['pregnant'] }, to(14, 0.4)))).toBe('stop')
    expect(outcome(courseFindings(prepared, { ...to(14, 0.4), endKg: 18 * 1.7 ** 2 }))).toBe('stop')
  })
})

describe('weight lost without a plan', () => {
  const on = (day: string, kg: number) => ({ day, kg })
  it('is said from 5 % in six months, and from more than 1 % a week', () => {
    expect(unplannedLoss([on('2026-06-10', 80), on('2026-12-01', 76.1)])).toBeNull()
    expect(unplannedLoss([on('2026-06-10', 80), on('2026-12-01', 75.9)])?.sentence).toContain('doctor')
    expect(unplannedLoss([on('2026-05-01', 80), on('2026-12-01', 75)])).toBeNull()
    expect(unplannedLoss([on('2026-11-10', 80), on('2026-12-01', 77.4)])?.code).toBe('unplanned-loss')
    // A week is water.
    expect(unplannedLoss([on('2026-11-24', 80), on('2026-12-01', 78.5)])).toBeNull()
  })

  it('is not said of days on which a loss was planned', () => {
    const weights = [on('2026-08-01', 80), on('2026-12-01', 75)]
    expect(unplannedLoss(weights, [{ from: '2026-09-01', to: '2026-10-01' }])).toBeNull()
    expect(unplannedLoss(weights, [{ from: '2026-01-01', to: '2026-07-01' }])).not.toBeNull()
  })
})

describe('what suspends', () => {
  const [stop] = personFindings(withFlags('pregnant'))
  const [caution] = personFindings(withFlags('fainting'))
  it('is a stop, always, and a caution about the person that is new', () => {
    if (!stop || !caution) throw new Error('no findings')
    expect(suspendedBy([caution, stop], [caution, stop], ['pregnant', 'fainting'])).toBe(stop)
    expect(suspendedBy([caution], [])).toBe(caution)
    expect(suspendedBy([caution], [caution])).toBeNull()
    expect(suspendedBy([caution], [], ['fainting'])).toBeNull()
    expect(suspendedBy([], [])).toBeNull()
  })
})

describe('words', () => {
  it('for somebody who sees no numbers hold no figure and nothing about the body, whatever was written', () => {
    expect(withoutBody('Five calm rows. The sum is down 3 mm. Well done with the starts!')).toBe(
      'Five calm rows. Well done with the starts!',
    )
    const body = fc.constantFrom(
      'Weight leans down.',
      'Fat is going.',
      'Your waist is smaller.',
      'Down 2.5 kg.',
      '12 %.',
    )
    const trained = fc.constantFrom('Calm starts.', 'A good week.', 'The catch is sharper.')
    fc.assert(
      fc.property(fc.array(fc.oneof(body, trained)), (sentences) => {
        const left = withoutBody(sentences.join(' '))
        expect(left).not.toMatch(/\d|weight|fat|waist/i)
        for (const one of sentences) if (/Calm|good|catch/.test(one)) expect(left).toContain(one)
      }),
    )
  })

  it('praise a loss only where one is planned and allowed', () => {
    const praise = /keep going|fat is going|on the way|well done/i
    for (const { sentence } of READING_RULES) if (typeof sentence === 'string') expect(sentence).not.toMatch(praise)
    expect(READING_RULES.filter(({ planned }) => planned?.match(praise)).map(({ code }) => code)).toEqual([
      'fat-for-lean',
      'fat-down',
    ])
    expect(readSpan.length).toBeGreaterThan(0)
  })

  it('say of lean mass that it may be water', () => {
    for (const { sentence, planned } of READING_RULES)
      for (const said of [typeof sentence === 'string' ? sentence : '', planned ?? ''])
        if (/lean (mass )?(or water )?is (up|down)|lean mass (are|is)/.test(said)) expect(said).toContain('water')
  })
})
