import { z } from 'zod'
import { isTimeZone } from '../../core/calendar'
import type { Absence } from '../../core/schedule/bookings'
import { day } from './dates'
import type { StrangeSignIn } from './device'
import { provedByPasskey } from './passkey'
import type { StudioSet } from './set'

export const massUnit = z.enum(['kg', 'lb'], { error: 'Choose kg or lb.' })
/** Where the studio is: an IANA name such as "Pacific/Auckland". */
const timeZone = z
  .string({ error: 'Choose a time zone.' })
  .max(60, 'This time zone is not known.')
  .refine(isTimeZone, 'This time zone is not known.')

export const lengthUnit = z.enum(['cm', 'in'], { error: 'Choose cm or in.' })

/** Leads answer for the studio; coaches measure; recorders only write down what a coach reads out. */
export const ROLES = ['lead', 'coach', 'recorder'] as const
export type Role = (typeof ROLES)[number]

/** A name of a person or studio. */
export const personName = z
  .string({ error: 'Please give a name.' })
  .trim()
  .min(1, 'Please give a name.')
  .max(120, 'A name has at most 120 characters.')

const email = z
  .string({ error: 'Please give an e-mail address.' })
  .trim()
  .toLowerCase()
  .max(200, 'An e-mail address has at most 200 characters.')
  .regex(/^[^\s@]+@[^\s@]+\.[^\s@]+$/, 'Please give an e-mail address such as name@club.example.')

const newPassword = z
  .string({ error: 'Please choose a password.' })
  .min(12, 'A password has at least 12 characters.')
  .max(200, 'A password has at most 200 characters.')

export const signInInput = z.strictObject({
  email,
  password: z.string({ error: 'Please give your password.' }).min(1, 'Please give your password.').max(200),
  /** Of the second proof, where there is one: six digits, or a code on paper. */
  code: z.string().trim().max(40, 'This is too long for a code.').optional(),
})

export type SignInInput = z.output<typeof signInInput>

/** A person's second proof beside the password. */
export interface SecondFactorState {
  /** ISO instant it counts from; null: there is none. */
  since: string | null
  /** Codes on paper not used yet. */
  codesLeft: number
}

/** What is shown once, to take the secret over onto a phone. */
export interface SecondFactorBegun {
  secret: string
  uri: string
}

/** The first code from that phone. */
export const firstCode = z.strictObject({
  code: z
    .string({ error: 'Please give the code.' })
    .trim()
    .regex(/^\d{3}\s?\d{3}$/, 'A code has six digits.'),
})

/** Codes on paper, shown once. */
export interface RecoveryCodes extends SecondFactorState {
  codes: string[]
}

/** The first run: the studio and the coach who answers for it. */
export const setupInput = z.strictObject({
  studioName: personName,
  name: personName,
  email,
  password: newPassword,
  massUnit,
  lengthUnit,
  timeZone,
})
export type SetupInput = z.input<typeof setupInput>

/** A person's own units; null follows the studio. */
export const ownUnitsInput = z.strictObject({ massUnit: massUnit.nullable(), lengthUnit: lengthUnit.nullable() })
export type OwnUnitsInput = z.output<typeof ownUnitsInput>

/** Smallest changes worth acting on: fat in kg, the sum of folds in percent. */
export const worthwhileFat = z
  .number({ error: 'A mass in kg.' })
  .min(0, 'A smallest change is not below zero.')
  .max(20, 'At most 20 kg.')
export const worthwhileSum = z
  .number({ error: 'A share in percent.' })
  .min(0, 'A smallest change is not below zero.')
  .max(50, 'At most 50 %.')

export const studioInput = z.strictObject({
  name: personName,
  massUnit,
  lengthUnit,
  timeZone,
  worthwhileFatKg: worthwhileFat.optional(),
  worthwhileSumPercent: worthwhileSum.optional(),
})
export type StudioInput = z.output<typeof studioInput>

const hour = z.int({ error: 'A full hour.' }).min(0, 'Hours run from 0 to 23.').max(23, 'Hours run from 0 to 23.')

/** A studio's rules: whose clients coaches see, when no mail leaves, how long people stay signed in, what they sign in with. */
export const studioRules = z.strictObject({
  coachesSee: z.enum(['all', 'own'], { error: 'Everybody’s clients, or their own.' }).optional(),
  quietFrom: hour.optional(),
  quietTo: hour.optional(),
  sessionIdleHours: z
    .int({ error: 'Please give whole hours.' })
    .min(1, 'An hour at least.')
    .max(720, 'Thirty days at most.')
    .optional(),
  sessionDays: z
    .int({ error: 'Please give whole days.' })
    .min(1, 'A day at least.')
    .max(30, 'Thirty days at most.')
    .optional(),
  lockMinutes: z
    .int({ error: 'Please give whole minutes.' })
    .min(0, 'No minutes at all, or more.')
    .max(60, 'An hour at most.')
    .optional(),
  secondRequired: z.boolean({ error: 'Say yes or no.' }).optional(),
})
export type StudioRules = z.output<typeof studioRules>

/** Whether energy and macros are offered: only with the page on scope of practice accepted. */
export const energyOffer = z.strictObject({ offered: z.boolean({ error: 'Say yes or no.' }) })
export type EnergyOffer = z.output<typeof energyOffer>

/** A password given once more, or a passkey, before something guarded is done. */
export const confirmInput = z.union([
  z.strictObject({ passkey: provedByPasskey }),
  z.strictObject({
    password: z
      .string({ error: 'Please give your password.' })
      .min(1, 'Please give your password.')
      .max(200, 'This is too long.'),
  }),
])

/** How one coach works. */
export const habitsInput = z.strictObject({
  skipMarking: z.boolean().optional(),
  readback: z.boolean().optional(),
  sounds: z.boolean().optional(),
  /** When the result starts covered: at a first visit where nothing is chosen. */
  cover: z.enum(['first', 'always', 'never'], { error: 'Choose when the result starts covered.' }).optional(),
})
export type Habits = z.output<typeof habitsInput>

const role = z.enum(ROLES, { error: 'Choose lead, coach or recorder.' })

/** A person invited by the lead: they choose their own password. */
export const inviteInput = z.strictObject({ name: personName, email, role })
export type InviteInput = z.output<typeof inviteInput>

/** A person added by the lead. An earlier version took a password here: it is refused with the reason. */
export const staffInput = inviteInput.extend({
  password: z.never({ error: 'People choose their own password: give them the link that is shown.' }).optional(),
})

/** One member of staff as lists show them. */
export interface StaffMember {
  id: string
  name: string
  email: string
  role: Role
}

/** The same with whether they may sign in: what a lead sees. */
export interface StaffRecord extends StaffMember {
  active: boolean
  /** They have a second proof: a code or a passkey. */
  hasCode: boolean
}

/** What a lead changes about a person. */
export const staffChange = z.union([z.strictObject({ role }), z.strictObject({ active: z.boolean() })])

/** Days somebody is away, and who stands in for them. */
export const absenceInput = z
  .strictObject({
    id: z.uuid('This needs an id made by the device.'),
    staffId: z.uuid('There is no such person here.'),
    standInId: z.uuid('There is no such person here.').nullable(),
    fromDay: day('Give the first day away.'),
    toDay: day('Give the last day away.'),
  })
  .refine(({ fromDay, toDay }) => fromDay <= toDay, { path: ['toDay'], message: 'The last day is before the first.' })
  .refine(({ staffId, standInId }) => staffId !== standInId, {
    path: ['standInId'],
    message: 'Nobody stands in for themselves.',
  })
export type AbsenceInput = z.output<typeof absenceInput>

/** Days away as stored. */
export interface AbsenceRecord extends Absence {
  id: string
}

/** One's own new password, with the old one. */
export const passwordChange = z.strictObject({
  old: z.string({ error: 'Please give your password.' }).min(1, 'Please give your password.').max(200),
  password: newPassword,
})

/** A new password by a one-time link. */
export const passwordReset = z.strictObject({
  token: z.string({ error: 'This link is not whole.' }).regex(/^[\w-]{43}$/, 'This link is not whole.'),
  password: newPassword,
})

/** A time somebody is signed in. */
export interface SessionRecord {
  id: string
  staffId: string
  name: string
  device: string
  startedAt: string
  seenAt: string
  /** The session of this request. */
  own: boolean
}

/** Who is signed in, and the units they read in. */
export interface Me {
  staff: StaffMember
  studio: StudioInput
  own: OwnUnitsInput
  habits: Habits
  /** When a lead accepted the page on scope of practice; null: energy and macros are not offered here. */
  energySince: string | null
  rules: Required<StudioRules>
  /** A PIN opens their locked devices. */
  hasPin: boolean
  /** The studio asks for a second proof, and this person has none: nothing but their own account answers. */
  lacksSecond: boolean
  /** A sign-in of theirs on a device they did not know, to be said something of. */
  strange: StrangeSignIn | null
  /** Sets of sites the studio has made, every version: check-ins name the one they were measured by. */
  sets: StudioSet[]
}
