import { z } from 'zod'

export const massUnit = z.enum(['kg', 'lb'], { error: 'Choose kg or lb.' })
export const lengthUnit = z.enum(['cm', 'in'], { error: 'Choose cm or in.' })

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
  .min(10, 'A password has at least 10 characters.')
  .max(200, 'A password has at most 200 characters.')

export const signInInput = z.strictObject({
  email,
  password: z.string({ error: 'Please give your password.' }).min(1, 'Please give your password.').max(200),
})

/** The first run: the studio and the coach who answers for it. */
export const setupInput = z.strictObject({
  studioName: personName,
  name: personName,
  email,
  password: newPassword,
  massUnit,
  lengthUnit,
})
export type SetupInput = z.input<typeof setupInput>

/** A person's own units; null follows the studio. */
export const ownUnitsInput = z.strictObject({ massUnit: massUnit.nullable(), lengthUnit: lengthUnit.nullable() })
export type OwnUnitsInput = z.output<typeof ownUnitsInput>

export const studioInput = z.strictObject({ name: personName, massUnit, lengthUnit })
export type StudioInput = z.output<typeof studioInput>

/** How one coach works. */
export const habitsInput = z.strictObject({
  skipMarking: z.boolean().optional(),
  readback: z.boolean().optional(),
  sounds: z.boolean().optional(),
})
export type Habits = z.output<typeof habitsInput>

/** A coach added by the lead. */
export const staffInput = z.strictObject({
  name: personName,
  email,
  password: newPassword,
  role: z.enum(['lead', 'coach'], { error: 'Choose lead or coach.' }),
})
export type StaffInput = z.output<typeof staffInput>

/** One member of staff as lists show them. */
export interface StaffMember {
  id: string
  name: string
  email: string
  role: 'lead' | 'coach'
}

/** Who is signed in, and the units they read in. */
export interface Me {
  staff: StaffMember
  studio: StudioInput
  own: OwnUnitsInput
  habits: Habits
}
