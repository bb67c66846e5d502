import type { Protocol } from '../protocols'
import { sessionState, valueOf, type Reading, type Strike } from '../readings'
import { isFold, type SiteId } from '../sites'
import { simulatePeople } from '../simulate/study'
import type { Random } from '../simulate/random'

/** How hard somebody is to measure. */
export const HARD = ['easy', 'usual', 'hard'] as const
export type Hard = (typeof HARD)[number]

/** An invented client under the stand-in caliper. */
export interface StandInClient {
  hard: Hard
  /** Folds as they are, mm. */
  trueMm: Partial<Record<SiteId, number>>
  /** What one lift adds or takes, as a share: the fold is never lifted twice alike. */
  liftShare: number
  /** The client moves now and then: such a lift is off by far. */
  moves: number
  /** How fast the fold gives way. */
  creep: number
}

const HARDNESS: Record<Hard, Pick<StandInClient, 'liftShare' | 'moves' | 'creep'>> = {
  easy: { liftShare: 0.02, moves: 0, creep: 0.05 },
  usual: { liftShare: 0.04, moves: 0.05, creep: 0.09 },
  hard: { liftShare: 0.06, moves: 0.12, creep: 0.14 },
}

/** Draws a client for a set's folds. */
export function drawClient(random: Random, protocol: Protocol, hard: Hard): StandInClient {
  const [body = {}] = simulatePeople(random, 1, protocol)
  const folds = protocol.sites.filter((site) => isFold(site))
  return { hard, trueMm: Object.fromEntries(folds.map((site) => [site, body[site] ?? 12])), ...HARDNESS[hard] }
}

/** A fold lifted once: what it will read at two seconds, and whether the client moved. */
export interface Lift {
  foldMm: number
  moved: boolean
}

/** Lifts a site once. */
export function liftFold(random: Random, { trueMm, liftShare, moves }: StandInClient, site: SiteId): Lift {
  const truth = trueMm[site] ?? 12
  const moved = random.next() < moves
  const off = moved ? (random.next() < 0.5 ? -0.3 : 0.35) : liftShare * random.normal()
  return { foldMm: Math.max(2, truth * (1 + off)), moved }
}

/** What the jaws show so many seconds after full pressure, mm. */
export function jawsShow({ foldMm }: Lift, { creep }: StandInClient, seconds: number): number {
  const at = (t: number) => 1 + creep * Math.exp(-0.9 * t)
  return (foldMm * at(Math.max(0, seconds))) / at(2)
}

/** Truth beside readings at one site. */
export interface TruthBeside {
  site: SiteId
  trueMm: number
  /** What the set's policy makes of the readings; null: not read. */
  readMm: number | null
  /** Of the value, percent of the truth. */
  biasPercent: number | null
  /** Between readings, mm; null with one. */
  spreadMm: number | null
}

/** What a practice session was worth. */
export interface PracticeScore {
  sites: TruthBeside[]
  /** Mean of the absolute biases, percent; null where nothing was read. */
  offPercent: number | null
  /** Mean bias with its sign, percent. */
  biasPercent: number | null
  /** Readings taken while the client had moved, and how many of them were struck. */
  slips: number
  caught: number
}

/** Puts truth beside the readings of a session. `moved`: ids of readings taken of a lift in which the client moved. */
export function scorePractice(
  client: StandInClient,
  protocol: Protocol,
  readings: readonly Reading[],
  strikes: readonly Strike[],
  moved: ReadonlySet<string>,
): PracticeScore {
  const struck = new Set(strikes.map(({ readingId }) => readingId))
  const sites = sessionState(protocol, readings, strikes).sites.flatMap(({ site, value, live }): TruthBeside[] => {
    const trueMm = client.trueMm[site]
    if (trueMm === undefined) return []
    const values = live.map(valueOf)
    return [
      {
        site,
        trueMm,
        readMm: value,
        biasPercent: value === null ? null : 100 * (value / trueMm - 1),
        spreadMm: values.length > 1 ? Math.max(...values) - Math.min(...values) : null,
      },
    ]
  })
  const biases = sites.flatMap(({ biasPercent }) => biasPercent ?? [])
  const mean = (of: (one: number) => number) =>
    biases.length === 0 ? null : biases.reduce((sum, one) => sum + of(one), 0) / biases.length
  return {
    sites,
    offPercent: mean(Math.abs),
    biasPercent: mean((one) => one),
    slips: moved.size,
    caught: [...moved].filter((id) => struck.has(id)).length,
  }
}
