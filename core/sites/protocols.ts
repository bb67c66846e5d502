import type { FoldSiteId } from './folds'
import type { School } from './site'
import type { PolicyId } from '../readings/policies'

/** An ordered set of sites with the way it is read. */
export interface Protocol {
  id: string
  name: string
  school: School
  /** In measuring order: sites at the back first, so that the client turns once. */
  sites: readonly FoldSiteId[]
  policy: PolicyId
  /** How the sum of these folds is called. */
  sumName: string
}

/** The protocols a check-in can follow. */
export const PROTOCOLS = {
  'laboratory-7': {
    id: 'laboratory-7',
    name: 'Seven folds, laboratory',
    school: 'laboratory',
    sites: ['triceps', 'subscapular', 'chest', 'midaxillary', 'suprailiac', 'abdominal', 'thigh'],
    policy: 'laboratory',
    sumName: 'Sum of seven',
  },
} as const satisfies Record<string, Protocol>

export type ProtocolId = keyof typeof PROTOCOLS

/** The protocol with this id, or null for an unknown id. */
export function findProtocol(id: string): Protocol | null {
  return Object.hasOwn(PROTOCOLS, id) ? PROTOCOLS[id as ProtocolId] : null
}
