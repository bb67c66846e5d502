import { z } from 'zod'
import { POLICIES, type PolicyId } from '../../core/readings/policies'
import { SITES, type SiteId } from '../../core/sites'

const id = z.uuid('This needs an id made by the device.')
const policy = z.enum(Object.keys(POLICIES) as [PolicyId, ...PolicyId[]], {
  error: 'This way of reading is not known.',
})

/** A version of a set a studio makes. */
export const setInput = z.strictObject({
  id,
  /** The same for every version of a set. */
  setId: id,
  name: z
    .string({ error: 'Please name the set.' })
    .trim()
    .min(1, 'Please name the set.')
    .max(60, 'A name has at most 60 characters.'),
  sites: z
    .array(z.enum(Object.keys(SITES) as [SiteId, ...SiteId[]], { error: 'This site is not known.' }))
    .min(1, 'A set needs at least one site.')
    .max(30, 'A set has at most thirty sites.')
    .refine((sites) => new Set(sites).size === sites.length, 'A set names each site once.'),
  policy,
  girthPolicy: policy,
})
export type SetInput = z.output<typeof setInput>

/** A version as stored. */
export interface StudioSet extends SetInput {
  version: number
  at: string
  by: string
  /** Whether it is offered: the newest version of a set that has not been put away. */
  offered: boolean
}
