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
