import { z } from 'zod'
import type { SiteProgress } from '../../core/study/progress'
import type { SiteId } from '../../core/sites'
import type { DrillRound } from './drill'
import { day } from './dates'

/** What a lead wants an assessor to have measured by a day. */
export const trainingPlanInput = z.strictObject({
  id: z.uuid('This needs an id made by the device.'),
  staffId: z.uuid('Choose an assessor.'),
  people: z.int('People are a whole number.').min(1, 'At least one person.').max(500, 'At most 500 people.'),
  byDay: day('Give the day it ends on.'),
  note: z.string().trim().max(500, 'At most 500 characters.').default(''),
})
export type TrainingPlanInput = z.input<typeof trainingPlanInput>

/** A plan with how far it is. */
export interface TrainingPlan {
  people: number
  fromDay: string
  byDay: string
  note: string
  done: number
}

/** How one assessor stands. */
export interface Progress {
  staffId: string
  name: string
  /** Different people measured, check-ins, and hours with them, ever. */
  people: number
  checkins: number
  hours: number
  sites: SiteProgress[]
  /** Against the studio's reference in the newest study of both, by ratio; null: none yet. */
  bias: { reference: string; day: string; sites: { site: SiteId; percent: number; low: number; high: number }[] } | null
  drills: DrillRound[]
  plan: TrainingPlan | null
}
