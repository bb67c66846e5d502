import { comparability, DEFAULT_CHOICES, type Choices, type Comparability } from '../core/composition'
import type { ErrorLookup } from '../core/error'
import type { Day } from '../core/calendar'
import {
  ASSUMED_NOISES,
  chosenShare,
  composeSpan,
  endFigures,
  figureSeries,
  saidUnasked,
  searchedShare,
  type EndFigures,
  type FigureSeries,
  type Noise,
  type Noises,
  type SaidUnasked,
  type Span,
  type Worthwhile,
  WORTHWHILE,
} from '../core/following'
import type { MassUnit } from '../core/units'
import { followedEnds, lookupErrors, type FollowedEnd, type FollowedFacts } from './following'
import type { CheckinRecord } from './schemas/checkin'
import type { Client } from './schemas/client'
import type { ClientHistory, NoiseUntil } from './schemas/following'

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
  /** Place among the ends of the start chosen beforehand: the promise is about changes since it. -1: no check-in yet. */
  pinned: number
  /** Share of the budget it has (core/following/budget.ts). */
  pinnedShare: number
  /** Noises held at times, oldest first. */
  noises: readonly NoiseUntil[]
  worthwhile: Worthwhile
  /** What the chart draws as it opens, where that was put together beforehand (`openingSeries`). */
  opening: FigureSeries | null
}

type RecordFacts = FollowedFacts &
  Pick<ClientHistory, 'checkins'> &
  Partial<Pick<ClientHistory, 'errors' | 'pins' | 'noises' | 'worthwhile' | 'opening'>>

/** Place of the first check-in since the set of sites was last changed: what is measured now began there. */
function setBegan(ends: readonly FollowedEnd[]): number {
  const set = ends.at(-1)?.record.protocolId
  return 1 + ends.findLastIndex(({ record }) => record.protocolId !== set)
}

/** When a check-in's first reading was taken. */
function firstReadingAt({ record }: FollowedEnd): string {
  const [first, ...rest] = record.readings.map(({ takenAt }) => takenAt)
  return rest.reduce((earliest, at) => (at < earliest ? at : earliest), first ?? record.startedAt)
}

/**
 * Places of the starts chosen before their first reading, in the order they were: the first check-in, the first of another
 * set of sites, and pins. A pin set later, on whatever check-in, was set by looking back.
 */
function chosenPlaces(ends: readonly FollowedEnd[], pins: ClientHistory['pins']): number[] {
  if (ends.length === 0) return []
  const pinned = [...pins].reverse().map(({ checkinId, at }) => {
    const place = ends.findIndex((end) => (checkinId ? end.record.id === checkinId : at < firstReadingAt(end)))
    const end = ends[place]
    return end && at < firstReadingAt(end) ? place : -1
  })
  const began = setBegan(ends)
  const places = [...new Set([0, began, ...pinned.filter((place) => place > began)])]
  return places.filter((place) => place >= 0)
}

/** Puts a client's facts together, once, for everything that speaks about their record. */
export function followRecord(facts: RecordFacts): FollowedRecord {
  const records = [...facts.checkins].sort((a, b) => (a.startedAt < b.startedAt ? -1 : 1))
  const ends = followedEnds(
    records.filter(({ finishedAt }) => finishedAt !== null),
    facts,
  )
  const { own, studio = WORTHWHILE } = facts.worthwhile ?? {}
  const chosen = chosenPlaces(ends, facts.pins ?? [])
  return {
    client: facts.client,
    records,
    open: records.find(({ finishedAt }) => finishedAt === null) ?? null,
    ends,
    errors: lookupErrors(facts.errors ?? []),
    choices: facts.choices[0]?.choices ?? DEFAULT_CHOICES,
    pinned: chosen.at(-1) ?? -1,
    pinnedShare: chosenShare(Math.max(1, chosen.length)),
    noises: (facts.noises ?? []).filter(isReadable),
    worthwhile: { fatKg: own?.fatKg ?? studio.fatKg, sumPercent: own?.sumPercent ?? studio.sumPercent },
    opening: facts.opening ?? null,
  }
}

/** Answers kept by earlier versions tell the noise in another form: what is assumed stands until a new one comes. */
function isReadable({ noises }: NoiseUntil): boolean {
  return Object.values(noises).every((noise) => Array.isArray((noise as Partial<Noise>).cells))
}

/** What was held of the noise on a day: learnt by then, never later. */
export function noisesOn({ noises }: Pick<FollowedRecord, 'noises'>, day: Day): Noises {
  const found = noises.findLast(({ until }) => until <= day)?.noises
  return found ? { ...ASSUMED_NOISES, ...found } : ASSUMED_NOISES
}

/** What was held of the noise on the day of a check-in. */
export function noisesAt(record: Pick<FollowedRecord, 'noises'>, end: FollowedEnd): Noises {
  return noisesOn(record, end.record.day)
}

/** Check-ins up to which everything is worked out before anything shows; of a longer history its readings show first. */
export const SHOWN_AT_ONCE = 60

/**
 * What the chart of a long history draws as it opens: every check-in on the newest one's terms. The server puts it
 * together on its way, so that a slow device draws before it has composed anything; null for a history that needs none.
 */
export function openingSeries(facts: ClientHistory): FigureSeries | null {
  const { length } = facts.checkins.filter(({ finishedAt }) => finishedAt !== null)
  if (length <= SHOWN_AT_ONCE) return null
  const record = followRecord(facts)
  const newest = record.ends.at(-1)
  return newest ? figureSeries(record.ends, newest, { noises: noisesAt(record, newest) }) : null
}

/** Two check-ins of a record and everything between them. */
export interface FollowedSpan {
  /** Places among the ends; -1: there is no earlier one. */
  fromIndex: number
  toIndex: number
  then: FollowedEnd | null
  now: FollowedEnd | null
  span: Span | null
  /** The start was found by looking back: stronger proof is asked. */
  searched: boolean
  /** Share of the budget the start has. */
  share: number
  /** What differs between the two and what can be compared; null without two. Known before anything is judged. */
  comparability: Comparability | null
  /** What the later end says, weighed as the span weighs it. */
  figures: EndFigures | null
  /** Both and those between them. */
  between: FollowedEnd[]
  /** What was held of the noise at the later end. */
  noises: Noises
}

type SpannedRecord = Pick<FollowedRecord, 'ends' | 'pinned' | 'pinnedShare' | 'noises' | 'worthwhile'>

/**
 * The span between two check-ins of a record. Without ids, or with ones that are not there or stand the wrong way
 * round: from the pinned start to the newest.
 * @param running false: what was said at earlier looks is not wanted, which halves the work
 * @param judged false: what the ends say is wanted first, and no change yet
 */
export function spanOfRecord(
  record: SpannedRecord,
  { fromId, toId }: { fromId?: string | null; toId?: string | null } = {},
  { massUnit, running = true, judged = true }: { massUnit?: MassUnit; running?: boolean; judged?: boolean } = {},
): FollowedSpan {
  const { ends, pinned } = record
  const placeOf = (id: string | null | undefined) => (id ? ends.findIndex((end) => end.record.id === id) : -1)
  const to = placeOf(toId)
  const toIndex = to >= 0 ? to : ends.length - 1
  const from = placeOf(fromId)
  const usual = pinned < toIndex ? pinned : toIndex - 1
  const fromIndex = from >= 0 && from < toIndex ? from : usual
  const now = ends[toIndex] ?? null
  const then = ends[fromIndex] ?? null
  const between = ends.slice(Math.max(0, fromIndex), toIndex + 1)
  const searched = then !== null && fromIndex !== pinned
  const share = searched ? searchedShare(fromIndex + 1) : record.pinnedShare
  const noises = now ? noisesAt(record, now) : ASSUMED_NOISES
  const span =
    now && then && judged
      ? composeSpan(between, {
          noises,
          share,
          worthwhile: record.worthwhile,
          running,
          noisesOn: (day: Day) => noisesOn(record, day),
          ...(massUnit ? { massUnit } : {}),
        })
      : null
  return {
    fromIndex,
    toIndex,
    then,
    now,
    span,
    searched,
    share,
    comparability: span?.comparability ?? (then && now ? comparability(then, now) : null),
    figures: span?.now ?? (now ? endFigures(now) : null),
    between,
    noises,
  }
}

/** What a record says unasked: since the start, over twelve weeks, since last time, and since when it has been level. */
export function unaskedOf(record: FollowedRecord): SaidUnasked {
  const newest = record.ends.at(-1)
  if (!newest) return { lines: [], steadySince: null }
  return saidUnasked(record.ends, {
    start: record.pinned,
    share: record.pinnedShare,
    noises: noisesAt(record, newest),
    noisesOn: (day) => noisesOn(record, day),
    worthwhile: record.worthwhile,
  })
}
