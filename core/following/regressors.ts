/** Regressors whose coefficients are integrated out over normal priors with mean 0. */
export interface Taken {
  /** What they take off the squares. */
  dot: number
  /** Half of what they add to the log determinant. */
  halfLog: number
}

/** Room for the largest systems that come up. */
const MOST = 8
const lower = new Float64Array(MOST * MOST)
const solved = new Float64Array(MOST)

/**
 * Integrates coefficients out of a regression.
 * @param size how many
 * @param product of the j-th and k-th regressor, weighted
 * @param right product of the j-th regressor and the values, weighted
 * @param variance of the j-th coefficient beforehand, over 0
 */
export function takeOut(
  size: number,
  product: (j: number, k: number) => number,
  right: (j: number) => number,
  variance: (j: number) => number,
): Taken {
  let [dot, halfLog] = [0, 0]
  // Cholesky of products + 1 / variances; coefficients in units of their own sd, so that the determinant is theirs too.
  for (let j = 0; j < size; j += 1) {
    const own = Math.sqrt(variance(j))
    let value = right(j) * own
    for (let k = 0; k <= j; k += 1) {
      let sum = product(j, k) * own * Math.sqrt(variance(k)) + (j === k ? 1 : 0)
      for (let l = 0; l < k; l += 1) sum -= (lower[j * MOST + l] as number) * (lower[k * MOST + l] as number)
      if (k === j) {
        const pivot = Math.sqrt(Math.max(sum, 1e-300))
        lower[j * MOST + j] = pivot
        halfLog += Math.log(pivot)
        value /= pivot
      } else {
        const entry = sum / (lower[k * MOST + k] as number)
        lower[j * MOST + k] = entry
        value -= entry * (solved[k] as number)
      }
    }
    solved[j] = value
    dot += value * value
  }
  return { dot, halfLog }
}

/** Coefficients after the values are known, in the units asked: their means, and the covariance of any two. */
export interface Coefficients {
  means: Float64Array
  covariance: Float64Array
}

/** As `takeOut`: the coefficients themselves. */
export function coefficientsOf(
  size: number,
  product: (j: number, k: number) => number,
  right: (j: number) => number,
  variance: (j: number) => number,
): Coefficients {
  const means = new Float64Array(size)
  const covariance = new Float64Array(size * size)
  takeOut(size, product, right, variance)
  // Each column of the inverse by two triangular solutions.
  const column = new Float64Array(size)
  for (let c = 0; c < size; c += 1) {
    for (let j = 0; j < size; j += 1) {
      let value = j === c ? 1 : 0
      for (let k = 0; k < j; k += 1) value -= (lower[j * MOST + k] as number) * (column[k] as number)
      column[j] = value / (lower[j * MOST + j] as number)
    }
    for (let j = size - 1; j >= 0; j -= 1) {
      let value = column[j] as number
      for (let k = j + 1; k < size; k += 1) value -= (lower[k * MOST + j] as number) * (column[k] as number)
      column[j] = value / (lower[j * MOST + j] as number)
    }
    for (let j = 0; j < size; j += 1)
      covariance[j * size + c] = (column[j] as number) * Math.sqrt(variance(j) * variance(c))
  }
  for (let j = 0; j < size; j += 1)
    for (let k = 0; k < size; k += 1) means[j] = (means[j] as number) + (covariance[j * size + k] as number) * right(k)
  return { means, covariance }
}
