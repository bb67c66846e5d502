import type { Random } from '../simulate'
import type { Runner } from './standing'
import { chiSquareOf } from './student'

/** Spreads of true changes looked at, percentage points. */
const GRID = Array.from({ length: 48 }, (_, i) => 0.25 + i * 0.4)
/**
 * How far people's true changes lie apart before anything is seen: half a normal with this standard deviation, percentage
 * points (our choice: challenges of weeks have spreads of one to ten).
 */
const PRIOR_SPREAD = 6

interface Counted {
  change: number
  variance: number
  freedom: number
}

/** Variance of Student's t over its scale, so that a few degrees of freedom count as what they are. */
const inflation = (freedom: number) =>
  Number.isFinite(freedom) ? Math.max(freedom, 3) / (Math.max(freedom, 3) - 2) : 1

/** How likely each spread of the grid is for these changes, their common mean left open; sums to one, cumulative. */
function spreadsOf(all: readonly Counted[]): { cumulative: number[]; mean: number[]; meanSd: number[] } {
  const at = GRID.map((spread) => {
    let [weights, weighted, logs] = [0, 0, 0]
    for (const { change, variance, freedom } of all) {
      const total = spread ** 2 + variance * inflation(freedom)
      weights += 1 / total
      weighted += change / total
      logs += Math.log(total)
    }
    const mean = weighted / weights
    const squares = all.reduce(
      (sum, { change, variance, freedom }) =>
        sum + (change - mean) ** 2 / (spread ** 2 + variance * inflation(freedom)),
      0,
    )
    const log = -0.5 * (logs + Math.log(weights) + squares + (spread / PRIOR_SPREAD) ** 2)
    return { log, mean, meanSd: Math.sqrt(1 / weights) }
  })
  const most = Math.max(...at.map(({ log }) => log))
  const likely = at.map(({ log }) => Math.exp(log - most))
  const whole = likely.reduce((sum, one) => sum + one, 0)
  let sum = 0
  const cumulative = likely.map((one) => (sum += one / whole))
  return { cumulative, mean: at.map(({ mean }) => mean), meanSd: at.map(({ meanSd }) => meanSd) }
}

/**
 * Each one's chance of having lost most. Changes are drawn towards the mean of the field as far as error and the spread of
 * the field, estimated with them, say: of many measured with error the best measured is seldom the best. A draw in which
 * nobody lost has no first.
 * @returns chances in the order given; they sum to one at most
 */
export function chancesOfFirst(runners: readonly Runner[], random: Random, draws: number): number[] {
  const all = runners.map(({ counted, change, sd, freedom }) => ({
    change: counted * change,
    variance: (counted * sd) ** 2,
    freedom,
  }))
  const wins = all.map(() => 0)
  if (all.length === 0) return wins
  const { cumulative, mean, meanSd } = spreadsOf(all)
  for (let k = 0; k < draws; k += 1) {
    const ticket = random.next()
    const i = Math.max(
      0,
      cumulative.findIndex((one) => one >= ticket),
    )
    const spread = (GRID[i] ?? 0) ** 2
    const centre = (mean[i] ?? 0) + (meanSd[i] ?? 0) * random.normal()
    let [best, who] = [0, -1]
    all.forEach(({ change, variance, freedom }, j) => {
      const own = Number.isFinite(freedom) ? (variance * freedom) / chiSquareOf(random, freedom) : variance
      const share = spread / (spread + own)
      const value = share * change + (1 - share) * centre + Math.sqrt(share * own) * random.normal()
      if (value < best) [best, who] = [value, j]
    })
    if (who >= 0) wins[who] = (wins[who] ?? 0) + 1
  }
  return wins.map((one) => one / draws)
}
