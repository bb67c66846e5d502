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
}

/** A world as the error model assumes it. */
export const ASSUMED_WORLD: MeasuringWorld = { floorMm: 0.4, share: 0.04, markFactor: 1.5, dayShare: 0.03 }

/** A client of such a world. */
export interface WorldClient {
  protocol: Protocol
  /** Folds at the start, mm. */
  foldsMm: Partial<Record<SiteId, number>>
  /** Weeks of the visits, 0 first. */
  weeks: readonly number[]
  /** What the folds are multiplied by at a week; 1 throughout: nothing changes. */
  course?: (week: number) => number
  /** What a visit's hand makes of each site, by its place: another caliper or assessor; 1 where it names none. */
  hand?: (place: number) => Partial<Record<SiteId, number>>
}

const WEEK_MS = 7 * 24 * 60 * 60 * 1000

/** Readings of every visit of a client in a world, taken as the protocol's policy asks for them. */
export function simulateWorld(
  random: Random,
  world: MeasuringWorld,
  { protocol, foldsMm, weeks, course = () => 1, hand = () => ({}) }: WorldClient,
  from: Date,
): { startedAt: string; readings: Reading[] }[] {
  const {
    floorMm,
    share,
    markFactor,
    dayShare,
    dayCorrelation = 0,
    dayWhite = 0,
    copied = 0,
    blunders,
    markMm = 0.5,
  } = world
  const sigma = (mm: number) => Math.hypot(floorMm, share * mm)
  let lasting = random.normal()
  return weeks.map((week, i) => {
    const kept = i === 0 ? 0 : dayCorrelation ** (week - (weeks[i - 1] ?? week))
    lasting = i === 0 ? lasting : kept * lasting + Math.sqrt(1 - kept ** 2) * random.normal()
    const fresh = dayWhite > 0 ? Math.sqrt(dayWhite) * random.normal() : 0
    const day = 1 + dayShare * (Math.sqrt(1 - dayWhite) * lasting + fresh)
    const factors = hand(i)
    const startedAt = new Date(from.getTime() + week * WEEK_MS)
    const wrong =
      blunders && random.next() < blunders.share
        ? protocol.sites[Math.floor(random.next() * protocol.sites.length)]
        : undefined
    const marked = Object.fromEntries(
      protocol.sites.map((site) => {
        const mm = (foldsMm[site] ?? 10) * course(week) * day * (factors[site] ?? 1)
        return [site, mm + markFactor * sigma(mm) * random.normal() + (site === wrong ? (blunders?.mm ?? 0) : 0)]
      }),
    )
    const readings: Reading[] = []
    let session = sessionState(protocol, [], [])
    for (;;) {
      const step = nextStep(session)
      if (step.kind === 'finished') break
      const mm = marked[step.site] ?? 10
      const before = readings.find(({ site }) => site === step.site)
      const read = Math.round((mm + sigma(mm) * random.normal()) / markMm) * markMm
      const value = before && random.next() < copied ? before.value : Math.max(isFold(step.site) ? 2 : 10, read)
      const reading: Reading = {
        id: random.uuid(),
        site: step.site,
        round: step.round,
        value,
        unit: 'mm',
        takenAt: new Date(startedAt.getTime() + readings.length * 11_000).toISOString(),
        source: 'simulated',
      }
      readings.push(reading)
      session = withNext(session, reading)
    }
    return { startedAt: startedAt.toISOString(), readings }
  })
}
