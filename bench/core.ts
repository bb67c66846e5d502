import { answers, knownColumns, rowReader } from '../cli/rows'
import { composeCheckin, type CheckinFacts } from '../core/composition'
import { compute, EQUATIONS, findEquation, type Measures } from '../core/equations'
import { assessorErrors, simulatePercent, type RepeatedSite } from '../core/error'
import { ASSUMED_NOISE } from '../core/following/studio-grid'
import { oddsOf } from '../core/following/odds'
import { PROTOCOLS } from '../core/protocols'
import { seededRandom, simulateFolds } from '../core/simulate'

const SEED = 20261124

/** Milliseconds of each run, sorted. */
function times(runs: number, run: () => void): number[] {
  for (let i = 0; i < Math.min(runs, 50); i += 1) run()
  return Array.from({ length: runs }, () => {
    const from = performance.now()
    run()
    return performance.now() - from
  }).sort((a, b) => a - b)
}

function say(name: string, sorted: number[], target: string): void {
  const at = (share: number) => (sorted[Math.floor(share * (sorted.length - 1))] ?? NaN).toFixed(3)
  console.log(`${name.padEnd(30)} p50 ${at(0.5)} ms, p95 ${at(0.95)} ms (target ${target})`)
}

/** A check-in with folds and tape, so that every equation has work to do. */
function fullCheckin(): CheckinFacts {
  const protocol = PROTOCOLS['laboratory-7']
  const girths = PROTOCOLS['full-tape'].sites
  const startedAt = new Date('2026-11-20T17:00:00Z')
  const trueFolds = Object.fromEntries(protocol.sites.map((site) => [site, 14]))
  const random = seededRandom(SEED)
  const folds = simulateFolds(random, { protocol, trueFolds, technicalError: 0.04, startedAt })
  const fact = { round: 1, takenAt: startedAt.toISOString(), source: 'simulated' as const }
  return {
    person: { sex: 'male', birthDate: '1990-05-05', heightCm: 180 },
    protocol: { ...protocol, sites: [...protocol.sites, ...girths] },
    startedAt: startedAt.toISOString(),
    readings: [
      { ...fact, id: random.uuid(), site: 'weight', value: 82, unit: 'kg' },
      ...folds,
      ...girths.flatMap((site) =>
        [1, 2].map((round) => ({ ...fact, id: random.uuid(), site, round, value: 60, unit: 'cm' as const })),
      ),
    ],
    strikes: [],
  }
}

function benchComposition(): void {
  const facts = fullCheckin()
  say(
    `a check-in, ${EQUATIONS.length} equations`,
    times(2000, () => composeCheckin(facts)),
    '0.5 ms',
  )
}

function benchEstimator(): void {
  const columns = ['id', 'sex', 'age_years', 'height_cm', 'weight_kg', ...knownColumns()]
  const reader = rowReader(columns)
  const random = seededRandom(SEED)
  const people = Array.from({ length: 2000 }, (_, i) => [
    String(i),
    i % 2 ? 'male' : 'female',
    '34',
    '174',
    '74',
    ...columns
      .slice(5)
      .map((name) => String(name.startsWith('fold') ? 8 + 10 * random.next() : 40 + 60 * random.next())),
  ])
  const [from, heap] = [performance.now(), process.memoryUsage().heapUsed]
  let [count, rows, peak] = [0, 0, 0]
  while (count < 20_000) {
    for (const person of people) rows += answers(reader, person, count).split('\n').length - 1
    count += people.length
    peak = Math.max(peak, process.memoryUsage().heapUsed - heap)
  }
  const seconds = (performance.now() - from) / 1000
  const rate = (count / seconds).toFixed(0)
  console.log(
    `${'estimator'.padEnd(30)} ${rate} people/s, ${(rows / count).toFixed(1)} equations each (target 5000), heap grew by at most ${(peak / 2 ** 20).toFixed(0)} MB`,
  )
}

function benchRegistry(): void {
  const equation = findEquation('jackson-pollock-7-men')
  if (!equation) throw new Error('missing')
  const settings = { person: { sex: 'male' as const }, conversion: 'siri' }
  const LOOPS = 200_000
  const measures = Object.fromEntries(equation.inputs.map((input) => [input, 14])) as Measures
  let sink = 0
  const registry = times(30, () => {
    for (let i = 0; i < LOOPS; i += 1) {
      measures.chest = 10 + (i & 7)
      const result = compute(equation, measures, settings)
      if ('percent' in result) sink += result.percent
    }
  })
  const inlined = times(30, () => {
    for (let i = 0; i < LOOPS; i += 1) {
      measures.chest = 10 + (i & 7)
      const { chest, midaxillary, triceps, subscapular, abdominal, suprailiac, thigh, age } = measures
      const sum = chest + midaxillary + triceps + subscapular + abdominal + suprailiac + thigh
      const density = 1.112 - 0.00043499 * sum + 0.00000055 * sum * sum - 0.00028826 * age
      sink += 495 / density - 450
    }
  })
  const [a, b] = [registry[15] ?? NaN, inlined[15] ?? NaN]
  const bare = times(30, () => {
    for (let i = 0; i < LOOPS; i += 1) {
      measures.chest = 10 + (i & 7)
      sink += 495 / equation.formula(measures, 'male', { blackAthleteTerm: false }) - 450
    }
  })
  console.log(
    `${'one equation, registry/inlined'.padEnd(30)} formula ${((bare[15] ?? NaN) / b).toFixed(2)}x (target 3x), with every check ${(a / b).toFixed(2)}x; ${((a / LOOPS) * 1e6).toFixed(0)} ns a call${sink === 0 ? '!' : ''}`,
  )
}

function benchMonteCarlo(): void {
  const equation = findEquation('jackson-pollock-7-women')
  if (!equation) throw new Error('missing')
  const measures = Object.fromEntries(equation.inputs.map((input) => [input, input === 'age' ? 34 : 14])) as Measures
  const variances = Object.fromEntries(equation.summed.map((site) => [site, 0.5]))
  const settings = { person: { sex: 'female' as const }, conversion: 'siri' }
  const run = () => simulatePercent(equation, measures, variances, settings, { draws: 100_000, seed: SEED })
  for (let i = 0; i < 5; i += 1) run()
  say('100,000 draws, seven sites', times(20, run), '60 ms')
}

function benchTem(): void {
  const random = seededRandom(SEED)
  const sites = PROTOCOLS['laboratory-7'].sites
  const visits: RepeatedSite[] = Array.from({ length: 50_000 }, (_, i) => ({
    site: sites[i % sites.length] ?? 'chest',
    assessorId: i % 3 ? 'runa' : 'ivo',
    at: '2026-11-01T00:00:00.000Z',
    values: [10 + random.normal(), 10 + random.normal()],
  }))
  say(
    'TEM over 100,000 readings',
    times(20, () => assessorErrors(visits, '2026-11-20T00:00:00.000Z')),
    '50 ms',
  )
}

/** A jaw that moves asks for the odds of everything: five figures after every visit, nine sites at the last. */
function benchOdds(): void {
  const random = seededRandom(SEED)
  const weeks = Array.from({ length: 200 }, (_, i) => i)
  const all = Array.from({ length: 14 }, () => ({
    weeks,
    values: weeks.map((week) => 100 - 0.05 * week + 5 * random.normal()),
    variances: weeks.map(() => 25),
  }))
  const run = () =>
    all.forEach((series, i) => oddsOf(series, ASSUMED_NOISE, i < 5 ? { running: () => ASSUMED_NOISE } : {}))
  say('odds, 200 check-ins, 14 figures', times(40, run), '20 ms')
}

benchComposition()
benchOdds()
benchEstimator()
benchRegistry()
benchMonteCarlo()
benchTem()
