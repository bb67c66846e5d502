import { dayNumber, type Day } from '../calendar'
import { conditionChanges } from '../composition/conditions'
import type { SpanEnd } from '../composition/end-figures'
import { caliperOf, dayOf } from '../composition/facts'
import { sameWay } from '../composition/terms'
import type { Hand } from '../error/hands'
import type { SiteId } from '../sites'
import { countedReadings, type Copying } from './copies'

/** What every figure of a client asks of the visits again and again, by place: found once. */
export interface VisitColumns {
  days: readonly Day[]
  dayNumbers: readonly number[]
  /** Whether a fold was measured as it was at the last visit: on the same side, lifted the same way. */
  asLast: (site: SiteId) => readonly boolean[]
  /** Readings a site's value stands on, where these assessors copy. */
  readings: (copying: Copying | undefined) => (site: SiteId) => readonly number[]
  /** Whether conditions noted differ from those at the visit at this place. */
  differing: (from: number) => readonly boolean[]
  /** Hands at each visit, what is not known taken for the hand at the visit at this place, as one word each. */
  hands: (from: number) => readonly string[]
}

const known = new WeakMap<readonly SpanEnd[], VisitColumns>()

/** The columns of visits, oldest first; the same array, unless it has grown, is answered from before. */
export function columnsOf(ends: readonly SpanEnd[]): VisitColumns {
  const before = known.get(ends)
  if (before?.days.length === ends.length) return before
  const days = ends.map(({ facts }) => dayOf(facts))
  const last = ends.at(-1)
  const columns: VisitColumns = {
    days,
    dayNumbers: days.map(dayNumber),
    asLast: remembered((site: SiteId) => ends.map((end) => end === last || !last || sameWay(end, last, site))),
    readings: remembered((copying: Copying | undefined) =>
      remembered((site: SiteId) => ends.map((end) => countedReadings(end, site, copying))),
    ),
    differing: remembered((from: number) => {
      const conditions = ends[from]?.facts.conditions ?? {}
      return ends.map(({ facts }) => conditionChanges(conditions, facts.conditions ?? {}).length > 0)
    }),
    hands: remembered((from: number) => {
      const first = ends[from]
      return first ? ends.map((end) => handOf(end, first)) : []
    }),
  }
  known.set(ends, columns)
  return columns
}

function remembered<Key, Value>(find: (key: Key) => Value): (key: Key) => Value {
  const found = new Map<Key, Value>()
  return (key) => {
    const before = found.get(key)
    if (before !== undefined) return before
    const value = find(key)
    found.set(key, value)
    return value
  }
}

/** The first's hand and another's; what is not known is taken for the first's. */
export function handsOf(first: SpanEnd, { facts }: SpanEnd): [Hand, Hand] {
  const from = { assessorId: first.facts.assessorId ?? null, caliperId: caliperOf(first.facts) }
  const to = { assessorId: facts.assessorId ?? from.assessorId, caliperId: caliperOf(facts) ?? from.caliperId }
  return [from, to]
}

/** Who measured with which caliper. */
function handOf(end: SpanEnd, first: SpanEnd): string {
  const [, { assessorId, caliperId }] = handsOf(first, end)
  return `${assessorId ?? ''} ${caliperId ?? ''}`
}
