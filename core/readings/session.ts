import type { FoldSiteId, Protocol } from '../sites'
import type { Policy } from './policies'
import { joinLog, type LoggedReading, type Reading, type Strike } from './reading'
import { reconcile, type Reconciled } from './reconcile'

/** One row of the log sheet. Values in mm. */
export interface SiteState extends Reconciled {
  site: FoldSiteId
  /** Readings that count, oldest first. */
  live: LoggedReading[]
  /** Readings crossed out, oldest first. */
  struck: LoggedReading[]
}

/** A measuring session, derived from its readings and nothing else. */
export interface SessionState {
  sites: SiteState[]
  /** The site read last (struck readings do not count), or null before the first. */
  lastSite: FoldSiteId | null
  /** Rounds the policy asks of every site. */
  base: number
  most: number
  /** True when every site has agreed or cannot be read further. */
  complete: boolean
  /** Sum of the agreed (or unsteady) sites, mm, and how many they are. */
  settledSum: number
  settledCount: number
}

/** What to measure next. */
export type NextStep = { kind: 'measure'; site: FoldSiteId; round: number } | { kind: 'finished' }

function isSettled(site: Reconciled): boolean {
  return site.status === 'agreed' || site.status === 'unsteady'
}

/** Folds readings and strikes into the state of a session. Pure: the same facts in any order give the same state. */
export function sessionState(
  protocol: Protocol,
  policy: Policy,
  readings: readonly Reading[],
  strikes: readonly Strike[],
): SessionState {
  const log = joinLog(readings, strikes)
  const wanted = new Set<string>(protocol.sites)
  const lastLive = log.filter((reading) => !reading.struck && wanted.has(reading.site)).at(-1)
  const sites = protocol.sites.map((site): SiteState => {
    const own = log.filter((reading) => reading.site === site)
    const live = own.filter((reading) => !reading.struck)
    return {
      site,
      live,
      struck: own.filter((reading) => reading.struck),
      ...reconcile(
        live.map((reading) => reading.value),
        policy,
      ),
    }
  })
  const settled = sites.filter(isSettled)
  return {
    sites,
    lastSite: protocol.sites.find((site) => site === lastLive?.site) ?? null,
    base: policy.base,
    most: policy.most,
    complete: settled.length === sites.length,
    settledSum: settled.reduce((sum, site) => sum + (site.value ?? 0), 0),
    settledCount: settled.length,
  }
}

/**
 * The site to measure next: once through all sites, again from the top, then only the sites whose readings disagree;
 * never one site twice in a row while another is waiting.
 */
export function nextStep(state: SessionState): NextStep {
  const waiting = state.sites.filter((site) => !isSettled(site))
  const fewest = Math.min(...waiting.map((site) => site.live.length))
  const round = waiting.filter((site) => site.live.length === fewest)
  const rested = round.find((site) => site.site !== state.lastSite)
  const elsewhere = waiting.find((site) => site.site !== state.lastSite)
  const next = rested ?? elsewhere ?? waiting[0]
  return next ? { kind: 'measure', site: next.site, round: next.live.length + 1 } : { kind: 'finished' }
}
