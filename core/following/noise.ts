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
export const PRIOR_FREEDOM = 8

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
