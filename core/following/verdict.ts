import type { SiteId } from '../sites'
import { chosenShare } from './budget'
import type { Noise } from './noise'
import { canAsk, FollowedSeries, type Asking, type OddsSeries, type WholeOdds } from './odds'

/**
 * What a history allows to be said of a change (answer.md). `real`: over the line, the interval on one side, and no single
 * site carries it. `one-fold`: one site carries it. `back`: it was real and is not there now, or moved and came back.
 * `some-sign`: 3 to the line. `too-early`: neither way. `steady`: no sign, and any change is likely below the smallest that
 * matters. `no-sign`: no sign of a change otherwise.
 */
export const VERDICTS = ['real', 'some-sign', 'too-early', 'no-sign', 'steady', 'back', 'one-fold'] as const
export type VerdictKind = (typeof VERDICTS)[number]

/** Odds from which there is some sign of a change, under which there is none, and from which a level is steady. */
export const SIGN_ODDS = 3
const NO_SIGN_ODDS = 1 / 3
const STEADY_ODDS = 1 / 4
/** Once real it stays real while the odds are this and over. */
const STAYS_ODDS = 2
/** Steady: at least so likely below the smallest change that matters. */
const STEADY_SURE = 0.8
/** Steady is said from so many other clients on, and while noise is held to last no more than this to the next check-in. */
const STEADY_OTHERS = 10
const STEADY_LASTING = 0.75
/** Odds over this are said as over it. */
export const MOST_SAID = 1000

/** Which line of real a figure has: those that take the weight have noise that lasts longer. */
export type LineKind = 'sum' | 'weight'
const LINES: Record<LineKind, { most: number; least: number }> = {
  sum: { most: 17, least: 15 },
  weight: { most: 24, least: 16 },
}

/**
 * Odds from which a change is real where its start had the whole budget, by how many other clients have five check-ins and
 * more. The start followed from the beginning has 0.85 of it: 20 alone, 17.6 in a large studio.
 * @example realLine('sum', 0) // 17
 */
export function realLine(kind: LineKind, followed: number): number {
  const { most, least } = LINES[kind]
  return least + (most - least) / (1 + followed / 3)
}

/** What was said at the looks before. */
export interface Standing {
  /** Whether the change was real at the last of them, and ever. */
  real: boolean
  once: boolean
  /** How far from the start the readings were while it was, unit of the figure. */
  farthest: number
}
export const NEVER_REAL: Standing = { real: false, once: false, farthest: 0 }

/**
 * What is said after another look.
 * @param off how far from the start its reading is
 */
export function standingAfter(
  { once, farthest }: Standing,
  { isReal, off }: { isReal: boolean; off: number },
): Standing {
  return { real: isReal, once: once || isReal, farthest: isReal ? Math.max(farthest, Math.abs(off)) : farthest }
}

/** A change with what its history says of it. */
export interface Judged extends WholeOdds {
  verdict: VerdictKind
  /** The site a `one-fold` verdict rests on. */
  site: SiteId | null
  /** The odds it takes to be real here. */
  needed: number
  standing: Standing
  /** Look at which it was first real, by place; null: never. */
  realAt: number | null
}

/** How it is judged. */
export interface Judging extends Asking {
  noise: Noise
  line?: LineKind
  /** The same figure with one site left out each, for a sum. */
  without?: () => { site: SiteId; series: OddsSeries }[]
  /** Share of the budget its start has, and its figure among others: its odds count as much. Without it: the first's. */
  share?: number
  /** What was said before; left out: worked out from `running`, or nothing. */
  before?: Standing
}

/** Judges a change by its history. Null with fewer than two visits. */
export function judge(series: OddsSeries, judging: Judging): Judged | null {
  const { noise, line = 'sum', without, share = chosenShare(1), running, smallest } = judging
  if (!canAsk(series)) return null
  const history = new FollowedSeries(series)
  const found = history.whole(noise, smallest)
  const needed = realLine(line, noise.learntFrom.followed)
  const last = series.weeks.length - 1
  const offAt = (look: number) => (series.values[look] as number) - (series.values[0] as number)
  let before = judging.before ?? NEVER_REAL
  let realAt: number | null = null
  for (let look = 1; running && look < last; look += 1) {
    const held = running(look)
    const asked = before.real ? STAYS_ODDS : realLine(line, held.learntFrom.followed)
    before = standingAfter(before, { isReal: history.reach(look, held, asked / share), off: offAt(look) })
    if (realAt === null && before.real) realAt = look
  }
  const counted = found.odds * share
  const isReal = counted >= (before.real ? STAYS_ODDS : needed)
  const standing = standingAfter(before, { isReal, off: offAt(last) })
  if (realAt === null && standing.real) realAt = last
  const said = { ...found, needed: needed / share, standing, realAt, site: null }
  if (standing.real) {
    if (isBack(found, standing)) return { ...said, verdict: 'back' }
    // What has stood is not unsaid because a hand may have drifted since: only by coming back, or by the odds.
    if (!before.real && found.low <= 0 && found.high >= 0)
      return { ...said, standing: { ...standing, real: false }, verdict: 'some-sign' }
    // What has stood for a while may have come down: a site left out is asked for as much less.
    const asked = SIGN_ODDS * Math.min(1, counted / needed)
    for (const one of without?.() ?? []) {
      const rest = canAsk(one.series) ? new FollowedSeries(one.series) : null
      if (rest && !rest.reach(one.series.weeks.length - 1, noise, asked / share))
        return { ...said, verdict: 'one-fold', site: one.site }
    }
    return { ...said, verdict: 'real' }
  }
  if (before.once && isBack(found, before)) return { ...said, verdict: 'back' }
  return { ...said, verdict: unsettled(found, counted, noise, () => history.lasting(noise)) }
}

/** Whether what moved has come back: most of the way it once was off, and perhaps all of it. */
function isBack({ change, low, high }: WholeOdds, { farthest }: Standing): boolean {
  return low <= 0 && high >= 0 && Math.abs(change) <= farthest / 2
}

/** @param lasting how far noise is held to last to the next check-in: asked for where a level hangs on it */
function unsettled({ odds, within }: WholeOdds, counted: number, noise: Noise, lasting: () => number): VerdictKind {
  if (counted >= SIGN_ODDS) return 'some-sign'
  // A start that was searched for has to show more to be real, not less to be nothing.
  if (odds >= NO_SIGN_ODDS) return 'too-early'
  const isLevel = odds <= STEADY_ODDS && within !== null && within >= STEADY_SURE
  if (!isLevel || noise.learntFrom.followed < STEADY_OTHERS) return 'no-sign'
  return lasting() <= STEADY_LASTING ? 'steady' : 'no-sign'
}
