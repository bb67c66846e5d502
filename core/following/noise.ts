import { logGamma } from '../trend/student'

/**
 * How the visits' errors of one figure hang together: a white part and a part that decays from visit to visit.
 * Correlation of two visits: (1 - white) rho^weeks.
 */
export interface NoiseModel {
  /** Correlation of the lasting part over one week. */
  rho: number
  /** Share of the variance that is new at every visit. */
  white: number
}

/** The models held possible. */
export const NOISE_GRID: readonly NoiseModel[] = [
  { rho: 0, white: 1 },
  ...[0.3, 0.6, 0.8].flatMap((rho) => [0.2, 0.5].map((white) => ({ rho, white }))),
]

/** One model with what is held of it: its weight, and its scale as inverse gamma (a, b) in units of the assumed variance. */
export interface HeldNoise extends NoiseModel {
  weight: number
  a: number
  b: number
}

/** What is held of a figure's noise: a mixture over the grid, and what it was learnt from. */
export interface Noise {
  models: readonly HeldNoise[]
  learntFrom: { clients: number; visits: number; freedom: number }
}

/** Weight of the assumed scale, in degrees of freedom. */
const PRIOR_FREEDOM = 8
/** What is learnt adds at most this to it, because people differ. */
const MOST_FREEDOM = 16
/**
 * And at most this many degrees of freedom speak about the correlation. With 60 a studio whose noise does not last goes on
 * being judged as if it might, which costs a steady loss a check-in; with 300 more than one in twenty of those clients are
 * told real whose own noise lasts while their studio's does not (docs/decisions.md).
 */
const MOST_FOR_WEIGHTS = 200

/** Nothing learnt: every model alike, the scale the assumed one. */
export const ASSUMED_NOISE: Noise = {
  models: NOISE_GRID.map((model) => ({
    ...model,
    weight: 1 / NOISE_GRID.length,
    a: PRIOR_FREEDOM / 2,
    b: PRIOR_FREEDOM / 2,
  })),
  learntFrom: { clients: 0, visits: 0, freedom: 0 },
}

/** One figure of one client over time. */
export interface FigureHistory {
  /** Weeks from any zero, rising. */
  weeks: readonly number[]
  values: readonly number[]
  /** Assumed variance of each value, unit squared. */
  variances: readonly number[]
}

/** What one client's history says about the noise, after each visit: residuals about a smooth course of their own. */
export interface Evidence {
  /** Weeks of the visits. */
  weeks: readonly number[]
  /** By number of visits (0 first): degrees of freedom, and for each model of the grid the squares and the log determinant. */
  steps: readonly { freedom: number; squares: readonly number[]; logs: readonly number[] }[]
  /** Of a study, not of a client who is followed: not counted among them. */
  ofStudy?: true
}

/** A client's own course is a line, from this many visits on a quadratic. */
const QUADRATIC_FROM = 10
const NO_STEP: Evidence['steps'][number] = {
  freedom: 0,
  squares: NOISE_GRID.map(() => 0),
  logs: NOISE_GRID.map(() => 0),
}

/** Determinant and solution of a symmetric positive system of two or three unknowns. */
function solve(s: readonly number[][], right: readonly number[], size: number): { logDet: number; dot: number } {
  // Cholesky: dot = right' S^-1 right.
  const lower = [0, 1, 2].map(() => [0, 0, 0])
  const forward = [0, 0, 0]
  let [logDet, dot] = [0, 0]
  for (let i = 0; i < size; i += 1) {
    const row = lower[i] as number[]
    for (let j = 0; j <= i; j += 1) {
      const other = lower[j] as number[]
      let sum = s[i]?.[j] ?? 0
      for (let k = 0; k < j; k += 1) sum -= (row[k] as number) * (other[k] as number)
      row[j] = i === j ? Math.sqrt(Math.max(sum, 1e-300)) : sum / (other[j] as number)
    }
    let y = right[i] ?? 0
    for (let k = 0; k < i; k += 1) y -= (row[k] as number) * (forward[k] as number)
    forward[i] = y / (row[i] as number)
    logDet += 2 * Math.log(row[i] as number)
    dot += (forward[i] as number) ** 2
  }
  return { logDet, dot }
}

/** Innovations of a value and of the course's regressors under one model, summed up visit by visit. */
function residuals({ weeks, values, variances }: FigureHistory, { rho, white }: NoiseModel) {
  const steps: { freedom: number; squares: number; log: number }[] = []
  const s = [0, 1, 2].map(() => [0, 0, 0])
  const right = [0, 0, 0]
  const lasting = 1 - white
  const means = [0, 0, 0, 0]
  let [spread, squares, logs] = [1, 0, 0]
  const start = weeks[0] ?? 0
  weeks.forEach((week, i) => {
    const carried = i === 0 ? 0 : rho ** (week - (weeks[i - 1] ?? week))
    spread = carried ** 2 * spread + (1 - carried ** 2)
    const scale = 1 / Math.sqrt(variances[i] ?? 1)
    const t = (week - start) / 10
    const seen = [values[i] ?? 0, 1, t, t * t].map((value) => value * scale)
    const total = lasting * spread + white
    const root = Math.sqrt(lasting)
    const gain = (root * spread) / total
    const innovations = seen.map((value, k) => {
      const before = carried * (means[k] as number)
      const innovation = value - root * before
      means[k] = before + gain * innovation
      return innovation
    })
    spread -= gain * root * spread
    const [e = 0, ...x] = innovations
    squares += e ** 2 / total
    // The values' own scale is the same under every model.
    logs += Math.log(total)
    x.forEach((a, j) => {
      right[j] = (right[j] as number) + (a * e) / total
      x.forEach((b, k) => ((s[j] as number[])[k] = (s[j]?.[k] ?? 0) + (a * b) / total))
    })
    const count = i + 1
    const size = count < QUADRATIC_FROM ? 2 : 3
    if (count <= size) return void steps.push({ freedom: 0, squares: 0, log: 0 })
    const { logDet, dot } = solve(s, right, size)
    steps.push({ freedom: count - size, squares: Math.max(0, squares - dot), log: -0.5 * (logs + logDet) })
  })
  return steps
}

/** What a client's history says about the noise (restricted likelihood about a course of their own), after each visit. */
export function evidenceOf(history: FigureHistory): Evidence {
  const byModel = NOISE_GRID.map((model) => residuals(history, model))
  return {
    weeks: history.weeks,
    steps: history.weeks.map((_, i) => ({
      freedom: byModel[0]?.[i]?.freedom ?? 0,
      squares: byModel.map((steps) => steps[i]?.squares ?? 0),
      logs: byModel.map((steps) => steps[i]?.log ?? 0),
    })),
  }
}

/** Evidence pooled: squares and log determinants by model, degrees of freedom, and what they stand on. */
interface Sums {
  freedom: number
  clients: number
  visits: number
  squares: Float64Array
  logs: Float64Array
}

function noSums(): Sums {
  const none = () => new Float64Array(NOISE_GRID.length)
  return { freedom: 0, clients: 0, visits: 0, squares: none(), logs: none() }
}

/** Adds what a history says after a visit, less what it said before it. */
function addStep(sums: Sums, { steps, ofStudy }: Evidence, place: number, times = 1, before = NO_STEP): void {
  const step = steps[place] ?? NO_STEP
  if (step.freedom === 0) return
  sums.freedom += times * (step.freedom - before.freedom)
  if (!ofStudy) {
    sums.clients += before.freedom === 0 ? times : 0
    sums.visits += times * (before.freedom === 0 ? place + 1 : 1)
  }
  for (let m = 0; m < NOISE_GRID.length; m += 1) {
    sums.squares[m] =
      (sums.squares[m] as number) + times * ((step.squares[m] as number) - (before.squares[m] as number))
    sums.logs[m] = (sums.logs[m] as number) + times * ((step.logs[m] as number) - (before.logs[m] as number))
  }
}

/** Adds (or takes off) what histories say up to a week. */
function addUntil(sums: Sums, evidence: readonly Evidence[], until: number, times = 1): Sums {
  for (const one of evidence) {
    let count = one.weeks.length
    while (count > 0 && (one.weeks[count - 1] as number) > until) count -= 1
    if (count > 0) addStep(sums, one, count - 1, times)
  }
  return sums
}

function noiseFrom({ freedom, clients, visits, squares, logs }: Sums): Noise {
  if (!(freedom > 0)) return ASSUMED_NOISE
  const half = PRIOR_FREEDOM / 2
  const told = Math.min(1, MOST_FOR_WEIGHTS / freedom)
  const df = (told * freedom) / 2
  const gamma = logGamma(half + df)
  const said = NOISE_GRID.map((_, m) => {
    const q = (told * (squares[m] as number)) / 2
    // The scale integrated out over its prior.
    return told * (logs[m] as number) + gamma - (half + df) * Math.log(half + q)
  })
  const top = Math.max(...said)
  const weights = said.map((one) => Math.exp(one - top))
  const total = weights.reduce((sum, one) => sum + one, 0)
  const kept = Math.min(1, MOST_FREEDOM / freedom)
  return {
    models: NOISE_GRID.map((model, m) => ({
      ...model,
      weight: (weights[m] as number) / total,
      a: half + (kept * freedom) / 2,
      b: half + (kept * (squares[m] as number)) / 2,
    })),
    learntFrom: { clients, visits, freedom },
  }
}

/**
 * The noise of a figure learnt from other clients' histories, up to a time.
 * @param others evidence of every client but the one judged
 * @param until weeks, on the same zero; without it everything counts
 */
export function learnNoise(others: readonly Evidence[], until = Infinity): Noise {
  return noiseFrom(addUntil(noSums(), others, until))
}

/** Everybody's evidence about a figure, pooled once: what others say up to a time is the whole less one's own. */
export class EvidencePool {
  private readonly weeks: number[] = []
  private readonly sums: Sums[] = []

  constructor(all: readonly Evidence[]) {
    const steps = all.flatMap((one) => one.weeks.map((week, place) => ({ one, week, place })))
    steps.sort((a, b) => a.week - b.week || a.place - b.place)
    let sums = noSums()
    for (const { one, week, place } of steps) {
      if (this.weeks.at(-1) !== week) {
        sums = { ...sums, squares: sums.squares.slice(), logs: sums.logs.slice() }
        this.weeks.push(week)
        this.sums.push(sums)
      }
      addStep(sums, one, place, 1, one.steps[place - 1])
    }
  }

  /**
   * As `learnNoise` of all others.
   * @param more what speaks beside them, studies of the assessor
   */
  noiseWithout(own: readonly Evidence[], until = Infinity, more: readonly Evidence[] = []): Noise {
    let [low, high] = [0, this.weeks.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if ((this.weeks[middle] as number) <= until) low = middle + 1
      else high = middle
    }
    const pooled = this.sums[low - 1] ?? (more.length > 0 ? noSums() : null)
    if (!pooled) return ASSUMED_NOISE
    const rest = { ...pooled, squares: pooled.squares.slice(), logs: pooled.logs.slice() }
    return noiseFrom(addUntil(addUntil(rest, own, until, -1), more, until))
  }
}
