import { describe, expect, it } from 'vitest'
import { v7 as uuid } from 'uuid'
import { planOption } from '../../app/components/plan/plan-option'
import { paces, readPlan, type TypedPlan } from '../../app/components/plan/typed-plan'
import { forecastAt, straightCourse, type Against, type PlanLine } from '../../core/plan'
import { KG_PER_LB } from '../../core/units'
import { currentPlan, targetOf, unitOfTarget } from '../../shared/plan'
import type { PlanRecord } from '../../shared/schemas/plan'
import { COLOURS } from '../support/charts'

const KG = { mass: 'kg', length: 'cm' } as const
const LB = { mass: 'lb', length: 'in' } as const
const id = uuid()
const typed = (change: Partial<TypedPlan>): TypedPlan => ({
  checkinId: uuid(),
  kind: 'fat',
  value: '13.5',
  perWeek: '0.2',
  byDay: '',
  ...change,
})

describe('a typed plan', () => {
  it('is read in the person’s unit, or the one written', () => {
    const read = (change: Partial<TypedPlan>, units: typeof KG | typeof LB = KG) => {
      const { plan, problems } = readPlan(typed(change), units, id)
      expect(problems).toEqual({})
      return plan && [plan.value, plan.perWeek, plan.unit]
    }
    expect(read({})).toEqual([13.5, 0.2, 'kg'])
    expect(read({}, LB)).toEqual([13.5, 0.2, 'lb'])
    expect(read({ value: '13,5' })).toEqual([13.5, 0.2, 'kg'])
    expect(read({ value: '30 lb', perWeek: '0.5 lb' })).toEqual([30, 0.5, 'lb'])
    const mixed = read({ value: '30 lb', perWeek: '0.2 kg' })
    expect(mixed?.[1]).toBeCloseTo(0.2 / KG_PER_LB, 12)
    expect(read({ kind: 'percent', value: '17 %', perWeek: '0.5 points' })).toEqual([17, 0.5, '%'])
    expect(read({ kind: 'sum', value: '80 mm', perWeek: '1' })).toEqual([80, 1, 'mm'])
  })

  it('says at the field what cannot be read, and nothing about an empty one', () => {
    const problems = (change: Partial<TypedPlan>) => readPlan(typed(change), KG, id).problems
    expect(problems({ value: '' })).toEqual({})
    expect(readPlan(typed({ value: '' }), KG, id).plan).toBeNull()
    expect(problems({ kind: 'percent', value: 'lean' }).value).toMatch(/one number/)
    expect(problems({ kind: 'sum', value: '80 90' }).value).toMatch(/one number/)
    expect(problems({ value: 'thin' }).value).toBeTruthy()
    expect(problems({ perWeek: '0' }).perWeek).toMatch(/above zero/)
    expect(problems({ kind: 'percent', value: '80' }).value).toMatch(/below 75/)
    expect(problems({ byDay: 'soon' }).byDay).toMatch(/a day/)
  })

  it('offers usual paces in the unit of the target', () => {
    for (const kind of ['percent', 'fat', 'weight', 'sum'] as const) {
      for (const units of [KG, LB]) {
        expect(paces(kind, units).every((pace) => Number(pace) > 0)).toBe(true)
        expect(unitOfTarget(kind, units)).toBe({ percent: '%', sum: 'mm', fat: units.mass, weight: units.mass }[kind])
      }
    }
  })
})

describe('a stored plan', () => {
  const record: PlanRecord = {
    id,
    checkinId: uuid(),
    kind: 'weight',
    value: 150,
    perWeek: 1,
    unit: 'lb',
    byDay: null,
    energy: null,
    at: '2026-06-01T17:00:00.000Z',
    by: 'Runa',
    endedAt: null,
  }

  it('is kept as entered and taken by core in kilograms', () => {
    expect(targetOf(record)).toEqual({ kind: 'weight', value: 150 * KG_PER_LB, perWeek: KG_PER_LB })
    expect(targetOf({ ...record, kind: 'sum', unit: 'mm' })).toEqual({ kind: 'sum', value: 150, perWeek: 1 })
  })

  it('counts when it is the newest and has not ended', () => {
    const ended = { ...record, endedAt: '2026-07-01T17:00:00.000Z' }
    expect(currentPlan({ plans: [record, ended] })).toBe(record)
    expect(currentPlan({ plans: [ended, record] })).toBeNull()
    expect(currentPlan({ plans: [] })).toBeNull()
    expect(currentPlan({} as never)).toBeNull()
  })
})

describe('the chart of a plan', () => {
  const line: PlanLine = {
    kind: 'sum',
    startedAt: '2026-06-01T17:00:00.000Z',
    startDay: '2026-06-01',
    from: 102,
    startError: 6,
    to: 82,
    perWeek: 1,
    weeks: 20,
    endsOn: '2026-10-20',
    energy: null,
    course: straightCourse({ startDay: '2026-06-01', from: 102, to: 82, weeks: 20 }),
  }
  const happened = {
    at: '2026-12-01T17:00:00.000Z',
    day: '2026-12-01',
    measured: 90,
    change: { noise: { sd: 8 / 1.96, freedom: 8, clients: 0 } },
  } as unknown as Against
  const picture = { measured: [happened], scale: (n: number) => n, name: 'Sum', colours: COLOURS, colour: '#746' }
  type Series = { name?: string; data: [number, number][] }
  const option = planOption(line, picture)
  const series = (name: string) => (option.series as Series[]).find((one) => one.name === name)?.data ?? []

  it('draws the line planned past its end as far as there are check-ins, and what was measured from the start on', () => {
    const planned = series('Planned')
    expect(planned[0]).toEqual([Date.parse(line.startedAt), 102])
    expect(planned.at(-1)).toEqual([Date.parse(happened.at), 82])
    for (const [at, value] of planned) {
      expect(value).toBeCloseTo(forecastAt(line, new Date(at).toISOString().slice(0, 10)).planned, 9)
    }
    expect(series('Measured')).toEqual([
      [Date.parse(line.startedAt), 102],
      [Date.parse(happened.at), 90],
    ])
  })

  it('leaves room for every band and whisker, never below zero', () => {
    const { min, max } = option.yAxis as { min: number; max: number }
    const end = forecastAt(line, happened.day)
    expect(min).toBeLessThanOrEqual(end.planned - end.band)
    expect(max).toBeGreaterThanOrEqual(108)
    const low = planOption({ ...line, from: 3, to: 1 }, { ...picture, measured: [] })
    expect((low.yAxis as { min: number }).min).toBe(0)
  })
})
