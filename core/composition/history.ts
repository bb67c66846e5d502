import type { SiteId } from '../sites'
import type { Composition } from './checkin'
import { composeCheckin } from './compose'
import type { CheckinFacts, Choices } from './facts'

/** A check-in with its result, as the client page lists it. */
export interface ComposedCheckin<Facts extends CheckinFacts = CheckinFacts> {
  facts: Facts
  result: Composition
}

/** Change of one site between two check-ins, mm or cm. Null where either has no value. */
export interface SiteChange {
  site: SiteId
  then: number | null
  now: number | null
  change: number | null
}

/** All check-ins of a client composed, oldest first. */
export function composeHistory<Facts extends CheckinFacts>(
  checkins: readonly Facts[],
  choices?: Choices,
): ComposedCheckin<Facts>[] {
  return [...checkins]
    .sort((a, b) => (a.startedAt < b.startedAt ? -1 : 1))
    .map((facts) => ({ facts, result: composeCheckin(facts, choices) }))
}

/** Site by site, what changed from one check-in to a later one. Only sites both protocols hold are compared. */
export function siteChanges(then: Composition, now: Composition): SiteChange[] {
  return now.session.sites.flatMap(({ site, value }) => {
    const before = then.session.sites.find((other) => other.site === site)
    if (!before) return []
    const change = value !== null && before.value !== null ? value - before.value : null
    return [{ site, then: before.value, now: value, change }]
  })
}
