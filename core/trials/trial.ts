import { dayOf } from '../composition/facts'
import type { SpanEnd } from '../composition/end-figures'
import {
  ASSUMED_NOISES,
  chosenShare,
  clientEvidence,
  composeSpan,
  followedEnd,
  followLooks,
  judgeFigures,
  readSpan,
  searchedShare,
  StudioNoise,
  type Change,
  type Family,
  type FigureId,
  type VerdictKind,
} from '../following'
import { PROTOCOLS } from '../protocols'
import { seededRandom } from '../simulate'
import type { Random } from '../simulate/random'
import { ASSUMED_WORLD, simulateWorld, type MeasuringWorld } from '../simulate/world'
import type { SiteId } from '../sites'

/*
 * Clients of a simulated studio, measured through the schools' rules with a caliper's marks, composed, followed and
 * judged by the functions the product uses: what the promise is tried with, by tests and by `npm run bench:truth`.
 */

const SEVEN = PROTOCOLS['laboratory-7']
const FOLDS: Partial<Record<SiteId, number>> = {
  triceps: 20,
  subscapular: 14,
  chest: 9,
  midaxillary: 11,
  suprailiac: 15,
  abdominal: 20,
  thigh: 29,
}
/** Girths of a tape set, cm. */
const GIRTHS: Partial<Record<SiteId, number>> = { neck: 33, waist: 74, abdomen: 82, hip: 100 }
const PERSON = { birthDate: '1985-01-01', heightCm: 170 }
const FROM = new Date('2026-01-05T17:00:00Z')

/** One client of a trial: what happens to them, and how they are measured. */
export interface TrialClient {
  course?: (week: number) => number
  /** Weight against the start, by week. */
  weightCourse?: (week: number) => number
  hand?: (place: number) => { id: string | null; factors: Partial<Record<SiteId, number>> }
  /** Noise of this client against the world's. */
  noise?: number
  /** What the world is like for this client. */
  own?: Partial<MeasuringWorld>
  /** Weeks of their check-ins, 0 first. */
  weeks?: readonly number[]
}

/** A world with its clients. */
export interface Trial {
  name?: string
  world?: MeasuringWorld
  clients?: number
  looks?: number
  weeksApart?: number
  /** Folds against the usual ones. */
  size?: number
  /** Share and correlation by the week of a visit's weight. */
  weightNoise?: { share: number; correlation: number }
  client?: (place: number, random: Random) => TrialClient
  sex?: 'female' | 'male'
  /** Measured by the tape alone: the percent leads. */
  tape?: boolean
  /** False: nothing learnt, everything as assumed. */
  learnt?: boolean
  seed?: number
}

function scaled(world: MeasuringWorld, by: number): MeasuringWorld {
  return { ...world, floorMm: world.floorMm * by, share: world.share * by, dayShare: world.dayShare * by }
}

/** Correlated noise, one value a visit, sd 1. */
function lastingNoise(random: Random, weeks: readonly number[], correlation: number): number[] {
  let value = random.normal()
  return weeks.map((week, i) => {
    if (i === 0) return value
    const kept = correlation ** (week - (weeks[i - 1] ?? week))
    value = kept * value + Math.sqrt(1 - kept ** 2) * random.normal()
    return value
  })
}

/** Everybody's check-ins, composed. */
export function measure(trial: Trial): SpanEnd[][] {
  const { world = ASSUMED_WORLD, clients = 100, looks = 12, weeksApart = 1, size = 1, seed = 7 } = trial
  const { sex = 'female', tape = false } = trial
  const { share, correlation } = trial.weightNoise ?? { share: 0.007, correlation: 0 }
  const protocol = tape ? PROTOCOLS['navy-tape'] : SEVEN
  const random = seededRandom(seed)
  const usual = Array.from({ length: looks }, (_, i) => i * weeksApart)
  return Array.from({ length: clients }, (_, c) => {
    const own = size * Math.exp(0.25 * random.normal())
    const bodies = Object.fromEntries(
      Object.entries(tape ? GIRTHS : FOLDS).map(([site, value]) =>
        tape
          ? [site, value * Math.exp(0.06 * random.normal())]
          : [site, Math.max(3, value * own * Math.exp(0.15 * random.normal()))],
      ),
    )
    const given = trial.client?.(c, random) ?? {}
    const { course, weightCourse = () => 1, hand, noise = 1, own: differing = {}, weeks = usual } = given
    const kg = 62 * Math.exp(0.1 * random.normal())
    const weighed = lastingNoise(random, weeks, correlation)
    const visits = simulateWorld(
      random,
      scaled({ ...world, ...differing }, noise),
      {
        protocol,
        foldsMm: bodies,
        weeks,
        ...(course ? { course } : {}),
        ...(hand ? { hand: (place: number) => hand(place).factors } : {}),
      },
      FROM,
    )
    return visits.map(({ startedAt, readings }, i) => {
      const value = Math.round(10 * kg * weightCourse(weeks[i] ?? 0) * (1 + share * (weighed[i] ?? 0))) / 10
      const weight = {
        id: random.uuid(),
        site: 'weight' as const,
        round: 1,
        value,
        unit: 'kg' as const,
        takenAt: startedAt,
        source: 'simulated' as const,
      }
      const id = hand?.(i).id
      return followedEnd({
        person: { ...PERSON, sex },
        protocol,
        startedAt,
        readings: [weight, ...readings],
        strikes: [],
        ...(id ? { assessorId: id } : {}),
      })
    })
  })
}

const FAMILIES: readonly Family[] = ['sum', 'fat', 'lean', 'percent', 'weight', 'fold']

/** A studio of a trial: its clients' check-ins and what they teach about each other. */
export interface TrialStudio {
  ends: SpanEnd[][]
  noisesAt: (client: number, look: number) => ReturnType<StudioNoise['for']>
}

/** Measures a trial's clients and learns from them as a studio does. */
export function openTrial(trial: Trial, families: readonly Family[] = FAMILIES): TrialStudio {
  const ends = measure(trial)
  const { learnt = true } = trial
  const noise = learnt
    ? new StudioNoise(new Map(ends.map((own, c) => [String(c), clientEvidence(own, { families })])))
    : null
  return {
    ends,
    noisesAt: (client, look) => {
      const end = ends[client]?.[look]
      return noise && end ? noise.for(String(client), dayOf(end.facts), families) : ASSUMED_NOISES
    },
  }
}

/** Every look at some figures of every client since the first check-in: by client, then by look from the second on. */
export function looksAt<Figure extends FigureId>(
  { ends, noisesAt }: TrialStudio,
  figures: readonly Figure[],
  share = chosenShare(1),
): Record<Figure, Change | null>[][] {
  return ends.map((own, c) => followLooks(own, figures, { noisesAt: (look) => noisesAt(c, look), share }))
}

/** A studio seen through some of its clients. */
export function only({ ends, noisesAt }: TrialStudio, holds: (client: number) => boolean): TrialStudio {
  const places = [...ends.keys()].filter(holds)
  return {
    ends: places.map((place) => ends[place] ?? []),
    noisesAt: (client, look) => noisesAt(places[client] ?? -1, look),
  }
}

/** The middle one of numbers of which some never come; null: more than half never do. */
export function medianOf(all: readonly (number | null)[]): number | null {
  const sorted = all.map((one) => one ?? Infinity).sort((a, b) => a - b)
  const middle = sorted[Math.floor(sorted.length / 2)] ?? Infinity
  return Number.isFinite(middle) ? middle : null
}

/** Share of a list that holds. */
export function shareOf<T>(all: readonly T[], holds: (one: T) => boolean): number {
  return all.filter(holds).length / all.length
}

/** Every look of every client at one figure, in the order they came. */
export type Looks<Figure extends FigureId = 'sum'> = readonly Record<Figure, Change | null>[][]

/** Share of clients ever told real. */
export function everReal<Figure extends FigureId = 'sum'>(looks: Looks<Figure>, figure = 'sum' as Figure): number {
  return shareOf(looks, (own) => own.some((look) => look[figure]?.verdict === 'real'))
}

/** The check-in at which each client is first told real, 1 the first; null: never. */
export function firstReal<Figure extends FigureId = 'sum'>(
  looks: Looks<Figure>,
  figure = 'sum' as Figure,
): (number | null)[] {
  return looks.map((own) => {
    const place = own.findIndex((look) => look[figure]?.verdict === 'real')
    return place < 0 ? null : place + 2
  })
}

/** Share of clients of whom this is said at the last check-in. */
export function saidAtLast(looks: Looks, verdict: VerdictKind): number {
  return shareOf(looks, (own) => own.at(-1)?.sum?.verdict === verdict)
}

/**
 * Sums that lay under the clients' readings at the start, mm: the mean of all, each taken back along what really happened.
 * @param course folds of a client against the start, at a visit
 */
export function startsOf({ ends }: TrialStudio, course: (client: number, visit: number) => number): number[] {
  return ends.map(
    (own, client) =>
      own.reduce((sum, { result }, visit) => sum + (result.sumMm ?? NaN) / course(client, visit), 0) / own.length,
  )
}

/**
 * Share of looks whose interval holds the true change of the sum.
 * @param from check-in from which looks count, 1 the first
 */
export function coverage(looks: Looks, truth: (client: number, look: number) => number, from = 2): number {
  const held = looks.flatMap((own, c) =>
    own.flatMap(({ sum }, i) =>
      sum && i + 2 >= from ? [sum.low <= truth(c, i + 1) && truth(c, i + 1) <= sum.high] : [],
    ),
  )
  return shareOf(held, (one) => one)
}

/** Share of clients with some pair of jaws told real: every start, searched as the page searches, to every end. */
export function anyJaws({ ends, noisesAt }: TrialStudio): number {
  return shareOf([...ends.entries()], ([c, own]) =>
    own.some((_, to) => {
      const noises = noisesAt(c, to)
      return own.slice(0, to).some((__, from) => {
        const share = from === 0 ? chosenShare(1) : searchedShare(from + 1)
        const { sum } = judgeFigures(own.slice(from, to + 1), ['sum'], { noises, share, running: false })
        return sum?.verdict === 'real'
      })
    }),
  )
}

/** Sentences that name a cause. */
const CAUSES = new Set([
  'fat-for-lean',
  'fat-down',
  'intake',
  'lean-for-fat',
  'lean-or-water',
  'lean-or-water-up',
  'folds-against-weight',
])

/** Share of clients told a cause at any of some looks. */
export function toldACause({ ends, noisesAt }: TrialStudio, looks: readonly number[]): number {
  return shareOf([...ends.entries()], ([c, own]) =>
    looks.some((look) => {
      const span = composeSpan(own.slice(0, look + 1), { noises: noisesAt(c, look), running: false })
      return readSpan(span).some(({ code }) => CAUSES.has(code))
    }),
  )
}

/** Whether the old rule, first to last beyond so many assumed errors, calls the sum moved: at every visit from the second on. */
export function oldRuleSays(own: readonly SpanEnd[], z: number): boolean[] {
  const values = own.map(({ result }) => result.sumMm ?? NaN)
  const folds = own[0]?.result.session.sites ?? []
  // 5 % a reading, 1.5 times that between visits, sites independent: what was taken before.
  const variance = folds.reduce((sum, { value }) => sum + (0.05 * (value ?? 0)) ** 2 * (1.5 ** 2 + 0.5), 0)
  return values.slice(1).map((value) => Math.abs(value - (values[0] ?? 0)) > z * Math.sqrt(2 * variance))
}

/** The check-in at which the old rule first calls each client's sum moved, 1 the first; null: never. */
export function oldRuleFirst({ ends }: TrialStudio, z: number): (number | null)[] {
  return ends.map((own) => {
    const place = oldRuleSays(own, z).indexOf(true)
    return place < 0 ? null : place + 2
  })
}
