import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CAUTION_RULES, FLAGS, type Flag } from '../../core/cautions'
import { endFigures, followedEnd } from '../../core/following'
import { isPersonal } from '../../core/safety'
import { limitsOfIntake, lossRefusals, planRefusals, type PlanContext } from '../../core/plan'
import { PROTOCOLS } from '../../core/protocols'
import { energyOf } from '../../shared/energy'
import { followRecord } from '../../shared/followed-record'
import type { ClientHistory } from '../../shared/schemas/following'
import type { PlanRecord } from '../../shared/schemas/plan'
import { intakeToReach, whatIf } from '../../shared/what-if'
import { takeHomePlan } from '../../server/take-home/plan'
import { rounds, weight } from '../support/readings'

/*
 * No deficit is ever shown to whom none may be: every caution that allows none, walked through every door that leads to
 * one, whatever is typed there. Pages show what these give and nothing else.
 */

const TODAY = '2026-11-26'
const UNITS = { mass: 'kg', length: 'cm' } as const
const FOLDS = [14, 13, 8, 10, 15, 20, 22]

interface Someone {
  name: string
  flags?: Flag[]
  birthDate?: string
  heightCm?: number
  share?: number
}

/** One person for every caution that allows no deficit. */
const PEOPLE: readonly Someone[] = [
  { name: 'eating-disorder', flags: ['eating-disorder'] },
  { name: 'neutral-wish', flags: ['neutral-wish'] },
  { name: 'pregnant', flags: ['pregnant'] },
  { name: 'breastfeeding', flags: ['breastfeeding'] },
  { name: 'dialysis', flags: ['dialysis'] },
  { name: 'diabetes-medication', flags: ['diabetes-medication'] },
  { name: 'appetite-medication', flags: ['appetite-medication'] },
  { name: 'under-18', birthDate: '2010-06-01' },
  { name: 'underweight', heightCm: 202 },
  { name: 'essential-fat', share: 0.32 },
]

function facts({ flags = [], birthDate = '1992-03-14', heightCm = 174, share = 1 }: Someone) {
  const person = { sex: 'female' as const, birthDate, heightCm, flags, consentOn: '2026-01-01', guardianConsent: true }
  const values = FOLDS.map((mm) => Math.max(2.5, mm * share))
  const protocol = PROTOCOLS['laboratory-7']
  const startedAt = '2026-11-20T17:00:00.000Z'
  const readings = [weight(72), ...rounds(protocol, values, values)]
  const end = followedEnd({ person, protocol, startedAt, readings, strikes: [] })
  const context: PlanContext = { start: end, person, today: TODAY, units: UNITS }
  const history = {
    client: { ...person, id: 'a', name: 'Somebody', archived: false, athlete: null, ancestry: null },
    checkins: [
      {
        id: 'one',
        protocolId: protocol.id,
        startedAt,
        finishedAt: startedAt,
        day: '2026-11-20',
        readings,
        strikes: [],
        skips: [],
        conditions: {},
        side: 'right',
        policies: {},
      },
    ],
    choices: [
      {
        choices: { conversion: 'siri', equationId: null, activity: { kind: 'factor', factor: 1.6 } },
        at: startedAt,
        by: '',
      },
    ],
    calipers: [],
    weighIns: [],
    intakes: [],
  } as unknown as ClientHistory
  const record = followRecord(history)
  const held = energyOf(record, [], context)
  return { history, context, held, about: { person, today: TODAY, units: UNITS } }
}

/** Plans to lose, by what is eaten and by a pace. */
const PLANS = (['fat', 'weight', 'percent'] as const).flatMap((kind) =>
  [null, { intakeKcal: 1700, restingKcal: 1500, dailyKcal: 2300, dailySd: 100, breaks: [] }].map(
    (energy): PlanRecord => ({
      id: 'plan',
      checkinId: 'one',
      kind,
      value: { fat: 2, weight: 60, percent: 4 }[kind],
      perWeek: 0.2,
      unit: kind === 'percent' ? '%' : 'kg',
      byDay: null,
      energy,
      at: '2026-11-20T18:00:00.000Z',
      by: 'Runa',
      endedAt: null,
    }),
  ),
)

function takeHomeOf(history: ClientHistory, neutral: boolean) {
  return takeHomePlan({
    history,
    record: followRecord(history),
    units: UNITS,
    neutral,
    today: TODAY,
    energyOffered: true,
    until: TODAY,
    sayDay: (day) => day,
    placeOf: (day) => Date.parse(day),
  })
}

describe('no deficit is shown to whom none may be', () => {
  it('is not for want of plans: somebody well has all of them on the page to take home', () => {
    const { history } = facts({ name: 'well' })
    for (const plan of PLANS) expect(takeHomeOf({ ...history, plans: [plan] }, false)?.said).toContain('The plan:')
    for (const plan of PLANS) expect(takeHomeOf({ ...history, plans: [plan] }, true)).toBeNull()
  })

  it('covers every caution that allows none', () => {
    const codes = CAUTION_RULES.filter(({ effects }) => effects.includes('no-deficits')).map(({ code }) => code)
    expect(PEOPLE.map(({ name }) => name).sort()).toEqual([...codes].sort())
    expect(PEOPLE.flatMap(({ flags }) => flags ?? []).every((flag) => flag in FLAGS)).toBe(true)
  })

  it.each(PEOPLE)('$name', (someone) => {
    const { history, context, held, about } = facts(someone)
    expect(lossRefusals(context).length).toBeGreaterThan(0)
    // A plan kept before the caution was noted is not on the page to take home.
    for (const plan of PLANS) expect(takeHomeOf({ ...history, plans: [plan] }, false)).toBeNull()
    if (!held) return void expect(someone.name).toBe('under-18')
    expect(held.personal).toEqual(lossRefusals(context))
    const daily = held.believed?.value ?? 0
    expect(daily).toBeGreaterThan(1500)
    fc.assert(
      fc.property(
        fc.integer({ min: 500, max: 6000 }),
        fc.option(fc.double({ min: 30, max: 110, noNaN: true })),
        fc.constantFrom('fat' as const, 'weight' as const),
        fc.constantFrom(null, 6, 8),
        fc.double({ min: 0.05, max: 3, noNaN: true }),
        (kcal, kg, of, breakEvery, perWeek) => {
          const target = kg === null ? null : { of, kg }
          const found = whatIf(held, { kcal, breakEvery, target }, about)
          if (found && kcal < daily) {
            // The reason, and nothing to look at.
            expect(found.stopped).toBe(true)
            expect([...found.course, ...found.others, ...found.days]).toEqual([])
            expect(found.limits.map(({ code, stop }) => [code !== 'supply' && isPersonal(code), stop])).toEqual([
              [true, true],
            ])
          }
          // Beside a gain no line that loses.
          for (const { course } of found?.others ?? [])
            expect(course.at(-1)?.weightKg ?? 0).toBeGreaterThanOrEqual((course[0]?.weightKg ?? 0) - 1e-6)
          // The plan kept at the server, by pace or by what is eaten.
          const energy = { intakeKcal: kcal, restingKcal: 1500, dailyKcal: daily, dailySd: 100, breaks: [] }
          if (kcal < daily) expect(limitsOfIntake(energy, null, context).some(({ stop }) => stop)).toBe(true)
          for (const kind of ['percent', 'fat', 'weight', 'sum'] as const) {
            const from = endFigures(context.start)[kind]?.value ?? 100
            const refusals = planRefusals({ kind, value: from * 0.8, perWeek }, context)
            expect(refusals.length, kind).toBeGreaterThan(0)
          }
          // An intake that was worked out for a loss is stopped like one that was typed.
          const solved = target && target.kg < 60 ? intakeToReach(held, target, 120, breakEvery) : null
          if (solved !== null && solved < daily)
            expect(whatIf(held, { kcal: solved, breakEvery, target }, about)?.stopped).toBe(true)
        },
      ),
      { numRuns: 25 },
    )
  })
})
