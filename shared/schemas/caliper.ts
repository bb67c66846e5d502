import { z } from 'zod'
import { pastDay } from './dates'

/** How finely calipers are marked, mm. */
export const RESOLUTIONS_MM = [0.1, 0.2, 0.5, 1] as const

export const caliperInput = z.strictObject({
  id: z.uuid('This needs an id made by the device.'),
  name: z
    .string({ error: 'Please name the caliper.' })
    .trim()
    .min(1, 'Please name the caliper.')
    .max(80, 'At most 80 characters.'),
  resolutionMm: z.literal([...RESOLUTIONS_MM], { error: 'Choose how finely it is marked.' }).default(0.5),
})
export type CaliperInput = z.output<typeof caliperInput>

const deviation = 'The deviation is in mm, between -20 and 20.'

/** A check against the block: what the caliper read more (or less) than the block is, mm. */
export const caliperCheckInput = z.strictObject({
  id: z.uuid('This needs an id made by the device.'),
  checkedOn: pastDay('Please give the day of the check.'),
  deviationMm: z.number({ error: deviation }).min(-20, deviation).max(20, deviation),
})
export type CaliperCheckInput = z.output<typeof caliperCheckInput>

/** A caliper with its latest check. */
export interface Caliper {
  id: string
  name: string
  /** Distance of its marks, mm. */
  resolutionMm: number
  checkedOn: string | null
  deviationMm: number | null
}
