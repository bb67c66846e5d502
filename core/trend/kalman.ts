/** One observation: time in days, value in any unit. */
export interface Observation {
  day: number
  value: number
}

/** The model's two noises. */
export interface TrendModel {
  /** Standard deviation of one observation, in the value's unit. */
  observationSd: number
  /** How much the rate may change: standard deviation of its change over one day, unit per day. */
  rateSd: number
}

/** Level and rate at one time, with their variances. */
export interface TrendState {
  day: number
  level: number
  levelVariance: number
  /** Unit per day. */
  rate: number
  rateVariance: number
}

/** Mean (level, rate) and symmetric covariance. */
interface Gaussian {
  level: number
  rate: number
  ll: number
  lr: number
  rr: number
}

/**
 * The trend's movement over `dt` days: level' = level + dt rate, and white noise on the rate integrated over dt
 * (continuous Wiener velocity model).
 */
function predict(state: Gaussian, dt: number, rateVariance: number): Gaussian {
  const { level, rate, ll, lr, rr } = state
  return {
    level: level + dt * rate,
    rate,
    ll: ll + 2 * dt * lr + dt * dt * rr + (rateVariance * dt ** 3) / 3,
    lr: lr + dt * rr + (rateVariance * dt * dt) / 2,
    rr: rr + rateVariance * dt,
  }
}

function update(state: Gaussian, value: number, variance: number): Gaussian {
  const { level, rate, ll, lr, rr } = state
  const total = ll + variance
  const [gainLevel, gainRate] = [ll / total, lr / total]
  const surprise = value - level
  return {
    level: level + gainLevel * surprise,
    rate: rate + gainRate * surprise,
    ll: ll - gainLevel * ll,
    lr: lr - gainLevel * lr,
    rr: rr - gainRate * lr,
  }
}

/** One step back: what the later observations say about this time (Rauch, Tung & Striebel 1965). */
function smoothStep(filtered: Gaussian, predicted: Gaussian, smoothed: Gaussian, dt: number): Gaussian {
  const { ll, lr, rr } = filtered
  // Cross-covariance of now and next: P F', with F = [[1, dt], [0, 1]].
  const [a, b, c, d] = [ll + dt * lr, lr, lr + dt * rr, rr]
  const determinant = predicted.ll * predicted.rr - predicted.lr ** 2
  const [g11, g12] = [
    (a * predicted.rr - b * predicted.lr) / determinant,
    (b * predicted.ll - a * predicted.lr) / determinant,
  ]
  const [g21, g22] = [
    (c * predicted.rr - d * predicted.lr) / determinant,
    (d * predicted.ll - c * predicted.lr) / determinant,
  ]
  const [dLevel, dRate] = [smoothed.level - predicted.level, smoothed.rate - predicted.rate]
  const [e11, e12, e22] = [smoothed.ll - predicted.ll, smoothed.lr - predicted.lr, smoothed.rr - predicted.rr]
  return {
    level: filtered.level + g11 * dLevel + g12 * dRate,
    rate: filtered.rate + g21 * dLevel + g22 * dRate,
    ll: ll + g11 * (g11 * e11 + g12 * e12) + g12 * (g11 * e12 + g12 * e22),
    lr: lr + g11 * (g21 * e11 + g22 * e12) + g12 * (g21 * e12 + g22 * e22),
    rr: rr + g21 * (g21 * e11 + g22 * e12) + g22 * (g21 * e12 + g22 * e22),
  }
}

/** Starting uncertainty, wide against anything a body does: level in the value's unit, rate in unit per day. */
export const START = { levelSd: 1000, rateSd: 10 } as const

/**
 * Local linear trend through observations at any days (missing days allowed): Kalman filter forward, smoother backward.
 * Observations of one day are all used. Gives a state for each observation, oldest first.
 */
export function smoothTrend(observations: readonly Observation[], model: TrendModel): TrendState[] {
  const sorted = [...observations].sort((a, b) => a.day - b.day)
  const first = sorted[0]
  if (!first) return []
  const noise = model.observationSd ** 2
  const rateNoise = model.rateSd ** 2
  const start = { level: first.value, rate: 0, ll: START.levelSd ** 2, lr: 0, rr: START.rateSd ** 2 }
  const filtered: Gaussian[] = []
  const predicted: Gaussian[] = []
  sorted.forEach(({ day, value }, i) => {
    const dt = day - (sorted[i - 1]?.day ?? day)
    const before = predict(filtered[i - 1] ?? start, dt, rateNoise)
    predicted.push(before)
    filtered.push(update(before, value, noise))
  })
  const smoothed: Gaussian[] = [...filtered]
  for (let i = sorted.length - 2; i >= 0; i -= 1) {
    const [now, next, later] = [filtered[i], predicted[i + 1], smoothed[i + 1]]
    const dt = (sorted[i + 1]?.day ?? 0) - (sorted[i]?.day ?? 0)
    if (!now || !next || !later) continue
    smoothed[i] = dt === 0 ? later : smoothStep(now, next, later, dt)
  }
  return smoothed.map(({ level, rate, ll, rr }, i) => ({
    day: sorted[i]?.day ?? NaN,
    level,
    levelVariance: ll,
    rate,
    rateVariance: rr,
  }))
}

/** A body weight's usual noise and the change of its rate: 0.7 % a day (common practice), a tenth of a kilogram a week a week. */
export function weightModel(weightKg: number): TrendModel {
  return { observationSd: 0.007 * weightKg, rateSd: 0.1 / 7 / Math.sqrt(7) }
}
