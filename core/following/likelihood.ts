import { logGamma } from '../trend/student'
import { exp, log } from './fast'
import { FREEDOMS, NOISE_TYPES, SCALES, type Noise } from './noise'

/*
 * A client's variance is a scaled inverse chi-square, so that the likelihood of contrasts is a multivariate t. Written out,
 * because thousands of histories ask for it.
 */

/** log(gamma((nu + f) / 2) / gamma(nu / 2)) - f / 2 log(nu / 2) by degrees of freedom and f. */
const known: Float64Array[] = FREEDOMS.map(() => new Float64Array(0))
function constants(freedom: number, contrasts: number): Float64Array {
  const have = known[freedom] as Float64Array
  if (have.length > contrasts) return have
  const nu = FREEDOMS[freedom] as number
  const base = logGamma(nu / 2)
  const made = Float64Array.from(
    { length: Math.max(64, 2 * contrasts) },
    (_, f) => logGamma((nu + f) / 2) - base - (f / 2) * Math.log(nu / 2),
  )
  known[freedom] = made
  return made
}

/** Scales by degrees of freedom, freedom the faster: what every cell of a type shares. */
export const PAIRS = SCALES.length * FREEDOMS.length
const HALF_LOG_SCALES = SCALES.map((scale) => Math.log(scale) / 2)
const PER_PAIR = Float64Array.from(
  { length: PAIRS },
  (_, pair) =>
    1 / ((FREEDOMS[pair % FREEDOMS.length] as number) * (SCALES[Math.floor(pair / FREEDOMS.length)] as number)),
)

/** What does not hang on the squares, and what the logarithm of 1 + squares / (nu S) is multiplied by: after so many contrasts. */
interface PairTerms {
  fixed: Float64Array
  times: Float64Array
}
const knownTerms: PairTerms[] = []

function pairTerms(contrasts: number): PairTerms {
  const before = knownTerms[contrasts]
  if (before) return before
  const freedomOf = (pair: number) => pair % FREEDOMS.length
  const made = {
    fixed: Float64Array.from(
      { length: PAIRS },
      (_, pair) =>
        (constants(freedomOf(pair), contrasts)[contrasts] as number) -
        contrasts * (HALF_LOG_SCALES[Math.floor(pair / FREEDOMS.length)] as number),
    ),
    times: Float64Array.from({ length: PAIRS }, (_, pair) => ((FREEDOMS[freedomOf(pair)] as number) + contrasts) / 2),
  }
  knownTerms[contrasts] = made
  return made
}

/**
 * Log likelihoods of contrasts under every pair of scale and degrees of freedom, but for half the log determinant of their
 * covariance (and for contrasts / 2 log(2 pi)).
 * @param contrasts how many
 * @param squares their quadratic form
 * @param into one by pair
 */
export function pairLogs(contrasts: number, squares: number, into: Float64Array): void {
  const { fixed, times } = pairTerms(contrasts)
  for (let pair = 0; pair < PAIRS; pair += 1)
    into[pair] = (fixed[pair] as number) - (times[pair] as number) * log(1 + squares * (PER_PAIR[pair] as number))
}

/** No cell's likelihood is over this, whatever its scale: the normal one at the likeliest scale. */
export function mostLog(contrasts: number, squares: number): number {
  return contrasts === 0 ? 0 : -(contrasts / 2) * (Math.log(Math.max(squares, 1e-300) / contrasts) + 1)
}

/** The cells of one type that count. */
export interface OfType {
  logs: Float64Array
  pairs: Uint8Array
  /** Log of their weights' sum; -Infinity: the type does not count. */
  total: number
}

const prepared = new WeakMap<Noise, OfType[]>()

/** The cells of a noise by type. */
export function cellsByType(noise: Noise): readonly OfType[] {
  const before = prepared.get(noise)
  if (before) return before
  const rows = NOISE_TYPES.map(() => ({ logs: [] as number[], pairs: [] as number[], sum: 0 }))
  for (let k = 0; k < noise.cells.length; k += 1) {
    const cell = noise.cells[k] as number
    const weight = noise.weights[k] as number
    const row = rows[Math.floor(cell / PAIRS)]
    row?.logs.push(Math.log(weight))
    row?.pairs.push(cell % PAIRS)
    if (row) row.sum += weight
  }
  const made = rows.map(({ logs, pairs, sum }) => ({
    logs: Float64Array.from(logs),
    pairs: Uint8Array.from(pairs),
    total: Math.log(sum),
  }))
  prepared.set(noise, made)
  return made
}

/** Terms so far beneath the largest add nothing. */
const NOTHING = 20

/** Log of the likelihood of contrasts under one type, over the scales held, but for half the log determinant. */
export function typeLog({ logs, pairs }: OfType, contrasts: number, squares: number): number {
  const { fixed, times } = pairTerms(contrasts)
  let top = -Infinity
  let sum = 0
  for (let k = 0; k < logs.length; k += 1) {
    const pair = pairs[k] as number
    const one =
      (logs[k] as number) +
      (fixed[pair] as number) -
      (times[pair] as number) * log(1 + squares * (PER_PAIR[pair] as number))
    if (one <= top) {
      if (one > top - NOTHING) sum += exp(one - top)
    } else {
      sum = sum * exp(top - one) + 1
      top = one
    }
  }
  return top + Math.log(sum)
}

/**
 * What is held of a client's variance under one type once its contrasts are known: one Student t in place of the mixture of
 * them, by its mean scale and degrees of freedom.
 */
export function scaleAfter({ logs, pairs }: OfType, contrasts: number, squares: number) {
  const { fixed, times } = pairTerms(contrasts)
  let top = -Infinity
  let [total, scale, tails] = [0, 0, 0]
  for (let k = 0; k < logs.length; k += 1) {
    const pair = pairs[k] as number
    const one =
      (logs[k] as number) +
      (fixed[pair] as number) -
      (times[pair] as number) * log(1 + squares * (PER_PAIR[pair] as number))
    if (one < top - NOTHING) continue
    if (one > top) {
      const shrink = exp(top - one)
      total *= shrink
      scale *= shrink
      tails *= shrink
      top = one
    }
    const weight = exp(one - top)
    const freedom = 2 * (times[pair] as number)
    total += weight
    scale += (weight * (1 / (PER_PAIR[pair] as number) + squares)) / freedom
    tails += weight / freedom
  }
  return { scale: scale / total, freedom: total / tails }
}
