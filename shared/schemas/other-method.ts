import { z } from 'zod'
import type { Agreement } from '../../core/study/agreement'
import { METHODS, OTHER_METHODS, refusal, type OtherMethod } from '../../core/study/methods'
import { pastDay } from './dates'

const percent = 'A percentage of fat lies between 1 and 75.'

/** What another method said, with its device and how somebody was prepared. */
export const otherInput = z
  .strictObject({
    id: z.uuid('This needs an id made by the device.'),
    method: z.enum(OTHER_METHODS, { error: 'Choose the method.' }),
    device: z
      .string({ error: 'Name the device: another one is another line.' })
      .trim()
      .min(1, 'Name the device: another one is another line.')
      .max(80, 'At most 80 characters.'),
    day: pastDay('Give the day.'),
    percent: z.number({ error: percent }).min(1, percent).max(75, percent),
    told: z.record(z.string().max(20), z.number({ error: 'A number, as the device told it.' })).default({}),
    conditions: z.record(z.string().max(20), z.string().max(20)).default({}),
    note: z.string().trim().max(500, 'At most 500 characters.').default(''),
  })
  .superRefine(({ method, told, conditions }, context) => {
    const refused = refusal(method, conditions)
    if (refused) context.addIssue({ code: 'custom', path: ['conditions', 'implant'], message: refused })
    for (const [id, value] of Object.entries(told)) {
      const known = METHODS[method].told.find((one) => one.id === id)
      if (!known) context.addIssue({ code: 'custom', path: ['told', id], message: 'This method tells no such number.' })
      else if (value < known.low || value > known.high)
        context.addIssue({
          code: 'custom',
          path: ['told', id],
          message: `${known.name} lies between ${known.low} and ${known.high}.`,
        })
    }
    for (const [id, answer] of Object.entries(conditions)) {
      const asked = METHODS[method].asks.find((one) => one.id === id)
      if (!asked?.answers.some((one) => one.id === answer))
        context.addIssue({ code: 'custom', path: ['conditions', id], message: 'This is no answer to that.' })
    }
  })
export type OtherInput = z.input<typeof otherInput>

/** A measurement by another method as it is on record. */
export interface OtherRecord {
  id: string
  method: OtherMethod
  device: string
  day: string
  percent: number
  told: Record<string, number>
  conditions: Record<string, string>
  note: string
  by: string
}

/** How a method's device agrees with the folds over a studio's clients. */
export interface MethodAgreement {
  method: OtherMethod
  device: string
  clients: number
  /** Null under three clients. */
  agreement: Agreement | null
  pairs: [number, number][]
}
