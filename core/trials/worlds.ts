import { ASSUMED_WORLD, type MeasuringWorld } from '../simulate/world'
import type { Random } from '../simulate/random'
import type { SiteId } from '../sites'
import type { Trial, TrialClient } from './trial'

const SITES: readonly SiteId[] = ['triceps', 'subscapular', 'chest', 'midaxillary', 'suprailiac', 'abdominal', 'thigh']

const alike = (factor: number) => Object.fromEntries(SITES.map((site) => [site, factor]))

/** A world of unchanged clients. */
export type World = Trial & { name: string }

/** Noise of the sum that lasts from week to week, as wide as what the marks and readings leave, or wider. */
function lasting(dayCorrelation: number, dayShare = 0.05, dayWhite = 0.05): MeasuringWorld {
  return { ...ASSUMED_WORLD, dayShare, dayCorrelation, dayWhite }
}

/** Weeks between check-ins from some days to a month. */
function irregular(random: Random, looks = 24): number[] {
  const weeks = [0]
  while (weeks.length < looks)
    weeks.push((weeks.at(-1) ?? 0) + Math.max(1, Math.round(7 * 0.4 * 10 ** random.next())) / 7)
  return weeks
}

/** Another hand than the first, its bias 5 % by site. */
const another = (random: Random) => Object.fromEntries(SITES.map((site) => [site, 1 + 0.05 * random.normal()]))

/** One in ten is two and a half times as noisy as the others. */
const NOISY_EVERY = 10
export const isNoisy = (client: number) => client % NOISY_EVERY === 0

/** Of two hands the second measures every third client, twice as badly. */
export const isBadHands = (client: number) => client % 3 === 0

/** Worlds in which nobody changes, each a way the error may be other than assumed. */
export const UNCHANGED: readonly World[] = [
  { name: 'as assumed' },
  { name: 'marks found twice as badly', world: { ...ASSUMED_WORLD, markFactor: 3 } },
  { name: 'marks twice, day effect of 7.5 %', world: { ...ASSUMED_WORLD, markFactor: 3, dayShare: 0.075 } },
  { name: 'lean men, whole millimetres', size: 0.45, sex: 'male', world: { ...ASSUMED_WORLD, markMm: 1 } },
  { name: 'large women', size: 1.8 },
  { name: 'four of five repeats copied', world: { ...ASSUMED_WORLD, copied: 0.8 } },
  { name: 'a clumsy assessor', world: { ...ASSUMED_WORLD, share: 0.09, markMm: 1 } },
  { name: 'irregular gaps', client: (_, random) => ({ weeks: irregular(random) }) },
  { name: 'one in ten noisy', client: (place) => (isNoisy(place) ? { noise: 2.5 } : {}) },
  { name: 'noise differs between clients', client: (_, random) => ({ noise: Math.exp(0.35 * random.normal()) }) },
  { name: 'heavy day effect of 5 %', world: { ...ASSUMED_WORLD, dayShare: 0.05, dayTails: 3 } },
  { name: 'first visit bad', world: { ...ASSUMED_WORLD, firstFactor: 2.5 } },
  { name: 'one fold wrong by 24 mm in 2 % of visits', world: { ...ASSUMED_WORLD, blunders: { share: 0.02, mm: 24 } } },
  {
    name: 'handed over in mid-course, noted',
    client: (_, random) => {
      const factors = another(random)
      return { hand: (place) => (place < 8 ? { id: 'first', factors: {} } : { id: 'second', factors }) }
    },
  },
  {
    name: 'handed over in mid-course, not noted',
    client: (_, random) => {
      const factors = another(random)
      return { hand: (place) => ({ id: null, factors: place < 8 ? {} : factors }) }
    },
  },
  {
    name: 'another caliper, 5 % wider, from mid-course',
    client: () => ({
      hand: (place) => (place < 6 ? { id: 'first', factors: {} } : { id: 'second', factors: alike(1.05) }),
    }),
  },
  {
    name: 'two assessors in turn, bias 5 % by site',
    client: (_, random) => {
      const factors = another(random)
      return { hand: (place) => (place % 2 === 0 ? { id: 'first', factors: {} } : { id: 'second', factors }) }
    },
  },
  {
    name: 'two hands, one twice as bad',
    client: (place) => ({
      hand: () => ({ id: isBadHands(place) ? 'second' : 'first', factors: {} }),
      ...(isBadHands(place) ? { noise: 2 } : {}),
    }),
  },
  { name: 'noise lasting .3 a week', world: lasting(0.3) },
  { name: 'noise lasting .6 a week', world: lasting(0.6) },
  { name: 'noise lasting .7 a week', world: lasting(0.7) },
  { name: 'noise lasting .93 a week', world: lasting(0.93, 0.04) },
  {
    name: 'noise lasting .85 a week in one of four',
    client: (place) => (place % 4 === 0 ? { own: { dayShare: 0.05, dayCorrelation: 0.85, dayWhite: 0.05 } } : {}),
  },
  {
    name: 'a season of 2 %',
    client: (_, random) => {
      const phase = 2 * Math.PI * random.next()
      return { course: (week) => 1 + 0.02 * Math.sin((2 * Math.PI * week) / 52.18 + phase) }
    },
  },
  {
    name: 'a hand drifting .1 % a week',
    client: () => ({ hand: (place) => ({ id: 'first', factors: alike(1 + 0.001 * place) }) }),
  },
  {
    name: 'a cycle of 28 days, 2 % of folds, 1 % of weight',
    client: (_, random) => {
      const phase = 2 * Math.PI * random.next()
      const wave = (week: number) => Math.sin((2 * Math.PI * week) / 4 + phase)
      return { course: (week) => 1 + 0.02 * wave(week), weightCourse: (week) => 1 + 0.01 * wave(week) }
    },
  },
  { name: 'tape clients', tape: true },
]

/** Weights that last from week to week, 1 %: judged by the weight. */
export const UNCHANGED_WEIGHTS: readonly World[] = [0.3, 0.6, 0.85].map((correlation) => ({
  name: `weight lasting ${String(correlation).slice(1)} a week`,
  weightNoise: { share: 0.01, correlation },
}))

/** Studios so small that little is learnt, with noise that lasts. */
export const SMALL_STUDIOS = [1, 3, 8] as const
export const SMALL_WORLD: World = { name: 'noise lasting .7 a week', world: lasting(0.7) }

/** Fat of 0.2 kg a week, lean kept, in a woman of 118 mm: what her folds lose a week, as a share. */
export const STEADY_LOSS = 0.0108

const steadily = (share: number) => (): TrialClient => ({ course: (week) => Math.max(0.4, 1 - share * week) })

/** Half of the clients change; of the others at most one in twenty is told so. */
export const HALF_CHANGES: World = {
  name: 'half of the clients really changing',
  client: (place) => (place % 2 === 0 ? steadily(STEADY_LOSS)() : {}),
}

/** What statistics cannot repair: an assessor drifting with all clients, by a share of their folds a week. */
export const COMMON_DRIFT: World = {
  name: 'an assessor drifts, 1 % of the folds a week',
  client: () => ({ hand: (place) => ({ id: 'first', factors: alike(1 + 0.01 * place) }) }),
}

/** Nor that readings themselves wander slowly by 5 % of the folds: real means that the readings moved. */
export const WANDERING_READINGS: World = {
  name: 'noise lasting .93 a week, wider than all else',
  world: lasting(0.93),
}

/** No day effect: what a good studio comes to. */
export const NO_DAY: MeasuringWorld = { ...ASSUMED_WORLD, dayShare: 0 }

/** How often clients are seen, and for how long. */
export const CADENCES = [
  { name: 'weekly', weeksApart: 1, looks: 24 },
  { name: 'fortnightly', weeksApart: 2, looks: 16 },
  { name: 'four-weekly', weeksApart: 4, looks: 12 },
] as const

/** Clients who lose 0.2 kg of fat a week, at three cadences. */
export const LOSING: readonly World[] = CADENCES.map((cadence) => ({ ...cadence, client: steadily(STEADY_LOSS) }))

/** Half as fast. */
export const LOSING_SLOWLY: World = { name: '0.1 kg a week', looks: 30, client: steadily(STEADY_LOSS / 2) }

/** Every so many clients something happens to in the worlds below; the others teach the studio its error. */
export const HAPPENS_EVERY = 4
const happens = (course: (week: number) => number) => (place: number) => (place % HAPPENS_EVERY === 0 ? { course } : {})

/** 0.5 kg a week for eight weeks, then held for sixteen. */
export const LOSE_THEN_HOLD: World = {
  name: 'lost for eight weeks, then held',
  looks: 25,
  client: happens((week) => 1 - 2.5 * STEADY_LOSS * Math.min(week, 8)),
}

/** A step of 12 mm of 118 in mid-course. */
export const STEP: World = {
  name: 'a step of 12 mm in mid-course',
  looks: 24,
  weeksApart: 4,
  client: happens((week) => (week < 48 ? 1 : 1 - 12 / 118)),
}

/** Down by a quarter and back again. */
export const DOWN_AND_BACK: World = {
  name: 'down and back again',
  looks: 17,
  client: happens((week) => 1 - 0.25 * Math.sin((Math.PI * week) / 16)),
}
