import { z } from 'zod'
import { day } from './dates'
import type { PlanEnergy } from '../../core/plan/dynamic-course'
import { TARGET_KINDS, type TargetKind } from '../../core/plan/target'

/** Units a target can be set in. */
const TARGET_UNITS: Readonly<Record<TargetKind, readonly TargetUnit[]>> = {
  percent: ['%'],
  fat: ['kg', 'lb'],
  weight: ['kg', 'lb'],
  sum: ['mm'],
}
export type TargetUnit = '%' | 'kg' | 'lb' | 'mm'

const kcal = (what: string, low: number) =>
  z
    .number({ error: `Please give ${what} in kcal.` })
    .min(low, `${what} of less than ${low} kcal a day: please check.`)
    .max(10_000, `${what} of more than 10,000 kcal a day: please check.`)

/** What a plan by the dynamic model is set with. */
export const planEnergy = z.strictObject({
  intakeKcal: kcal('An intake', 500),
  restingKcal: kcal('Resting expenditure', 500),
  dailyKcal: kcal('Daily expenditure', 500),
  dailySd: z.number().min(0).max(2000),
  /** Days from the start on which a week at balance begins. */
  breaks: z.array(z.int().min(0).max(730)).max(20, 'At most twenty weeks at balance.'),
})

/** A target for a client, its pace and the check-in it starts from, as entered. */
export const planInput = z
  .strictObject({
    id: z.uuid('This needs an id made by the device.'),
    checkinId: z.uuid('There is no such check-in.'),
    kind: z.enum(TARGET_KINDS, { error: 'Say what the target is set in.' }),
    value: z
      .number({ error: 'Please give the target as a number.' })
      .gt(0, 'A target is above zero.')
      .lt(1000, 'A target lies below 1,000.'),
    perWeek: z
      .number({ error: 'Please give the pace as a number.' })
      .gt(0, 'A pace is above zero; its direction follows from the target.')
      .lt(100, 'A pace lies below 100 a week.'),
    unit: z.enum(['%', 'kg', 'lb', 'mm'], { error: 'This unit is not known.' }),
    byDay: day('Please give a day.').nullable().default(null),
    energy: planEnergy.nullable().default(null),
  })
  .refine(({ kind, unit }) => TARGET_UNITS[kind].includes(unit), {
    path: ['unit'],
    message: 'This target is not set in this unit.',
  })
  .refine(({ kind, energy }) => kind !== 'sum' || energy === null, {
    path: ['kind'],
    message: 'A sum of folds is planned by its pace: the model knows fat and weight only.',
  })
  .refine(({ kind, value }) => kind !== 'percent' || value < 75, {
    path: ['value'],
    message: 'A percent lies below 75.',
  })
export type PlanInput = z.output<typeof planInput>

/** Why a plan goes on in spite of a caution that has come up since. */
export const suspensionDecision = z.strictObject({
  id: z.uuid('This needs an id made by the device.'),
  reason: z.string({ error: 'Please say why.' }).trim().min(1, 'Please say why.').max(300, 'At most 300 characters.'),
})
export type SuspensionDecision = z.output<typeof suspensionDecision>

/** A plan as stored: what it is and by whom it was set. */
export interface PlanRecord {
  id: string
  checkinId: string
  kind: TargetKind
  value: number
  perWeek: number
  unit: TargetUnit
  byDay: string | null
  energy: PlanEnergy | null
  at: string
  by: string
  endedAt: string | null
}
