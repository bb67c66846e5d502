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

/** The smallest square a root is taken of: regressors that do not differ. */
const TINY = 1e-300

/** What is left over of a history about its course after each visit: squares, and the log of the restricted likelihood. */
interface LeftOver {
  squares: Float64Array
  logs: Float64Array
}

/** Regressors of the course after so many visits: level and slope, later a bend. */
function courseSize(visits: number): 2 | 3 {
  return visits < QUADRATIC_FROM ? 2 : 3
}

/**
 * Innovations of a value and of the course's regressors (1, t, t^2) under one model, summed up visit by visit; the course
 * is taken off by the triangular root of the regressors' squares. Written out, because a studio's histories ask for it
 * tens of thousands of times.
 */
function leftOver({ weeks, values, variances }: FigureHistory, { rho, white }: NoiseModel): LeftOver {
  const count = weeks.length
  const found = { squares: new Float64Array(count), logs: new Float64Array(count) }
  const lasting = 1 - white
  const root = Math.sqrt(lasting)
  const start = weeks[0] ?? 0
  // The lasting part as each column has it: of the values, of 1, of t and of t^2.
  let [ofValue, ofOne, ofT, ofSquare] = [0, 0, 0, 0]
  let [spread, squares, logs] = [1, 0, 0]
  // The regressors' squares and products, and their products with the values.
  let [s11, s12, s13, s22, s23, s33] = [0, 0, 0, 0, 0, 0]
  let [r1, r2, r3] = [0, 0, 0]
  for (let i = 0; i < count; i += 1) {
    const week = weeks[i] as number
    const carried = i === 0 ? 0 : rho ** (week - (weeks[i - 1] as number))
    spread = carried * carried * spread + (1 - carried * carried)
    const scale = 1 / Math.sqrt(variances[i] ?? 1)
    const t = (week - start) / 10
    const total = lasting * spread + white
    const gain = (root * spread) / total
    ofValue *= carried
    ofOne *= carried
    ofT *= carried
    ofSquare *= carried
    const e = (values[i] ?? 0) * scale - root * ofValue
    const x1 = scale - root * ofOne
    const x2 = t * scale - root * ofT
    const x3 = t * t * scale - root * ofSquare
    ofValue += gain * e
    ofOne += gain * x1
    ofT += gain * x2
    ofSquare += gain * x3
    spread -= gain * root * spread
    squares += (e * e) / total
    // The values' own scale is the same under every model.
    logs += Math.log(total)
    r1 += (x1 * e) / total
    r2 += (x2 * e) / total
    r3 += (x3 * e) / total
    s11 += (x1 * x1) / total
    s12 += (x1 * x2) / total
    s13 += (x1 * x3) / total
    s22 += (x2 * x2) / total
    s23 += (x2 * x3) / total
    s33 += (x3 * x3) / total
    const size = courseSize(i + 1)
    if (i + 1 <= size) continue
    const l11 = Math.sqrt(Math.max(s11, TINY))
    const l21 = s12 / l11
    const l22 = Math.sqrt(Math.max(s22 - l21 * l21, TINY))
    const y1 = r1 / l11
    const y2 = (r2 - l21 * y1) / l22
    let dot = y1 * y1 + y2 * y2
    let logDet = 2 * (Math.log(l11) + Math.log(l22))
    if (size === 3) {
      const l31 = s13 / l11
      const l32 = (s23 - l31 * l21) / l22
      const l33 = Math.sqrt(Math.max(s33 - l31 * l31 - l32 * l32, TINY))
      const y3 = (r3 - l31 * y1 - l32 * y2) / l33
      dot += y3 * y3
      logDet += 2 * Math.log(l33)
    }
    found.squares[i] = Math.max(0, squares - dot)
    found.logs[i] = -0.5 * (logs + logDet)
  }
  return found
}

/** What a client's history says about the noise (restricted likelihood about a course of their own), after each visit. */
export function evidenceOf(history: FigureHistory): Evidence {
  const byModel = NOISE_GRID.map((model) => leftOver(history, model))
  return {
    weeks: history.weeks,
    steps: history.weeks.map((_, i) => ({
      freedom: Math.max(0, i + 1 - courseSize(i + 1)),
      squares: byModel.map(({ squares }) => squares[i] as number),
      logs: byModel.map(({ logs }) => logs[i] as number),
    })),
  }
}
