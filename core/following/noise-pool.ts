import type { Noise } from './noise'
import { SPEAKS_FROM, visitsUntil, type Evidence, type Speaker } from './evidence'
import { ASSUMED_NOISE, HYPOTHESES, noiseGiven } from './studio-grid'

/*
 * What many clients' histories say about the noise of a figure together. At most forty clients' worth of it is learnt: people
 * differ, and slow noise shared by all would otherwise be learnt away.
 */

/**
 * So many clients' worth is learnt at most. Ten cost a steady loss half a check-in and more; of noise that lasts forty tell no
 * more for change than ten (docs/decisions.md).
 */
export const MOST_LEARNT = 40
/** With so many of the same hand the rest of the studio is not asked. */
const ENOUGH_NEAR = 10
/** Check-ins from which a client counts among those the line of real goes by. */
export const FOLLOWED_FROM = 5
/** Histories of one hand that are added up at most: more add nothing to what is learnt. */
const MOST_ADDED = 80
/** Days of visits up to which each is added up by itself; in studios of more, what was known every four weeks is enough. */
const MANY_DAYS = 100
const WEEKS_AT_ONCE = 4

/** What histories say up to a time. */
interface Sum {
  support: Float64Array
  histories: number
}

const nothing = (): Sum => ({ support: new Float64Array(HYPOTHESES), histories: 0 })

function add(into: Sum, { support, histories }: Sum, times: number): void {
  if (histories === 0 || times === 0) return
  for (let h = 0; h < HYPOTHESES; h += 1) into.support[h] = (into.support[h] as number) + times * (support[h] as number)
  into.histories += times * histories
}

/** The golden ratio's part of 2^32: places multiplied by it come in no order (Knuth, multiplicative hashing). */
const SCATTER = 2654435769

/** The same choice whenever it is asked for, in no order that clients could come in. */
function spreadOver<T>(all: readonly T[], most: number): T[] {
  if (all.length <= most) return [...all]
  return [...all.keys()]
    .sort((a, b) => (Math.imul(a + 1, SCATTER) >>> 0) - (Math.imul(b + 1, SCATTER) >>> 0))
    .slice(0, most)
    .map((place) => all[place] as T)
}

/** Histories taken by one hand, added up by time. */
export class HandPool {
  private readonly taken: readonly Speaker[]
  private readonly members: ReadonlySet<Speaker>
  /** Times at which something is known, weeks; rising. */
  private readonly times: readonly number[]
  private sums: Sum[] | null = null

  constructor(readonly all: readonly Speaker[]) {
    this.taken = spreadOver(all, MOST_ADDED)
    this.members = new Set(this.taken)
    const days = [...new Set(this.taken.flatMap(({ evidence }) => evidence.weeks.slice(SPEAKS_FROM - 1)))]
    const known =
      days.length <= MANY_DAYS
        ? days
        : [...new Set(days.map((week) => WEEKS_AT_ONCE * Math.ceil(week / WEEKS_AT_ONCE)))]
    this.times = known.sort((a, b) => a - b)
  }

  /** Adds everything up, one history at a time, so that a server can answer others in between. */
  *adding(): Generator<void, void> {
    if (this.sums) return
    const sums = this.times.map(nothing)
    for (const speaker of this.taken) {
      let before = 0
      let said: Float64Array | null = null
      this.times.forEach((time, k) => {
        const visits = visitsUntil(speaker.evidence, time)
        if (visits !== before) {
          before = visits
          said = speaker.after(visits)
        }
        if (said) add(sums[k] as Sum, { support: said, histories: 1 }, 1)
      })
      yield
    }
    this.sums = sums
  }

  private summed(): Sum[] {
    if (!this.sums) for (const _ of this.adding());
    return this.sums as unknown as Sum[]
  }

  /** True where a history is among those added up. */
  holds(speaker: Speaker): boolean {
    return this.members.has(speaker)
  }

  /** Place of the last time at which something was known; -1: nothing yet. */
  placeAt(until: number): number {
    let place = this.times.length - 1
    while (place >= 0 && (this.times[place] as number) > until) place -= 1
    return place
  }

  /** What all but some of them say up to a time. */
  without(own: readonly Speaker[], until: number): Sum {
    const place = this.placeAt(until)
    const found = nothing()
    if (place < 0) return found
    add(found, this.summed()[place] as Sum, 1)
    for (const speaker of own) {
      if (!this.members.has(speaker)) continue
      const said = speaker.after(visitsUntil(speaker.evidence, this.times[place] as number))
      if (said) add(found, { support: said, histories: 1 }, -1)
    }
    return found
  }
}

/** What is known of others beside what their histories say. */
export type Counted = Noise['learntFrom']

/**
 * The noise of a figure for one client.
 * @param near what others say who were measured by the same hand
 * @param far what the rest of the studio says: it makes up for what is missing of ten of the same hand
 * @param studies repeat studies of the hand, taken at their word
 */
export function noiseFromOthers(
  near: readonly Sum[],
  far: readonly Sum[],
  studies: readonly Speaker[],
  counted: Counted,
): Noise {
  const [own, rest, all] = [nothing(), nothing(), nothing()]
  for (const one of near) add(own, one, 1)
  for (const one of far) add(rest, one, 1)
  const share = own.histories > 0 ? Math.min(1, MOST_LEARNT / own.histories) : 0
  const left = ENOUGH_NEAR - own.histories
  add(all, own, share)
  add(all, rest, rest.histories > 0 ? Math.max(0, Math.min(1, left / rest.histories)) : 0)
  for (const study of studies) {
    const said = study.after(1)
    if (said) add(all, { support: said, histories: 1 }, 1)
  }
  const learntFrom = studies.length > 0 ? { ...counted, studies: studies.length } : counted
  return all.histories > 0 ? noiseGiven(all.support, learntFrom) : ASSUMED_NOISE
}

/** Up to which others' check-ins are counted. */
export interface Longest {
  /** Weeks of the fourth and of the fifth check-in; Infinity where there is none. */
  speaks: number
  followed: number
  weeks: readonly number[]
}

/** A client's longest history of a figure: what counts them among the others. */
export function longestOf(all: readonly Evidence[]): Longest | null {
  const weeks = all.reduce<readonly number[]>(
    (longest, one) => (one.weeks.length > longest.length ? one.weeks : longest),
    [],
  )
  if (weeks.length < SPEAKS_FROM) return null
  return { weeks, speaks: weeks[SPEAKS_FROM - 1] as number, followed: weeks[FOLLOWED_FROM - 1] ?? Infinity }
}

/** How many of a rising list are up to a value. */
function upTo(rising: Float64Array, value: number): number {
  let [low, high] = [0, rising.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((rising[middle] as number) <= value) low = middle + 1
    else high = middle
  }
  return low
}

/** How many clients there are, and their check-ins, at any time. */
export class Counts {
  private readonly speaks: Float64Array
  private readonly followed: Float64Array
  /** Weeks of the check-ins from which a client speaks on. */
  private readonly visits: Float64Array

  constructor(all: readonly Longest[]) {
    this.speaks = Float64Array.from(all, ({ speaks }) => speaks).sort()
    this.followed = Float64Array.from(all, ({ followed }) => followed).sort()
    this.visits = Float64Array.from(all.flatMap(({ weeks }) => weeks.slice(SPEAKS_FROM - 1))).sort()
  }

  /** Up to a time, one of them left out. */
  until(time: number, without?: Longest): Counted {
    const clients = upTo(this.speaks, time)
    const all = {
      clients,
      visits: upTo(this.visits, time) + (SPEAKS_FROM - 1) * clients,
      followed: upTo(this.followed, time),
    }
    if (!without || without.speaks > time) return all
    return {
      clients: all.clients - 1,
      visits: all.visits - without.weeks.filter((week) => week <= time).length,
      followed: all.followed - (without.followed <= time ? 1 : 0),
    }
  }
}
