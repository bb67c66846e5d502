// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- jstat has no types of its own
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat'

const { jStat } = jstat

/** The value a chi-square variable stays under with probability p. */
export function chiSquareAt(p: number, freedom: number): number {
  return jStat.chisquare.inv(p, freedom)
}

/** The value a Student t variable stays under with probability p. */
export function studentAt(p: number, freedom: number): number {
  return jStat.studentt.inv(p, freedom)
}

/** The value an F variable stays under with probability p. Degrees of freedom need not be whole. */
export function fisherAt(p: number, above: number, below: number): number {
  return jStat.centralF.inv(p, above, below)
}

/** Chance that a two-sided t test at 5 % finds a mean difference of `effect` standard deviations in n pairs. */
export function powerOfPairs(effect: number, pairs: number): number {
  const freedom = pairs - 1
  const critical = studentAt(0.975, freedom)
  const shift = effect * Math.sqrt(pairs)
  return 1 - jStat.noncentralt.cdf(critical, freedom, shift) + jStat.noncentralt.cdf(-critical, freedom, shift)
}

/** Points of the quadrature over the chi-square variable. */
const POINTS = 400

/**
 * Chance that a noncentral t variable stays under a value: a normal one over the root of a chi-square one, integrated over the
 * quantiles of the latter.
 */
function noncentralStudent(t: number, freedom: number, off: number): number {
  let sum = 0
  for (const w of chiQuantiles(freedom)) sum += jStat.normal.cdf(t * Math.sqrt(w / freedom) - off, 0, 1)
  return sum / POINTS
}

const kept = new Map<number, Float64Array>()
/** Chi-square values at the middles of equal shares. */
function chiQuantiles(freedom: number): Float64Array {
  const known = kept.get(freedom)
  if (known) return known
  const found = Float64Array.from({ length: POINTS }, (_, i) => jStat.chisquare.inv((i + 0.5) / POINTS, freedom))
  kept.set(freedom, found)
  return found
}

/** The value a noncentral t variable stays under with probability p. */
export function noncentralStudentAt(p: number, freedom: number, off: number): number {
  let [low, high] = [off - 40, off + 400]
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2
    if (noncentralStudent(middle, freedom, off) < p) low = middle
    else high = middle
  }
  return (low + high) / 2
}
