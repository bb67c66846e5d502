import { z } from 'zod'
import { barredSide, FLAGS, type Flag } from '../../core/cautions/flags'
import { ANCESTRIES } from '../../core/composition/ancestry'
import type { RowFacts } from '../../core/following/change-row'
import { HEIGHT_RANGE_CM } from '../../core/units'
import { personName } from './account'
import { LIMITS } from '../../core/safety/limits'
import { lastPreparationDay } from '../../core/safety/preparation'
import { day, pastDay } from './dates'

const { low, high } = HEIGHT_RANGE_CM
const heightSentence = `A height lies between ${low} and ${high} cm.`

/** A preparation for a day that does not move: with a medical clearance that covers it, for half a year at most. */
const preparation = z
  .strictObject({
    day: day('Please give the day it is for.'),
    begunOn: pastDay('Please give the day it begins.'),
    clearedBy: z
      .string({ error: 'Please name the doctor who gave the clearance.' })
      .trim()
      .min(1, 'Please name the doctor who gave the clearance.')
      .max(120, 'A name has at most 120 characters.'),
    clearedOn: pastDay('Please give the day of the clearance.'),
    clearedUntil: day('Please say until when the clearance holds.'),
  })
  .refine((one) => one.day > one.begunOn && one.day <= lastPreparationDay(one.begunOn), {
    path: ['day'],
    message: `A preparation lasts ${LIMITS.preparation.value.weeks} weeks at most, and its day lies after its start.`,
  })
  .refine((one) => one.clearedUntil >= one.day, {
    path: ['clearedUntil'],
    message: 'The clearance has to hold until the day itself.',
  })

/** What the fields of a client ask of each other. */
function clientRules(
  one: {
    flags: Flag[]
    usualSide: string
    guardianConsent: boolean
    guardianName: string
    guardianConsentOn: string | null
  },
  context: z.RefinementCtx,
) {
  const say = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message })
  const barred = barredSide(one.flags)
  if (barred === one.usualSide)
    say('usualSide', `The ${barred} side is not measured: choose the ${barred === 'left' ? 'right' : 'left'}.`)
  if (one.guardianConsent && one.guardianName === '') say('guardianName', 'Please name the guardian who agrees.')
  if (one.guardianConsent && one.guardianConsentOn === null)
    say('guardianConsentOn', 'Please give the day the guardian agreed.')
}

const clientShape = z.strictObject({
  name: personName,
  sex: z.enum(['female', 'male'], { error: 'Choose the sex the equations should use.' }),
  birthDate: pastDay('Please give the birth date.'),
  heightCm: z.number({ error: heightSentence }).min(low, heightSentence).max(high, heightSentence).nullable(),
  usualSide: z.enum(['right', 'left'], { error: 'Choose right or left.' }),
  notes: z.string().max(4000, 'Notes have at most 4,000 characters.'),
  consentOn: pastDay('Please give the day of consent as a date.').nullable(),
  guardianConsent: z.boolean({ error: 'Say whether a guardian has agreed.' }).default(false),
  guardianName: z.string().trim().max(120, 'A name has at most 120 characters.').default(''),
  guardianConsentOn: pastDay('Please give the day the guardian agreed.').nullable().default(null),
  guardianPhotoConsentOn: pastDay('Please give the day the guardian agreed.').nullable().default(null),
  flags: z
    .array(z.enum(Object.keys(FLAGS) as [Flag, ...Flag[]], { error: 'This is not known.' }))
    .max(Object.keys(FLAGS).length)
    .default([]),
  athlete: z.boolean().nullable().default(null),
  ancestry: z.enum(ANCESTRIES, { error: 'This is not known.' }).nullable().default(null),
  photoConsentOn: pastDay('Please give the day of consent as a date.').nullable().default(null),
  preparation: preparation.nullable().default(null),
})
/** What a coach writes down about a client. Height in cm. */
export const clientInput = clientShape.superRefine(clientRules)
export type ClientInput = z.output<typeof clientShape>

/** The record a form was opened on: it is not laid over a newer one. */
const version = z.int('This needs the version it was made on.').min(1).max(2_000_000_000)

/** A change of a client: what they are, on the version it was made on, or whether they are archived. */
export const clientChange = z.union([
  // A record is sent back whole by whoever changes a part of it; whose client somebody is has a way of its own.
  z
    .strictObject({ ...clientShape.shape, version, coachId: z.uuid().nullable().optional() })
    .superRefine(clientRules)
    .transform(({ coachId: _, ...record }) => record),
  z.strictObject({ archived: z.boolean() }),
])

/** Whose client somebody is; null: everybody's. */
export const clientCoach = z.strictObject({ coachId: z.uuid('There is no such person here.').nullable() })

/** A new client, with the id made by the device. */
export const newClientInput = z
  .strictObject({ id: z.uuid('This needs an id.'), ...clientShape.shape })
  .superRefine(clientRules)

/** One client as the product shows them. */
export interface Client extends ClientInput {
  id: string
  archived: boolean
  /** Whose client they are; null: everybody's. */
  coachId?: string | null
  /** Counts changes of the record. */
  version: number
}

/** A figure of the list: kg or mm, with its change since the pinned start where that can be said. */
export interface ClientFigure {
  value: number
  change: (RowFacts & { low: number; high: number; odds: number; since: string }) | null
}

/** One line of the list of clients. */
export interface ClientLine {
  id: string
  name: string
  birthDate: string
  archived: boolean
  lastCheckinAt: string | null
  checkins: number
  openCheckinId: string | null
  /** The client is shown no percent, mass or weight: the list holds none of theirs. */
  neutral: boolean
  fat: ClientFigure | null
  lean: ClientFigure | null
  sum: ClientFigure | null
  /** Day of the last check-in, where the studio is. */
  lastDay: string | null
  /** Day the next check-in is due; null: not measured yet. */
  nextOn: string | null
  due: boolean
}

/** A page of the list; `next` is where the next one begins, null ends it. */
export interface ClientPage {
  clients: ClientLine[]
  total: number
  next: number | null
}

export const CLIENT_SORTS = ['name', 'fat', 'lean', 'sum', 'last', 'next'] as const
export type ClientSort = (typeof CLIENT_SORTS)[number]

export const CLIENT_FILTERS = ['all', 'due', 'changed', 'open', 'new'] as const
export type ClientFilter = (typeof CLIENT_FILTERS)[number]

const truth = z.enum(['true', 'false']).default('false')

/** How the list is asked for. */
export const clientQuery = z.object({
  q: z.string().max(120).default(''),
  archived: truth,
  sort: z.enum(CLIENT_SORTS).default('name'),
  descending: truth,
  filter: z.enum(CLIENT_FILTERS).default('all'),
  from: z.coerce.number().int().min(0).max(1_000_000).default(0),
})
