import { ASSUMED_WORLD } from '../simulate/world'
import type { SiteId } from '../sites'
import type { Trial, TrialClient } from './trial'

const SITES: readonly SiteId[] = ['triceps', 'subscapular', 'chest', 'midaxillary', 'suprailiac', 'abdominal', 'thigh']

const alike = (factor: number) => Object.fromEntries(SITES.map((site) => [site, factor]))

/** Fat of about 0.2 kg a week, lean kept, in a woman of 62 kg: what her folds lose a week, as a share. */
export const STEADY_LOSS = 0.0138

const steady = (): TrialClient => ({ course: (week) => 1 - STEADY_LOSS * week })

/** Worlds in which nobody changes (but where said), each a way the error may be other than assumed. */
export const UNCHANGED: readonly (Trial & { name: string })[] = [
  { name: 'as assumed' },
  { name: 'marks found twice as badly', world: { ...ASSUMED_WORLD, markFactor: 3 } },
  { name: 'day effect, correlation 0.3', world: { ...ASSUMED_WORLD, dayShare: 0.05 } },
  { name: 'day effect, correlation 0.5', world: { ...ASSUMED_WORLD, dayShare: 0.075 } },
  { name: 'both: marks twice, correlation 0.5', world: { ...ASSUMED_WORLD, markFactor: 3, dayShare: 0.075 } },
  { name: 'lean people, a floor', size: 0.45 },
  { name: 'four of five repeats copied', world: { ...ASSUMED_WORLD, copied: 0.8 } },
  { name: 'a clumsy assessor', world: { ...ASSUMED_WORLD, share: 0.09, markMm: 1 } },
  {
    name: 'another caliper, 5 % wider, from mid-course',
    client: () => ({
      hand: (place) => (place < 6 ? { id: 'first', factors: {} } : { id: 'second', factors: alike(1.05) }),
    }),
  },
  {
    name: 'two assessors in turn, bias 5 % by site',
    client: (_, random) => {
      const factors = Object.fromEntries(SITES.map((site) => [site, 1 + 0.05 * random.normal()]))
      return { hand: (place) => (place % 2 === 0 ? { id: 'first', factors: {} } : { id: 'second', factors }) }
    },
  },
  {
    name: 'noise correlated 0.3 a week',
    world: { ...ASSUMED_WORLD, dayShare: 0.05, dayCorrelation: 0.3, dayWhite: 0.2 },
  },
  {
    name: 'noise correlated 0.6 a week',
    world: { ...ASSUMED_WORLD, dayShare: 0.05, dayCorrelation: 0.6, dayWhite: 0.2 },
  },
  { name: 'one fold wrong by 24 mm in 2 % of visits', world: { ...ASSUMED_WORLD, blunders: { share: 0.02, mm: 24 } } },
  { name: 'noise differs between clients', client: (_, random) => ({ noise: Math.exp(0.35 * random.normal()) }) },
  {
    name: 'noise lasts (0.8 a week) in one client of four',
    client: (place) => (place % 4 === 0 ? { own: { dayShare: 0.05, dayCorrelation: 0.8, dayWhite: 0.2 } } : {}),
  },
  { name: 'weight correlated 0.6 a week', weightNoise: { share: 0.01, correlation: 0.6 } },
  {
    name: 'a cycle of 28 days, 2 % of folds, 1 % of weight',
    client: (_, random) => {
      const phase = 2 * Math.PI * random.next()
      const wave = (week: number) => Math.sin((2 * Math.PI * week) / 4 + phase)
      return { course: (week) => 1 + 0.02 * wave(week), weightCourse: (week) => 1 + 0.01 * wave(week) }
    },
  },
]

/** Half of the clients change; of the others at most one in twenty is told so. */
export const HALF_CHANGES: Trial = {
  name: 'half of the clients really changing',
  client: (place) => (place % 2 === 0 ? steady() : {}),
}

/** What statistics cannot repair: an assessor drifting with all clients, by a share of their folds a week. */
export const COMMON_DRIFT: Trial = {
  name: 'an assessor drifts, 1 % of the folds a week',
  client: () => ({ hand: (place) => ({ id: 'first', factors: alike(1 + 0.01 * place) }) }),
}

/** Clients who lose steadily, at three cadences. */
export const LOSING: readonly Trial[] = [
  { name: 'weekly', weeksApart: 1, looks: 20, client: steady },
  { name: 'fortnightly', weeksApart: 2, looks: 13, client: steady },
  { name: 'four-weekly', weeksApart: 4, looks: 9, client: steady },
]

/** Every so many clients something happens to in the two worlds below; the others teach the studio its error. */
export const HAPPENS_EVERY = 4

/** A step of 12 mm of 118 in mid-course. */
export const STEP: Trial = {
  name: 'a step of 12 mm in mid-course',
  looks: 24,
  weeksApart: 4,
  client: (place) => (place % HAPPENS_EVERY === 0 ? { course: (week) => (week < 48 ? 1 : 1 - 12 / 118) } : {}),
}

/** Down by a quarter and back again. */
export const DOWN_AND_BACK: Trial = {
  name: 'down and back again',
  looks: 17,
  client: (place) =>
    place % HAPPENS_EVERY === 0 ? { course: (week) => 1 - 0.25 * Math.sin((Math.PI * week) / 16) } : {},
}
