import { z } from 'zod'
import { CALIPER_KINDS, readBlock, type BlockStep, type CaliperKind, type Correction } from '../../core/devices/block'
import { pastDay } from './dates'

/** How finely calipers are marked, mm. */
export const RESOLUTIONS_MM = [0.1, 0.2, 0.5, 1] as const

const pressureSentence = 'Jaws press with 1 to 40 g/mm².'
const pressure = z.number({ error: pressureSentence }).min(1, pressureSentence).max(40, pressureSentence)
const opening = 'It opens 20 to 200 mm.'

export const caliperInput = z.strictObject({
  id: z.uuid('This needs an id made by the device.'),
  name: z
    .string({ error: 'Please name the caliper.' })
    .trim()
    .min(1, 'Please name the caliper.')
    .max(80, 'At most 80 characters.'),
  resolutionMm: z.literal([...RESOLUTIONS_MM], { error: 'Choose how finely it is marked.' }).default(0.5),
  kind: z.enum(CALIPER_KINDS, { error: 'Choose what kind it is.' }).default('spring'),
  jawPressure: pressure.nullable().default(null),
  openingMm: z.number({ error: opening }).min(20, opening).max(200, opening).nullable().default(null),
})
export type CaliperInput = z.output<typeof caliperInput>

const deviation = 'The deviation is in mm, between -20 and 20.'

const step = 'A step is 0 to 200 mm, and so is what the caliper read.'
const stepMm = z.number({ error: step }).min(0, step).max(200, step)

/**
 * A check against the block: what the caliper read at each step, or only what it read more (or less) than the block is, mm.
 * Of steps the largest deviation is kept beside them.
 */
export const caliperCheckInput = z
  .strictObject({
    id: z.uuid('This needs an id made by the device.'),
    checkedOn: pastDay('Please give the day of the check.'),
    deviationMm: z.number({ error: deviation }).min(-20, deviation).max(20, deviation).optional(),
    steps: z
      .array(z.strictObject({ blockMm: stepMm, readMm: stepMm }))
      .max(12, 'At most twelve steps.')
      .default([]),
    pressure: pressure.nullable().default(null),
  })
  .transform((given, context) => {
    const found = readBlock(given.steps)
    const deviationMm = found ? Math.round(found.worstMm * 100) / 100 : given.deviationMm
    if (deviationMm === undefined) {
      context.addIssue({
        code: 'custom',
        path: ['deviationMm'],
        message: 'Note what it read at a step of the block at least.',
      })
      return z.NEVER
    }
    if (Math.abs(deviationMm) > 20) {
      context.addIssue({ code: 'custom', path: ['steps'], message: deviation })
      return z.NEVER
    }
    return { ...given, deviationMm }
  })
export type CaliperCheckInput = z.output<typeof caliperCheckInput>
export type CaliperCheckSent = z.input<typeof caliperCheckInput>

/** Taking on what the last check against the block found, or giving a correction up. */
export const correctionInput = z.strictObject({
  id: z.uuid('This needs an id made by the device.'),
  taken: z.boolean({ error: 'Say whether it is corrected.' }),
})

export const caliperChange = z.strictObject({ retired: z.boolean({ error: 'Say whether it is in use.' }) })

/** A correction from a day on; null: none from then on. */
export interface CorrectionRecord {
  fromDay: string
  correction: Correction | null
}

/** A caliper with its latest check. */
export interface Caliper {
  id: string
  name: string
  /** Distance of its marks, mm. */
  resolutionMm: number
  checkedOn: string | null
  deviationMm: number | null
  /** Measured last, g/mm²; left out or null: never. */
  pressure?: number | null
  /** Oldest first. */
  corrections: CorrectionRecord[]
}

/** One check as it is on record. */
export interface CheckRecord {
  checkedOn: string
  deviationMm: number
  steps: BlockStep[]
  pressure: number | null
  by: string
}

/** A caliper as the register shows it: everything that was ever checked. */
export interface RegisteredCaliper extends Caliper {
  kind: CaliperKind
  jawPressure: number | null
  openingMm: number | null
  retired: boolean
  /** Oldest first. */
  checks: CheckRecord[]
}
