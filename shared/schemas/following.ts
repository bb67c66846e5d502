import { z } from 'zod'
import { CONVERSIONS } from '../../core/equations/density'
import type { CountedStudy } from './study'
import type { KnownHand } from '../../core/error'
import type { Day } from '../../core/calendar'
import { FACTOR_RANGE, WORK, type WorkId } from '../../core/energy/activity'
import { INTAKE_RANGE } from '../../core/energy/observed'
import type { ClientSchedule } from '../../core/schedule/dates'
import type { Choices } from '../../core/composition/facts'
import type { LearntParts } from '../../core/following/parts'
import type { Noises } from '../../core/following/learning'
import type { FigureSeries } from '../../core/following/series'
import type { Worthwhile } from '../../core/following/worthwhile'
import type { SiteError } from '../../core/error'
import type { SiteId } from '../../core/sites'
import { worthwhileFat, worthwhileSum } from './account'
import type { Caliper } from './caliper'
import type { CheckinRecord, VoidedCheckin } from './checkin'
import type { Client } from './client'
import { BOUNDS } from '../../core/units/bounds'
import { pastDay } from './dates'
import { weightWithin } from './measured'
import type { Photo } from './photo'
import type { Suspension } from '../../core/safety/suspension'
import type { PlanRecord } from './plan'

const id = z.uuid('This needs an id made by the device.')
const yesOrNo = z.boolean({ error: 'Say yes or no.' })

/** The check-in a client is followed from; null: the next one, whatever it brings. */
export const pinInput = z.strictObject({ id, checkinId: z.uuid('There is no such check-in.').nullable() })
export type PinInput = z.output<typeof pinInput>

/** A client's own smallest changes worth acting on; null: the studio's. */
export const worthwhileInput = z.strictObject({
  fatKg: worthwhileFat.nullable(),
  sumPercent: worthwhileSum.nullable(),
})
export type WorthwhileInput = z.output<typeof worthwhileInput>

/** A start that was pinned: which check-in (null: the first that began afterwards), when and by whom. */
export interface PinnedStart {
  checkinId: string | null
  at: string
  by: string
}

/** Noise as held on a day, learnt from the studio's other clients until then. */
export interface NoiseUntil {
  until: Day
  /** By family; what is left out stays as assumed. */
  noises: Partial<Noises>
}

/** How active a client is: a factor of resting, or work and hours of training a week. */
const activity = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('factor'),
    factor: z
      .number({ error: 'A factor is a number.' })
      .min(FACTOR_RANGE.low, `A factor lies between ${FACTOR_RANGE.low} and ${FACTOR_RANGE.high}.`)
      .max(FACTOR_RANGE.high, `A factor lies between ${FACTOR_RANGE.low} and ${FACTOR_RANGE.high}.`),
  }),
  z.strictObject({
    kind: z.literal('hours'),
    work: z.enum(WORK.map(({ id: one }) => one) as [WorkId, ...WorkId[]], { error: 'This work is not known.' }),
    trainingHours: z
      .number({ error: 'Hours are a number.' })
      .min(0, 'Hours are not below zero.')
      .max(40, 'More than 40 hours of training a week: please check.'),
  }),
])

/** Equation, conversion and roundings chosen for a client. */
export const choiceInput = z.strictObject({
  id,
  conversion: z.enum(Object.keys(CONVERSIONS) as [string, ...string[]], { error: 'This conversion is not known.' }),
  equationId: z.string({ error: 'Choose an equation.' }).max(80).nullable(),
  militaryRounding: yesOrNo.default(false),
  blackAthleteTerm: yesOrNo.default(false),
  abdomenOfTwo: yesOrNo.optional(),
  activity: activity.optional(),
})
export type ChoiceInput = z.output<typeof choiceInput>

/** Why somebody looks past a client's neutral mode. */
export const neutralLeaveInput = z.strictObject({
  id,
  reason: z.string({ error: 'Please say why.' }).trim().min(1, 'Please say why.').max(300, 'At most 300 characters.'),
})
export type NeutralLeaveInput = z.output<typeof neutralLeaveInput>

/** A recorded choice: what counts from now on, since when and by whom. */
export interface RecordedChoice {
  choices: Choices
  at: string
  by: string
}

/** One weigh-in of the diary. */
export const weighInInput = weightWithin(
  z.strictObject({
    id,
    day: pastDay('Please give the day.'),
    value: z.number({ error: 'A weight is a number.' }),
    unit: z.enum(['kg', 'lb'], { error: 'A weight is in kg or lb.' }),
    dry: yesOrNo.default(true),
    source: z.enum(['typed', 'pasted', 'scale', 'link'], { error: 'Say how the weight came in.' }),
  }),
).refine(({ day }) => day >= BOUNDS.firstFactDay, {
  path: ['day'],
  message: `That is before ${BOUNDS.firstYear}: please check the year.`,
})

/** Weigh-ins together: all are stored or none. */
export const weighInsInput = z.strictObject({
  weighIns: z
    .array(weighInInput)
    .min(1, 'There is nothing to store.')
    .max(3000, 'At most 3,000 weigh-ins at once.')
    .refine((given) => new Set(given.map(({ day }) => day)).size === given.length, 'A day has one weigh-in.'),
})
export type WeighInsInput = z.output<typeof weighInsInput>

const kcalRange = { low: INTAKE_RANGE.low, high: INTAKE_RANGE.high }

/** What was eaten on a day. */
export const intakeInput = z
  .strictObject({
    id,
    day: pastDay('Please give the day.'),
    kcal: z
      .int({ error: 'An intake is a whole number of kcal.' })
      .min(kcalRange.low, `Under ${kcalRange.low} kcal in a day: is it the whole day?`)
      .max(kcalRange.high, `More than ${kcalRange.high.toLocaleString('en-US')} kcal in a day: please check.`),
    source: z.enum(['typed', 'pasted', 'link'], { error: 'Say how it came in.' }),
  })
  .refine(({ day }) => day >= BOUNDS.firstFactDay, {
    path: ['day'],
    message: `That is before ${BOUNDS.firstYear}: please check the year.`,
  })

/** Intakes together: all are stored or none. */
export const intakesInput = z.strictObject({
  intakes: z
    .array(intakeInput)
    .min(1, 'There is nothing to store.')
    .max(3000, 'At most 3,000 days at once.')
    .refine((given) => new Set(given.map(({ day }) => day)).size === given.length, 'A day has one intake.'),
})
export type IntakesInput = z.output<typeof intakesInput>

/** An intake as stored. */
export interface IntakeRecord {
  id: string
  day: string
  kcal: number
  source: 'typed' | 'pasted' | 'link'
}

/** Which span the page to take home is about; without one, the last two check-ins. */
export const takeHomeQuery = z.object({
  from: z.uuid('There is no such check-in.').optional(),
  to: z.uuid('There is no such check-in.').optional(),
  neutral: z.enum(['true', 'false']).default('false'),
  /** The figure the page leads with. */
  figure: z.enum(['fat', 'sum', 'lean', 'weight', 'percent']).optional(),
})

/** A weigh-in as stored. */
export interface WeighInRecord {
  id: string
  day: string
  value: number
  unit: 'kg' | 'lb'
  dry: boolean
  source: 'typed' | 'pasted' | 'scale' | 'link'
}

/** An assessor's error by site, learnt from the repeats of every check-in. */
export interface AssessorErrors {
  assessorId: string
  name: string
  sites: ({ site: SiteId } & SiteError)[]
}

/**
 * What the client page works from: the facts; everything shown is computed from them in the page, but for what the chart of
 * a long history draws first.
 */
/** A client or a check-in that a file brought in: from which file, by whom, when. */
export interface BroughtIn {
  /** Null: the client themselves. */
  checkinId: string | null
  fileName: string
  by: string
  at: string
}

export interface ClientHistory {
  client: Client
  checkins: CheckinRecord[]
  /** Newest first; the first one counts. */
  choices: RecordedChoice[]
  errors: AssessorErrors[]
  calipers: Caliper[]
  /** Oldest first. */
  weighIns: WeighInRecord[]
  /** Oldest first. */
  intakes: IntakeRecord[]
  photos: Photo[]
  /** Newest first; the first that has not ended counts. */
  plans: PlanRecord[]
  /** What was agreed and does not count until a coach decides; none in answers kept by earlier versions. */
  suspensions?: Suspension[]
  /** Cadence, pause and days that do not move. */
  schedule: ClientSchedule
  /** Check-ins that count for nothing any more. */
  voided: VoidedCheckin[]
  /** What files brought in; none in answers kept by earlier versions. */
  brought?: BroughtIn[]
  /** Newest first; the first one counts. */
  pins: PinnedStart[]
  /** Parts of the error as others teach them; null: too few yet. */
  parts: LearntParts | null
  /** Oldest first. */
  noises: NoiseUntil[]
  /** What closed studies say about assessors and calipers, oldest first. */
  hands: KnownHand[]
  /** Closed studies that count in the error, oldest first. */
  studies: CountedStudy[]
  /** The client's own, and the studio's which stand where theirs are null. */
  worthwhile: { own: WorthwhileInput; studio: Worthwhile }
  /** Computed from the facts beside it (`openingSeries`); none where the page is as quick. */
  opening?: FigureSeries
}
