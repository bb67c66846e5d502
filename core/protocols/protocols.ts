import type { PolicyId } from '../readings/policies'
import { isFold, withUnsaid, type School, type SiteId } from '../sites'
import { PROTOCOL_TABLE } from './table'

/** An ordered set of sites with the way it is read. */
export interface Protocol {
  id: string
  name: string
  school: School
  /** In measuring order: folds first, sites at the back first among them, so that the client turns once. */
  sites: readonly SiteId[]
  /** Sites the equations of one sex do not need: measured where somebody wishes. */
  onWish?: Partial<Record<'female' | 'male', readonly SiteId[]>>
  /** How its folds are read. */
  policy: PolicyId
  /** How its girths are read. */
  girthPolicy: PolicyId
  /** How the sum of its folds is called. */
  sumName: string
  /** For whom, in a few words. */
  purpose: string
  /**
   * Id of the equation it is usually followed with, by sex, where that is not the first of those its sites feed (see
   * `equationsFor`).
   */
  usual?: Partial<Record<'female' | 'male', string>>
}

export type ProtocolId = keyof typeof PROTOCOL_TABLE

/** The protocols a check-in can follow. */
export const PROTOCOLS: Readonly<Record<ProtocolId, Protocol>> = PROTOCOL_TABLE

/** Versions of sets studios have made, by id: what one says never changes, so that knowing it once is enough. */
const own = new Map<string, Protocol>()
const ownSets = new Map<string, CustomSet>()

/** Makes a version of a studio's set known. Its id is its alone; knowing it again changes nothing. */
export function learnSet(set: CustomSet): Protocol {
  const known = own.get(set.id) ?? customProtocol(set)
  own.set(set.id, known)
  ownSets.set(set.id, set)
  return known
}

/** Every version of a set that was made known: to make them known to another thread. */
export function learntSets(): CustomSet[] {
  return [...ownSets.values()]
}

/** The protocol with this id, a studio's own versions included, or null for an unknown id. */
export function findProtocol(id: string): Protocol | null {
  return Object.hasOwn(PROTOCOLS, id) ? PROTOCOLS[id as ProtocolId] : (own.get(id) ?? null)
}

/**
 * A set as it is asked of a person: sites their equations do not need are left to wish, and stand in it once they have
 * been read or wished for.
 * @param wished sites read already, or asked for
 */
export function protocolFor(protocol: Protocol, sex: 'female' | 'male', wished: Iterable<string> = []): Protocol {
  const optional = protocol.onWish?.[sex] ?? []
  const asked = new Set(wished)
  const wanted = protocol.sites.filter((site) => !optional.includes(site) || asked.has(site))
  const sites = withUnsaid(wanted.length === protocol.sites.length ? protocol.sites : wanted, asked)
  return sites === protocol.sites ? protocol : { ...protocol, sites }
}

/** Folds of a protocol, in measuring order. */
export function foldsOf(protocol: Pick<Protocol, 'sites'>) {
  return protocol.sites.filter(isFold)
}

/** What a studio writes down to make a set of its own. */
export interface CustomSet {
  id: string
  name: string
  sites: readonly SiteId[]
  policy: PolicyId
  /** Absent: as the tape is usually read. */
  girthPolicy?: PolicyId
}

/**
 * A set a studio defines, as a protocol.
 * @throws RangeError with a plain sentence when the set is empty or names a site twice
 */
export function customProtocol({ id, name, sites, policy, girthPolicy = 'tape' }: CustomSet): Protocol {
  if (sites.length === 0) throw new RangeError('A set needs at least one site.')
  if (new Set(sites).size < sites.length) throw new RangeError('A set names each site once.')
  const folds = sites.filter(isFold)
  return {
    id,
    name,
    school: folds.length > 0 ? 'laboratory' : 'tape',
    sites: [...folds, ...sites.filter((site) => !isFold(site))],
    policy,
    girthPolicy,
    sumName: folds.length > 0 ? `Sum of ${folds.length}` : 'Sum of folds',
    purpose: 'A set of this studio.',
  }
}
