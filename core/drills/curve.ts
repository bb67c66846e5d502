/** Where somebody stands after a round: the smoothed score with its 95 % band. */
export interface CurvePoint {
  level: number
  low: number
  high: number
}

/** How much of a round's scatter a skill moves from one round to the next (our choice: a third of its deviation). */
const DRIFT = 0.1

/**
 * A learning curve: rounds as a level that drifts, seen with scatter (local level, smoothed forward and back). The scatter
 * is taken from neighbouring rounds. Bands speak about the level, not about single rounds.
 * @param scores oldest first
 * @returns one point a round; without a band under three rounds
 */
export function learningCurve(scores: readonly number[]): CurvePoint[] {
  const count = scores.length
  if (count < 3) return scores.map((score) => ({ level: score, low: score, high: score }))
  // Neighbours differ by twice the scatter and one step of drift.
  const squares = scores.slice(1).reduce((sum, score, i) => sum + (score - (scores[i] as number)) ** 2, 0)
  const scatter = Math.max(squares / (count - 1) / (2 + DRIFT), 1e-12)
  const step = DRIFT * scatter
  const means: number[] = []
  const variances: number[] = []
  let [mean, variance] = [scores[0] as number, scatter]
  scores.forEach((score, i) => {
    if (i > 0) {
      const before = variance + step
      const gain = before / (before + scatter)
      mean += gain * (score - mean)
      variance = before * (1 - gain)
    }
    means.push(mean)
    variances.push(variance)
  })
  const smooth: CurvePoint[] = []
  let [later, laterVariance] = [mean, variance]
  for (let i = count - 1; i >= 0; i -= 1) {
    if (i < count - 1) {
      const own = variances[i] as number
      const back = own / (own + step)
      later = (means[i] as number) + back * (later - (means[i] as number))
      laterVariance = own + back ** 2 * (laterVariance - own - step)
    }
    const half = 1.96 * Math.sqrt(laterVariance)
    smooth.unshift({ level: later, low: Math.max(0, later - half), high: later + half })
  }
  return smooth
}
