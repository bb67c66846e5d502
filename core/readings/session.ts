import { isFold, SITES, type SiteId } from '../sites'
import { lengthToCm } from '../units'
import { policyOf, withMarks, type Policy, type PolicyId } from './policies'
import { joinLog, type LoggedReading, type Reading, type Strike } from './reading'
import type { Why } from './skip-reasons'
import { reconcile, type Reconciled } from './reconcile'

/** One row of the log sheet. Folds in mm, girths in cm. */
export interface SiteState extends Reconciled {
  site: SiteId
  policy: Policy
  /** Readings that count, oldest first. */
  live: LoggedReading[]
  /** Readings crossed out, oldest first. */
  struck: LoggedReading[]
  /** Said of this site: it is left out today. Null: it is to be measured. */
  skipped: Why | null
}

/** A measuring session, derived from its readings and nothing else. */
export interface SessionState {
  sites: SiteState[]
  /** The site read last (struck readings do not count), or null before the first. */
  lastSite: SiteId | null
  /** Rounds the policy asks of every fold. */
  base: number
  most: number
  /** True when every site has agreed, cannot be read further, or is left out. */
  complete: boolean
  /** Sum of the agreed (or unsteady) folds, mm, and how many they are. */
  settledSum: number
  settledCount: number
}

/** What to measure next. */
export type NextStep = { kind: 'measure'; site: SiteId; round: number } | { kind: 'finished' }

/** A site left out of this check-in, with why. */
export interface Skip extends Why {
  site: SiteId
}

/** An ordered set of sites with the way it is read: what a session needs of a protocol. */
export interface ReadSet {
  sites: readonly SiteId[]
  policy: PolicyId
  girthPolicy: PolicyId
}

/** Policies that replace the protocol's own, as a studio or coach has chosen. */
export interface SessionPolicies {
  folds?: Policy
  girths?: Policy
  /** Marks of the caliper, mm; left out: not known. */
  markMm?: number
}

function isSettled(site: Pick<SiteState, 'status' | 'skipped'>): boolean {
  return site.status === 'agreed' || site.status === 'unsteady' || site.skipped !== null
}

/** A reading's value in the unit results are kept in: folds mm, lengths cm. */
export function valueOf(reading: Reading): number {
  return reading.unit === 'in' ? lengthToCm(reading.value, 'in') : reading.value
}

/** Folds readings and strikes into the state of a session. Pure: the same facts in any order give the same state. */
export function sessionState(
  protocol: ReadSet,
  readings: readonly Reading[],
  strikes: readonly Strike[],
  skips: readonly Skip[] = [],
  policies: SessionPolicies = {},
): SessionState {
  return sessionOfLog(protocol, joinLog(readings, strikes), skips, policies)
}

/** `sessionState` of a log that has been joined already. */
export function sessionOfLog(
  protocol: ReadSet,
  log: readonly LoggedReading[],
  skips: readonly Skip[] = [],
  policies: SessionPolicies = {},
): SessionState {
  const foldPolicy = withMarks(policies.folds ?? policyOf(protocol.policy), policies.markMm)
  const girthPolicy = policies.girths ?? policyOf(protocol.girthPolicy)
  const bySite = new Map<string, { live: LoggedReading[]; struck: LoggedReading[] }>(
    protocol.sites.map((site) => [site, { live: [], struck: [] }]),
  )
  let lastSite: string | null = null
  for (const reading of log) {
    const own = bySite.get(reading.site)
    if (!own) continue
    ;(reading.struck ? own.struck : own.live).push(reading)
    if (!reading.struck) lastSite = reading.site
  }
  const sites = protocol.sites.map((site): SiteState => {
    const { live, struck } = bySite.get(site) ?? { live: [], struck: [] }
    const policy = isFold(site) ? foldPolicy : girthPolicy
    const skipped = live.length === 0 ? (skips.find((skip) => skip.site === site) ?? null) : null
    return { site, policy, live, struck, skipped, ...reconcile(live.map(valueOf), policy) }
  })
  return summedUp(sites, protocol.sites.find((site) => site === lastSite) ?? null, foldPolicy)
}

function summedUp(
  sites: SiteState[],
  lastSite: SiteId | null,
  { base, most }: Pick<SessionState, 'base' | 'most'>,
): SessionState {
  const summed = sites.filter((site) => isFold(site.site) && isSettled(site) && site.value !== null)
  return {
    sites,
    lastSite,
    base,
    most,
    complete: sites.every(isSettled),
    settledSum: summed.reduce((sum, site) => sum + (site.value ?? 0), 0),
    settledCount: summed.length,
  }
}

/**
 * The state after one more reading, taken after all the others: what `sessionState` gives of them all, for a fraction of
 * its work. For a session followed reading by reading, as simulations do thousands of times.
 */
export function withNext(state: SessionState, reading: Reading): SessionState {
  const sites = state.sites.map((own): SiteState => {
    if (own.site !== reading.site) return own
    const live = [...own.live, { ...reading, struck: false }]
    return { ...own, live, skipped: null, ...reconcile(live.map(valueOf), own.policy) }
  })
  const lastSite = sites.find(({ site }) => site === reading.site)?.site ?? state.lastSite
  return summedUp(sites, lastSite, state)
}

/**
 * The site to measure next: folds before girths; once through all sites, again from the top, then only the sites whose
 * readings disagree; never one site twice in a row while another of its kind is waiting.
 */
export function nextStep(state: SessionState): NextStep {
  const waiting = state.sites.filter((site) => !isSettled(site))
  const folds = waiting.filter(({ site }) => isFold(site))
  const stage = folds.length > 0 ? folds : waiting
  const fewest = Math.min(...stage.map((site) => site.live.length))
  const round = stage.filter((site) => site.live.length === fewest)
  const rested = round.find((site) => site.site !== state.lastSite)
  const elsewhere = stage.find((site) => site.site !== state.lastSite)
  const next = rested ?? elsewhere ?? stage[0]
  return next ? { kind: 'measure', site: next.site, round: next.live.length + 1 } : { kind: 'finished' }
}

/** Sites of a finished check-in whose readings do not settle their value: "Thigh has one reading left." Null: none. */
export function unsettledSaid({ sites }: Pick<SessionState, 'sites'>): string | null {
  const said = sites.flatMap(({ site, status, live, skipped }) => {
    if (skipped !== null || (status !== 'partial' && status !== 'disputed')) return []
    const { name } = SITES[site]
    return status === 'disputed'
      ? [`${name}: the readings do not agree.`]
      : [`${name} has ${live.length === 1 ? 'one reading left' : `${live.length} readings`}.`]
  })
  return said.length > 0 ? said.join(' ') : null
}
