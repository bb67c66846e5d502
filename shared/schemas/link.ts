import { z } from 'zod'
import { FITS, HAND_IN_CONDITIONS, type HomeGirthChange, type Week } from '../../core/home'
import { GIRTHS, type GirthSiteId } from '../../core/sites'
import type { MassUnit } from '../../core/units'
import { conditionAnswers } from './condition-answers'
import { instant, pastDay } from './dates'
import { girthWithin, weightWithin } from './measured'
import { POSES, type Pose } from './photo'

/** What a client's link opens. */
export const LINK_SCOPES = ['weigh-ins', 'girths', 'photographs', 'take-home'] as const
export type LinkScope = (typeof LINK_SCOPES)[number]

const id = z.uuid('This needs an id made by the device.')
const token = z.string({ error: 'This link is not whole.' }).regex(/^[\w-]{43}$/, 'This link is not whole.')

/** A link for a client: what it opens, and until when. */
export const linkInput = z.strictObject({
  scope: z
    .array(z.enum(LINK_SCOPES, { error: 'This cannot be opened by a link.' }))
    .min(1, 'A link opens something.')
    .max(4),
  days: z
    .int({ error: 'A whole number of days.' })
    .min(1, 'A link works for a day or more.')
    .max(366, 'A link works for a year at most.'),
  /** Places of the tape asked for; empty: the usual three. */
  sites: z
    .array(z.enum(Object.keys(GIRTHS) as [GirthSiteId, ...GirthSiteId[]], { error: 'This place is not known.' }))
    .max(15, 'At most fifteen places.')
    .refine((sites) => new Set(sites).size === sites.length, 'Each place once.')
    .default([]),
  /** Why it asks for more than the page to take home where the gate speaks against it. */
  reason: z.string({ error: 'Please say why.' }).trim().max(300, 'At most 300 characters.').default(''),
})
export type LinkInput = z.output<typeof linkInput>

/** What is changed about a link that is out: its scope, its end. */
export const linkChange = z.strictObject({
  scope: linkInput.shape.scope.optional(),
  days: linkInput.shape.days.optional(),
  sites: linkInput.shape.sites.unwrap().optional(),
  reason: linkInput.shape.reason.unwrap().optional(),
})
export type LinkChange = z.output<typeof linkChange>

/** A client's link as a coach sees it. */
export interface LinkRecord {
  id: string
  scope: LinkScope[]
  /** What of the scope counts now; the rest is suspended. */
  counted: LinkScope[]
  reason: string
  sites: GirthSiteId[]
  at: string
  by: string
  expiresAt: string
  firstOpenedAt: string | null
  lastOpenedAt: string | null
  hasPin: boolean
  locked: boolean
  revokedAt: string | null
}

export const linkToken = z.strictObject({ token })

const pin = z.string({ error: 'Four to eight digits.' }).regex(/^\d{4,8}$/, 'Four to eight digits.')
export const linkPin = z.strictObject({ token, pin })

/** A link as its opener meets it. */
export interface LinkDoor {
  studioName: string
  firstName: string
  /** The guardian's: the client is a minor. */
  guardian?: boolean
  pin: 'choose' | 'give'
}

/** This morning's weight. */
export const homeWeighIn = weightWithin(
  z.strictObject({
    id,
    day: pastDay('Please give the day.'),
    value: z.number({ error: 'A weight is a number.' }),
    unit: z.enum(['kg', 'lb'], { error: 'A weight is in kg or lb.' }),
  }),
)
export type HomeWeighIn = z.output<typeof homeWeighIn>

const homeGirth = girthWithin(
  z.strictObject({
    id,
    site: z.enum(Object.keys(GIRTHS) as [GirthSiteId, ...GirthSiteId[]], { error: 'This place is not known.' }),
    trial: z.int().min(1).max(3),
    value: z.number({ error: 'A girth is a number.' }),
    unit: z.enum(['cm', 'in'], { error: 'A girth is in cm or in.' }),
  }),
)

/** A week handed in, whole: photographs follow under its id. */
export const handInInput = z.strictObject({
  id,
  day: pastDay('Please give the day.'),
  conditions: conditionAnswers(HAND_IN_CONDITIONS).default({}),
  fit: z.enum(FITS, { error: 'Looser, the same or tighter.' }).nullable().default(null),
  words: z.string({ error: 'Please type it anew.' }).trim().max(500, 'At most 500 characters.').default(''),
  girths: z
    .array(homeGirth)
    .max(45, 'At most fifteen places, three times each.')
    .refine(
      (all) => new Set(all.map(({ site, trial }) => `${site} ${trial}`)).size === all.length,
      'A place is read once a turn.',
    ),
})
export type HandInInput = z.output<typeof handInInput>

export const homePhotoQuery = z.object({
  id,
  handInId: id,
  pose: z.enum(POSES, { error: 'Front, side or back.' }),
  takenAt: instant,
})

/** A coach's line to a client. */
export const lineInput = z.strictObject({
  id,
  handInId: id.nullable().default(null),
  words: z
    .string({ error: 'Please write the line.' })
    .trim()
    .min(1, 'Please write the line.')
    .max(500, 'A line has at most 500 characters.'),
})
export type LineInput = z.output<typeof lineInput>

/** A photograph taken at home. */
export interface HomePhoto {
  id: string
  pose: Pose
  takenAt: string
}

/** A girth taken at home, as entered. */
export interface HomeGirth {
  site: GirthSiteId
  trial: number
  value: number
  unit: 'cm' | 'in'
}

/** A week handed in, as stored. */
export interface HandInRecord {
  id: string
  day: string
  receivedAt: string
  conditions: Record<string, string>
  fit: (typeof FITS)[number] | null
  words: string
  seenAt: string | null
  girths: HomeGirth[]
  photos: HomePhoto[]
}

/** A coach's line as stored. */
export interface LineRecord {
  id: string
  handInId: string | null
  words: string
  at: string
  by: string
}

/** A week that waits to be looked at. */
export interface WaitingHandIn {
  id: string
  clientId: string
  clientName: string
  day: string
  receivedAt: string
  photos: number
  girths: number
}

/** What a coach sees of a client's life at home. */
export interface FromHome {
  links: LinkRecord[]
  /** Newest first. */
  weeks: (HandInRecord & { weight: Week | null; changes: HomeGirthChange[] })[]
  lines: LineRecord[]
  reminders: ReminderRecord
}

/** What a client's phone shows. In neutral mode no figure is in it. */
export interface ClientHome {
  studioName: string
  firstName: string
  neutral: boolean
  scope: LinkScope[]
  units: { mass: MassUnit; length: 'cm' | 'in' }
  /** Today where the studio is. */
  today: string
  /** Weekday the week is handed in on: 1 Monday to 7 Sunday. */
  weekday: number
  expiresAt: string
  sites: GirthSiteId[]
  /** Days of the last weeks that hold a weigh-in; the weight only where figures are shown. */
  weighIns: { day: string; kg: number | null }[]
  /** Newest first; girths without figures in neutral mode. */
  weeks: (Omit<HandInRecord, 'girths' | 'seenAt'> & {
    girths: (Omit<HomeGirth, 'value'> & { value: number | null })[]
  })[]
  lines: Omit<LineRecord, 'id'>[]
  takeHome: boolean
  nextVisit: string | null
  reminders: { on: boolean }
  /** Challenges they take part in: left with one press. */
  challenges: { entryId: string; name: string }[]
}

/** Leaving a challenge. */
export const leaveChallengeInput = z.strictObject({ entryId: id })

/** Where a client is reminded and of what. */
export const remindersInput = z.strictObject({
  id,
  email: z
    .string()
    .trim()
    .toLowerCase()
    .max(200, 'An e-mail address has at most 200 characters.')
    .regex(/^[^\s@]+@[^\s@]+\.[^\s@]+$/, 'Please give an e-mail address such as name@club.example.')
    .nullable(),
  visits: z.boolean({ error: 'Say yes or no.' }),
  handIns: z.boolean({ error: 'Say yes or no.' }),
  handInWeekday: z.int({ error: 'Choose a weekday.' }).min(1, 'Choose a weekday.').max(7, 'Choose a weekday.'),
})
export type RemindersInput = z.output<typeof remindersInput>
export type ReminderRecord = Omit<RemindersInput, 'id'>
