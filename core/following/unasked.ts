import { addDays, daysBetween, type Day } from '../calendar'
import type { SpanEnd } from '../composition/end-figures'
import { dayOf } from '../composition/facts'
import { searchedShare } from './budget'
import type { Change } from './change'
import { judgeFigures, type SpanSettings } from './span'

/*
 * What is said of a client without being asked: since the start, over the last twelve weeks, since last time, and since
 * when they have been level.
 */

/** Figures a line speaks of. */
export const UNASKED_FIGURES = ['fat', 'lean', 'sum', 'weight'] as const
type Unasked = (typeof UNASKED_FIGURES)[number]

/** One line: from a day on, each figure's change. */
export interface UnaskedLine {
  since: 'start' | 'twelve-weeks' | 'last-time'
  from: Day
  /** Place of the check-in it begins with. */
  place: number
  changes: Record<Unasked, Change | null>
}

/** Everything said unasked. */
export interface SaidUnasked {
  lines: UnaskedLine[]
  /** Day of the check-in since which the leading figure has been steady; null: it is not, or not for sure. */
  steadySince: Day | null
}

const WEEKS = 12
/** Steady is looked for over so many check-ins and weeks at least. */
const FEWEST_VISITS = 4
const FEWEST_DAYS = 28
/** Starts of a steady stretch that are tried at most, spread over the history. */
const MOST_STARTS = 12

/** How unasked lines are judged. */
export interface UnaskedSettings extends Omit<SpanSettings, 'share' | 'massUnit' | 'before'> {
  /** Place of the start that leads, and its share of the budget. */
  start: number
  share: number
  /** Lines that are wanted; all without. */
  wanted?: readonly UnaskedLine['since'][]
}

/** Place of the check-in nearest to twelve weeks before the last. */
function twelveWeeksBack(days: readonly Day[]): number {
  const wanted = addDays(days.at(-1) as Day, -7 * WEEKS)
  let best = 0
  days.forEach((day, place) => {
    if (Math.abs(daysBetween(wanted, day)) < Math.abs(daysBetween(wanted, days[best] as Day))) best = place
  })
  return best
}

/**
 * What is said of a client unasked, by all check-ins; no lines with fewer than two.
 * @param ends oldest first
 */
export function saidUnasked(ends: readonly SpanEnd[], settings: UnaskedSettings): SaidUnasked {
  const { start, share, wanted, ...judging } = settings
  const last = ends.length - 1
  if (last < 1) return { lines: [], steadySince: null }
  const days = ends.map(({ facts }) => dayOf(facts))
  const judged = (from: number) =>
    judgeFigures(ends.slice(from), UNASKED_FIGURES, {
      ...judging,
      share: from === start ? share : searchedShare(from + 1),
    })
  const line = (since: UnaskedLine['since'], place: number): UnaskedLine => ({
    since,
    place,
    from: days[place] as Day,
    changes: judged(place),
  })
  const twelve = twelveWeeksBack(days)
  const places: [UnaskedLine['since'], number][] = [
    ...(start < last ? [['start', start] as const] : []),
    ...(twelve !== start && twelve < last - 1 ? [['twelve-weeks', twelve] as const] : []),
    ...(last - 1 !== start ? [['last-time', last - 1] as const] : []),
  ].map(([since, place]) => [since, place])
  const lines = places.flatMap(([since, place]) => (!wanted || wanted.includes(since) ? [line(since, place)] : []))
  const since = steadySince(ends, days, judging)
  return { lines: lines.map((one) => within(one, since)), steadySince: since }
}

/** A line within a steady stretch is steady where it says nothing by itself: the sum, and fat, which comes from it. */
function within(line: UnaskedLine, since: Day | null): UnaskedLine {
  if (since === null || line.from < since) return line
  const steady = (change: Change | null): Change | null =>
    change && (change.verdict === 'too-early' || change.verdict === 'no-sign')
      ? { ...change, verdict: 'steady' }
      : change
  return { ...line, changes: { ...line.changes, sum: steady(line.changes.sum), fat: steady(line.changes.fat) } }
}

/** The earliest check-in since which the leading figure has been steady. */
function steadySince(
  ends: readonly SpanEnd[],
  days: readonly Day[],
  judging: Omit<UnaskedSettings, 'start' | 'share' | 'wanted'>,
): Day | null {
  const last = ends.length - 1
  const latest = Math.min(
    last - FEWEST_VISITS + 1,
    days.findLastIndex((day) => daysBetween(day, days[last] as Day) >= FEWEST_DAYS),
  )
  // What was real at earlier looks over such a stretch is nobody's question.
  const once = { ...judging, running: false }
  const isSteady = (from: number) => {
    const stretch = ends.slice(from)
    const { sum } = judgeFigures(stretch, ['sum'], once)
    return (sum ?? judgeFigures(stretch, ['percent'], once).percent)?.verdict === 'steady'
  }
  if (latest < 0) return null
  const count = Math.min(MOST_STARTS, latest + 1)
  const places = Array.from({ length: count }, (_, k) => Math.round((k * latest) / Math.max(1, count - 1)))
  const first = places.findIndex(isSteady)
  if (first < 0) return null
  // Between the last start that was not steady and this one, by halves.
  let [no, yes] = [first === 0 ? (places[0] as number) : (places[first - 1] as number), places[first] as number]
  while (yes - no > 1) {
    const middle = (no + yes) >> 1
    if (isSteady(middle)) yes = middle
    else no = middle
  }
  return days[yes] ?? null
}
