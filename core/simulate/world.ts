import { nextStep, sessionState, withNext, type Reading } from '../readings'
import type { Protocol } from '../protocols'
import { isFold, type SiteId } from '../sites'
import type { Random } from './random'

/** How a simulated studio measures folds: every way an error comes about that is known of. */
export interface MeasuringWorld {
  /** Error of one reading: a floor in mm and a share of the fold. */
  floorMm: number
  share: number
  /** The mark found anew at each visit, as a multiple of a reading's error. */
  markFactor: number
  /** Day effect common to all folds of a visit, as a share. */
  dayShare: number
  /** Correlation of the day effect from week to week. */
  dayCorrelation?: number
  /** Share of the day effect's variance that is new every day, where it lasts. */
  dayWhite?: number
  /** Share of second readings copied from the first. */
  copied?: number
  /** Share of visits at which one fold is wrong, and by how much, mm. */
  blunders?: { share: number; mm: number }
  /** Distance of the caliper's marks, mm. */
  markMm?: number
  /** Heavy tails: the day effect is a Student t of so many degrees of freedom, its spread as without them. */
  dayTails?: number
  /** Error of the first visit against the others'. */
  firstFactor?: number
  /** Error of one reading of a girth: a floor in cm and a share. */
  girthFloorCm?: number
  girthShare?: number
}

/** A world as the error model assumes it. */
export const ASSUMED_WORLD: MeasuringWorld = { floorMm: 0.4, share: 0.04, markFactor: 1.5, dayShare: 0.03 }

/** A client of such a world. */
export interface WorldClient {
  protocol: Protocol
  /** Folds at the start, mm, and girths, cm. */
  foldsMm: Partial<Record<SiteId, number>>
  /** Weeks of the visits, 0 first. */
  weeks: readonly number[]
  /** What the folds are multiplied by at a week; 1 throughout: nothing changes. */
  course?: (week: number) => number
  /** What a visit's hand makes of each site, by its place: another caliper or assessor; 1 where it names none. */
  hand?: (place: number) => Partial<Record<SiteId, number>>
}

const WEEK_MS = 7 * 24 * 60 * 60 * 1000

/** Standard normal, or a Student t of the same spread. */
function drawn(random: Random, tails: number | undefined): number {
  const normal = random.normal()
  if (tails === undefined) return normal
  let squares = 0
  for (let i = 0; i < tails; i += 1) squares += random.normal() ** 2
  return normal * Math.sqrt((tails - 2) / squares)
}

/** Day effects common to all sites of a visit, sd 1: a part that lasts from week to week, and one that is new every day. */
function daysOf(random: Random, weeks: readonly number[], world: MeasuringWorld): number[] {
  const { dayCorrelation = 0, dayWhite = 0, dayTails } = world
  let lasting = random.normal()
  return weeks.map((week, i) => {
    const kept = i === 0 ? 0 : dayCorrelation ** (week - (weeks[i - 1] ?? week))
    const anew = i === 0 && dayTails === undefined ? lasting : drawn(random, dayTails)
    lasting = i === 0 ? anew : kept * lasting + Math.sqrt(1 - kept ** 2) * anew
    const fresh = dayWhite > 0 ? Math.sqrt(dayWhite) * random.normal() : 0
    return Math.sqrt(1 - dayWhite) * lasting + fresh
  })
}

/** Readings of every visit of a client in a world, taken as the protocol's policy asks for them. */
export function simulateWorld(
  random: Random,
  world: MeasuringWorld,
  { protocol, foldsMm, weeks, course = () => 1, hand = () => ({}) }: WorldClient,
  from: Date,
): { startedAt: string; readings: Reading[] }[] {
  const { floorMm, share, markFactor, dayShare, copied = 0, blunders, markMm = 0.5 } = world
  const { firstFactor = 1, girthFloorCm = 0.3, girthShare = 0.007 } = world
  const days = daysOf(random, weeks, world)
  return weeks.map((week, i) => {
    const wide = i === 0 ? firstFactor : 1
    const sigma = (site: SiteId, value: number) =>
      wide * (isFold(site) ? Math.hypot(floorMm, share * value) : Math.hypot(girthFloorCm, girthShare * value))
    const day = 1 + wide * dayShare * (days[i] as number)
    const factors = hand(i)
    const startedAt = new Date(from.getTime() + week * WEEK_MS)
    const wrong =
      blunders && random.next() < blunders.share
        ? protocol.sites[Math.floor(random.next() * protocol.sites.length)]
        : undefined
    const marked = Object.fromEntries(
      protocol.sites.map((site) => {
        const body = (foldsMm[site] ?? 10) * course(week) * (factors[site] ?? 1)
        const value = isFold(site) ? body * day : body
        return [
          site,
          value + markFactor * sigma(site, value) * random.normal() + (site === wrong ? (blunders?.mm ?? 0) : 0),
        ]
      }),
    )
    const readings: Reading[] = []
    let session = sessionState(protocol, [], [])
    for (;;) {
      const step = nextStep(session)
      if (step.kind === 'finished') break
      const truth = marked[step.site] ?? 10
      const mark = isFold(step.site) ? markMm : 0.1
      const before = readings.find(({ site }) => site === step.site)
      const read = Math.round((truth + sigma(step.site, truth) * random.normal()) / mark) * mark
      const value = before && random.next() < copied ? before.value : Math.max(isFold(step.site) ? 2 : 10, read)
      const reading: Reading = {
        id: random.uuid(),
        site: step.site,
        round: step.round,
        value: isFold(step.site) ? value : Math.round(value * 10) / 10,
        unit: isFold(step.site) ? 'mm' : 'cm',
        takenAt: new Date(startedAt.getTime() + readings.length * 11_000).toISOString(),
        source: 'simulated',
      }
      readings.push(reading)
      session = withNext(session, reading)
    }
    return { startedAt: startedAt.toISOString(), readings }
  })
}
