import { DEFAULT_CHOICES, endFigures, type Choices, type EndFigures } from '../core/composition'
import type { ErrorLookup } from '../core/error'
import { composeSpan, type Span } from '../core/following'
import type { MassUnit } from '../core/units'
import { followedEnds, lookupErrors, type FollowedEnd, type FollowedFacts } from './following'
import type { CheckinRecord } from './schemas/checkin'
import type { Client } from './schemas/client'
import type { ClientHistory } from './schemas/following'

/** A client's record put together: what the page, the page to take home and the list read from. */
export interface FollowedRecord {
  client: Client
  /** Every check-in, oldest first. */
  records: CheckinRecord[]
  /** The one under way, if any. */
  open: CheckinRecord | null
  /** The finished ones composed, oldest first: what a span can stand on. */
  ends: FollowedEnd[]
  errors: ErrorLookup
  choices: Choices
}

/** Puts a client's facts together, once, for everything that speaks about their record. */
export function followRecord(
  facts: FollowedFacts & Pick<ClientHistory, 'checkins'> & Partial<Pick<ClientHistory, 'errors'>>,
): FollowedRecord {
  const records = [...facts.checkins].sort((a, b) => (a.startedAt < b.startedAt ? -1 : 1))
  return {
    client: facts.client,
    records,
    open: records.find(({ finishedAt }) => finishedAt === null) ?? null,
    ends: followedEnds(
      records.filter(({ finishedAt }) => finishedAt !== null),
      facts,
    ),
    errors: lookupErrors(facts.errors ?? []),
    choices: facts.choices[0]?.choices ?? DEFAULT_CHOICES,
  }
}

/** Two check-ins of a record and everything between them. */
export interface FollowedSpan {
  /** Places among the ends; -1: there is no earlier one. */
  fromIndex: number
  toIndex: number
  then: FollowedEnd | null
  now: FollowedEnd | null
  span: Span | null
  /** What the later end says, weighed as the span weighs it. */
  figures: EndFigures | null
  /** Both and those between them. */
  between: FollowedEnd[]
}

/**
 * The span between two check-ins of a record. Without ids, or with ones that are not there or stand the wrong way
 * round: the newest and the one before it.
 */
export function spanOfRecord(
  { ends, errors }: Pick<FollowedRecord, 'ends' | 'errors'>,
  { fromId, toId }: { fromId?: string | null; toId?: string | null } = {},
  massUnit?: MassUnit,
): FollowedSpan {
  const placeOf = (id: string | null | undefined) => (id ? ends.findIndex(({ record }) => record.id === id) : -1)
  const to = placeOf(toId)
  const toIndex = to >= 0 ? to : ends.length - 1
  const from = placeOf(fromId)
  const fromIndex = from >= 0 && from < toIndex ? from : toIndex - 1
  const now = ends[toIndex] ?? null
  const then = ends[fromIndex] ?? null
  const span = now && then ? composeSpan(then, now, errors, massUnit) : null
  return {
    fromIndex,
    toIndex,
    then,
    now,
    span,
    figures: span?.now ?? (now ? endFigures(now, errors) : null),
    between: ends.slice(Math.max(0, fromIndex), toIndex + 1),
  }
}
