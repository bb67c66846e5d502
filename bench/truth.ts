/**
 * npm run bench:truth: the promise tried in every world, how soon a change is told, and what becomes of it.
 * CLIENTS=100 for a shorter run; ONLY=steady,losing for some parts; WORLD=lasting for some worlds; SEED for other luck.
 */
import {
  anyJaws,
  coverage,
  everReal,
  firstReal,
  looksAt,
  medianOf,
  oldRuleFirst,
  only,
  openTrial,
  saidAtLast,
  shareOf,
  startsOf,
  toldACause,
  type Looks,
  type Trial,
} from '../core/trials/trial'
import { drawnIntervals } from '../core/trials/drawn'
import { chosenShare, saidUnasked } from '../core/following'
import {
  CADENCES,
  COMMON_DRIFT,
  DOWN_AND_BACK,
  HALF_CHANGES,
  HAPPENS_EVERY,
  isBadHands,
  isNoisy,
  LOSE_THEN_HOLD,
  LOSING,
  LOSING_SLOWLY,
  NO_DAY,
  SMALL_STUDIOS,
  SMALL_WORLD,
  STEADY_LOSS,
  STEP,
  UNCHANGED,
  UNCHANGED_WEIGHTS,
  WANDERING_READINGS,
} from '../core/trials/worlds'
import { ASSUMED_WORLD } from '../core/simulate/world'

const CLIENTS = Number(process.env.CLIENTS ?? 1000)
const SEED = Number(process.env.SEED ?? 2026)
const ONLY = process.env.ONLY?.split(',') ?? []
const LONG = Math.ceil(CLIENTS / 5)
/** Worlds whose names hold one of these. */
const NAMED = process.env.WORLD?.split(',') ?? []
const isWanted = ({ name }: { name: string }) => NAMED.length === 0 || NAMED.some((one) => name.includes(one))

/** A share with its n and two standard errors, percent. */
function share(value: number, n: number): string {
  const error = 200 * Math.sqrt((value * (1 - value)) / Math.max(1, n))
  return `${(100 * value).toFixed(1)} ± ${error.toFixed(1)} % of ${n}`.padEnd(24)
}
const row = (name: string, ...cells: string[]) => console.log(name.padEnd(46), ...cells)
const part = (id: string, title: string, run: () => void) => {
  if (ONLY.length > 0 && !ONLY.includes(id)) return
  console.log(`\n${title}`)
  run()
}
const every = (looks: Looks) => share(everReal(looks), looks.length)
const some = (looks: Looks, holds: (client: number) => boolean) => looks.filter((_, client) => holds(client))

part('unchanged', 'Of clients who do not change, ever told real since the first check-in, at 24 looks', () => {
  for (const [i, world] of UNCHANGED.entries()) {
    if (!isWanted(world)) continue
    const trial = { ...world, clients: CLIENTS, looks: 24, seed: SEED + i }
    if (world.tape) {
      const looks = looksAt(openTrial(trial, ['percent']), ['percent'])
      row(world.name, share(everReal(looks, 'percent'), looks.length))
      continue
    }
    const looks = looksAt(openTrial(trial, ['sum']), ['sum'])
    row(world.name, every(looks))
    if (world.name === 'one in ten noisy') {
      row('  of the noisy', every(some(looks, isNoisy)))
      row(
        '  their interval holds',
        share(
          coverage(some(looks, isNoisy), () => 0, 6),
          some(looks, isNoisy).length,
        ),
      )
    }
    if (world.name.startsWith('two hands')) row('  of the bad hand’s', every(some(looks, isBadHands)))
  }
  for (const [i, world] of UNCHANGED_WEIGHTS.entries()) {
    if (!isWanted(world)) continue
    const looks = looksAt(openTrial({ ...world, clients: CLIENTS, looks: 24, seed: SEED + 50 + i }, ['weight']), [
      'weight',
    ])
    row(world.name, share(everReal(looks, 'weight'), looks.length))
  }
  const half = looksAt(openTrial({ ...HALF_CHANGES, clients: CLIENTS, looks: 24, seed: SEED }, ['sum']), ['sum'])
  row(HALF_CHANGES.name, every(some(half, (client) => client % 2 === 1)))
})

/** Clients of as many studios of a size as make up the number. */
function studios(size: number, trial: Trial, clients: number): Looks {
  return Array.from({ length: Math.ceil(clients / size) }, (_, i) =>
    looksAt(openTrial({ ...trial, clients: size, seed: SEED + 1000 * size + i }, ['sum']), ['sum']),
  ).flat()
}

part('small', 'The same in small studios', () => {
  for (const size of SMALL_STUDIOS)
    for (const world of [SMALL_WORLD, UNCHANGED[0] as (typeof UNCHANGED)[number]])
      row(`studios of ${size}, ${world.name}`, every(studios(size, { ...world, looks: 24 }, CLIENTS)))
})

part('long', 'The same at 100 looks', () => {
  for (const name of [
    'as assumed',
    'noise lasting .7 a week',
    'noise lasting .93 a week',
    'a hand drifting .1 % a week',
  ]) {
    const world = UNCHANGED.find((one) => one.name === name)
    const looks = looksAt(openTrial({ ...world, clients: LONG, looks: 100, seed: SEED }, ['sum']), ['sum'])
    row(name, every(looks))
  }
  for (const size of SMALL_STUDIOS)
    row(`studios of ${size}, ${SMALL_WORLD.name}`, every(studios(size, { ...SMALL_WORLD, looks: 100 }, LONG)))
})

part('starts', 'Any start: every pair of check-ins tried, 12 looks; told a cause; the old rule', () => {
  for (const name of ['as assumed', 'noise lasting .6 a week', 'noise lasting .93 a week', 'heavy day effect of 5 %']) {
    const world = UNCHANGED.find((one) => one.name === name)
    const studio = openTrial({ ...world, clients: LONG, seed: SEED })
    const old = shareOf(oldRuleFirst(studio, 1.96), (one) => one !== null)
    const [any, cause] = [anyJaws(studio), toldACause(studio, [3, 7, 11])]
    row(name, share(any, LONG), `cause ${share(cause, LONG)}`, `old rule ${share(old, LONG)}`)
  }
})

part(
  'losing',
  'Of clients who lose 0.2 kg of fat a week: median check-in told real, and the interval from visit 6 on',
  () => {
    const worlds = [
      ['no day effect, large studio', NO_DAY, CLIENTS],
      ['day effect of 3 %, large studio', ASSUMED_WORLD, CLIENTS],
      ['no day effect, studios of 8', NO_DAY, 8],
      ['no day effect, studios of 3', NO_DAY, 3],
      ['no day effect, alone', NO_DAY, 1],
    ] as const
    for (const [name, world, size] of worlds)
      for (const losing of LOSING) {
        const trial = { ...losing, world, seed: SEED }
        if (size < CLIENTS) {
          const looks = studios(size, trial, LONG)
          row(
            `${name}, ${losing.name}`,
            `median ${medianOf(firstReal(looks)) ?? 'never'}`,
            share(everReal(looks), looks.length),
          )
          continue
        }
        const studio = openTrial({ ...trial, clients: CLIENTS }, ['sum'])
        const looks = looksAt(studio, ['sum'])
        const lost = (_: number, visit: number) => 1 - STEADY_LOSS * (losing.weeksApart ?? 1) * visit
        const starts = startsOf(studio, lost)
        const truth = (client: number, look: number) => (starts[client] ?? NaN) * (lost(client, look) - 1)
        row(
          `${name}, ${losing.name}`,
          `median ${medianOf(firstReal(looks)) ?? 'never'}`,
          `told ${share(everReal(looks), CLIENTS)}`,
          `interval ${share(coverage(looks, truth, 6), CLIENTS)}`,
        )
      }
    const slow = looksAt(openTrial({ ...LOSING_SLOWLY, world: NO_DAY, clients: LONG, seed: SEED }, ['sum']), ['sum'])
    row('0.1 kg a week, weekly, no day effect', `median ${medianOf(firstReal(slow)) ?? 'never'}`, every(slow))
  },
)

part('held', 'What becomes of a change', () => {
  const happened = (trial: Trial) =>
    looksAt(
      only(openTrial({ ...trial, clients: CLIENTS, seed: SEED }, ['sum']), (client) => client % HAPPENS_EVERY === 0),
      ['sum'],
    )
  const held = happened(LOSE_THEN_HOLD)
  row(`${LOSE_THEN_HOLD.name}: real at the last`, share(saidAtLast(held, 'real'), held.length))
  const back = happened(DOWN_AND_BACK)
  row(`${DOWN_AND_BACK.name}: back at the last`, share(saidAtLast(back, 'back'), back.length))
  row('  real at the last', share(saidAtLast(back, 'real'), back.length))
  const stepped = only(openTrial({ ...STEP, clients: LONG, seed: SEED }, ['sum']), (c) => c % HAPPENS_EVERY === 0)
  row(`${STEP.name}: from a searched start`, share(anyJaws(stepped), stepped.ends.length))
})

part('steady', 'Holding steady at the last of 24 weekly looks, and steady since some check-in', () => {
  const slowly = (perWeek: number) => () => ({ course: (week: number) => 1 - perWeek * week })
  const worlds: (readonly [string, Trial])[] = [
    ['unchanged, no day effect', { world: NO_DAY }],
    ['unchanged, day effect of 3 %', {}],
    ['losing 0.1 kg a week, no day effect', { world: NO_DAY, client: slowly(STEADY_LOSS / 2) }],
    ['losing 0.1 kg a week, day effect of 3 %', { client: slowly(STEADY_LOSS / 2) }],
    ['losing 0.2 kg a week, no day effect', { world: NO_DAY, client: slowly(STEADY_LOSS) }],
  ]
  for (const [name, trial] of worlds) {
    const studio = openTrial({ ...trial, looks: 24, clients: LONG, seed: SEED }, ['sum'])
    const looks = looksAt(studio, ['sum'])
    const since = studio.ends.filter((own, client) => {
      const noises = studio.noisesAt(client, own.length - 1)
      return saidUnasked(own, { start: 0, share: chosenShare(1), noises }).steadySince !== null
    })
    row(
      name,
      `at the last ${share(saidAtLast(looks, 'steady'), LONG)}`,
      `ever ${share(
        shareOf(looks, (own) => own.some(({ sum }) => sum?.verdict === 'steady')),
        LONG,
      )}`,
      `since ${share(since.length / LONG, LONG)}`,
    )
  }
})

part('drawn', 'The interval where one of eight changes as the courses hold likely: changing, others, width', () => {
  for (const { name, weeksApart } of CADENCES) {
    const { changing, unchanged, width } = drawnIntervals(CLIENTS, { weeksApart, looks: 12 })
    row(`as assumed, ${name}`, share(changing, CLIENTS / 8), share(unchanged, CLIENTS / 8), width.toFixed(2))
  }
})

part('drift', 'What cannot be repaired', () => {
  for (const world of [WANDERING_READINGS])
    row(world.name, every(looksAt(openTrial({ ...world, clients: LONG, looks: 24, seed: SEED }, ['sum']), ['sum'])))
  row(
    COMMON_DRIFT.name,
    every(looksAt(openTrial({ ...COMMON_DRIFT, clients: LONG, looks: 24, seed: SEED }, ['sum']), ['sum'])),
  )
})
