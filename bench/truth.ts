/** npm run bench:truth: the promise tried in every world, and what can be told, beside the old rule. */
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
  shareOf,
  startsOf,
  toldACause,
  type Trial,
} from '../core/trials/trial'
import { drawnIntervals } from '../core/trials/drawn'
import {
  COMMON_DRIFT,
  DOWN_AND_BACK,
  HALF_CHANGES,
  HAPPENS_EVERY,
  LOSING,
  STEADY_LOSS,
  STEP,
  UNCHANGED,
} from '../core/trials/worlds'

const CLIENTS = Number(process.env.CLIENTS ?? 300)
const percent = (share: number) => `${(100 * share).toFixed(1)} %`.padStart(8)
/** Simulation error of a share, two standard deviations. */
const within = (share: number) => `± ${(200 * Math.sqrt((share * (1 - share)) / CLIENTS)).toFixed(1)}`
const row = (name: string, ...cells: string[]) => console.log(name.padEnd(46), ...cells)

const median = (all: readonly (number | null)[]) => String(medianOf(all) ?? 'never')

console.log(`Of ${CLIENTS} clients who do not change, told real by the sum since the first check-in`)
row('world', '12 looks', '        ', '24 looks', 'any jaws', ' a cause', 'old rule')
for (const world of UNCHANGED) {
  const trial: Trial = { ...world, clients: CLIENTS }
  const studio = openTrial(trial)
  const twelve = everReal(looksAt(studio, ['sum']))
  const long = everReal(looksAt(openTrial({ ...trial, looks: 24 }, ['sum']), ['sum']))
  const old = shareOf(oldRuleFirst(studio, 1.96), (one) => one !== null)
  const cause = toldACause(studio, [3, 7, 11])
  row(
    world.name,
    percent(twelve),
    within(twelve),
    percent(long),
    percent(anyJaws(studio)),
    percent(cause),
    percent(old),
  )
}
{
  const looks = looksAt(openTrial({ ...HALF_CHANGES, clients: CLIENTS }, ['sum']), ['sum'])
  row(HALF_CHANGES.name ?? '', percent(everReal(looks.filter((_, c) => c % 2 === 1))))
}
{
  // Studios of eight, as many as make up the number.
  const studios = Array.from({ length: Math.ceil(CLIENTS / 8) }, (_, i) =>
    everReal(looksAt(openTrial({ clients: 8, looks: 24, seed: 100 + i }, ['sum']), ['sum'])),
  )
  row('studios of eight, 24 looks', percent(studios.reduce((sum, one) => sum + one, 0) / studios.length))
}
{
  const drifting = looksAt(openTrial({ ...COMMON_DRIFT, clients: CLIENTS, looks: 24 }, ['sum']), ['sum'])
  row(`${COMMON_DRIFT.name}: cannot be repaired`, percent(everReal(drifting)))
}

console.log(
  '\nTold, of clients who lose 0.2 kg fat a week: median check-in (the old rule at the same ever-false rate beside)',
)
for (const losing of LOSING) {
  const trial: Trial = { ...losing, clients: CLIENTS }
  const studio = openTrial(trial, ['sum'])
  const looks = looksAt(studio, ['sum'])
  const calm = openTrial({ ...trial, client: () => ({}), seed: 8 }, ['sum'])
  const falseRate = Math.max(everReal(looksAt(calm, ['sum'])), 1 / CLIENTS)
  let z = 1.5
  while (shareOf(oldRuleFirst(calm, z), (one) => one !== null) > falseRate) z += 0.1
  const lost = (_: number, visit: number) => 1 - STEADY_LOSS * (losing.weeksApart ?? 1) * visit
  const starts = startsOf(studio, lost)
  const truth = (c: number, look: number) => (starts[c] ?? NaN) * (lost(c, look) - 1)
  const old = oldRuleFirst(studio, z)
  row(
    losing.name ?? '',
    median(firstReal(looks)),
    `told ${percent(everReal(looks))}`,
    `interval holds ${percent(coverage(looks, truth))}`,
    `old rule at z ${z.toFixed(1)}: ${median(old)}`,
  )
}
{
  const stepped = (client: number) => client % HAPPENS_EVERY === 0
  const studio = only(openTrial({ ...STEP, clients: CLIENTS }, ['sum']), stepped)
  row(STEP.name ?? '', 'found from a searched start', percent(anyJaws(studio)))
  const back = looksAt(only(openTrial({ ...DOWN_AND_BACK, clients: CLIENTS }, ['sum']), stepped), ['sum'])
  const last = back.map((own) => own.at(-1)?.sum?.verdict)
  row(
    DOWN_AND_BACK.name ?? '',
    'real at the end',
    percent(shareOf(last, (one) => one === 'real')),
    'came back',
    percent(shareOf(last, (one) => one === 'came-back')),
  )
}

console.log(
  `\nThe 95 % interval where one of eight of ${4 * CLIENTS} clients changes as the courses hold likely, the others not`,
)
row('world and cadence', 'holds the change', 'of the others none', "as wide as two ends' difference")
const CADENCES = { weekly: [1, 16], fortnightly: [2, 13], 'four-weekly': [4, 12] } as const
for (const world of UNCHANGED)
  for (const [name, [weeksApart, looks]] of Object.entries(CADENCES)) {
    // The cadences are told apart where the error is as assumed; the other worlds are seen weekly, where they are hardest.
    if (name !== 'weekly' && world !== UNCHANGED[0]) continue
    const { changing, unchanged, width } = drawnIntervals(4 * CLIENTS, { weeksApart, looks }, world)
    row(`${world.name}, ${name}`, percent(changing), '       ', percent(unchanged), '         ', width.toFixed(2))
  }
