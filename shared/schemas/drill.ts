import { z } from 'zod'
import { DRILL_IDS, MOST_LEVEL, type DrillId } from '../../core/drills/drills'
import { instant } from './dates'

/** One round of a drill, as played. */
export const drillRoundInput = z.strictObject({
  id: z.uuid('This needs an id made by the device.'),
  drill: z.enum(DRILL_IDS, { error: 'This drill is not known.' }),
  level: z.int('A level is a whole number.').min(1).max(MOST_LEVEL, `Levels go to ${MOST_LEVEL}.`),
  score: z
    .number({ error: 'A round has a score.' })
    .min(0, 'A score is not below zero.')
    .max(1000, 'This is no score.'),
  /** What else is worth knowing of it: the site, the time, what was caught. */
  detail: z
    .record(z.string().max(20), z.union([z.number(), z.string().max(40)]))
    .refine((given) => Object.keys(given).length <= 8, 'Too many details.')
    .default({}),
  at: instant,
})
export type DrillRoundInput = z.input<typeof drillRoundInput>

/** A round as it is kept. */
export interface DrillRound {
  drill: DrillId
  level: number
  score: number
  at: string
}
