import { chiSquareDrawn, seededRandom } from '../simulate'
import { chiSquareAt, noncentralStudentAt } from './quantiles'

/** A mean square with its degrees of freedom and the share it enters with. */
export interface MeanSquare {
  value: number
  freedom: number
  share: number
}

/**
 * 95 % interval of a sum of variances, each estimated by its own mean square: the modified large-sample method (Graybill &
 * Wang 1980, J Am Stat Assoc 75:869; Burdick & Graybill 1992; recalled). It holds also where one of them stands on one or two
 * degrees of freedom, as assessors who stand for others do.
 * @returns low and high, in the variance's unit
 */
export function sumOfVariances(squares: readonly MeanSquare[]): { low: number; high: number } {
  const whole = squares.reduce((sum, { value, share }) => sum + share * value, 0)
  const off = (factor: (freedom: number) => number) =>
    Math.sqrt(squares.reduce((sum, { value, share, freedom }) => sum + (factor(freedom) * share * value) ** 2, 0))
  const below = off((freedom) => 1 - freedom / chiSquareAt(0.975, freedom))
  const above = off((freedom) => freedom / chiSquareAt(0.025, freedom) - 1)
  return { low: Math.max(0, whole - below), high: whole + above }
}

/** Sums of squares of a two-way table, with their degrees of freedom. */
export interface TableSquares {
  people: number
  pens: number
  rows: number
  columns: number
  rest: number
}

const DRAWS = 4000

/** Chi-square deviates for tables of one size: the same for every table of it. */
const kept = new Map<string, readonly [Float64Array, Float64Array, Float64Array]>()

function deviatesFor(people: number, pens: number): readonly [Float64Array, Float64Array, Float64Array] {
  const key = `${people} ${pens}`
  const known = kept.get(key)
  if (known) return known
  const random = seededRandom(people * 1009 + pens)
  const of = (freedom: number) => Float64Array.from({ length: DRAWS }, () => chiSquareDrawn(random, freedom))
  const drawn = [of(people - 1), of(pens - 1), of((people - 1) * (pens - 1))] as const
  kept.set(key, drawn)
  return drawn
}

/**
 * 95 % interval of an intraclass correlation (2,1) by a generalised pivotal quantity: the variances that such sums of squares
 * could come from are drawn, and the correlation of each is looked at (Weerahandi 1993; Burdick, Borror & Montgomery 2005,
 * recalled). It holds with two or three assessors who stand for others.
 */
export function intraclassInterval({ people, pens, rows, columns, rest }: TableSquares): { low: number; high: number } {
  const [byRows, byColumns, byRest] = deviatesFor(people, pens)
  const drawn = Float64Array.from({ length: DRAWS }, (_, i) => {
    const ofRows = rows / (byRows[i] as number)
    const ofColumns = columns / (byColumns[i] as number)
    const left = rest / (byRest[i] as number)
    const between = Math.max(0, (ofRows - left) / pens)
    const bias = Math.max(0, (ofColumns - left) / people)
    return between / (between + bias + left)
  }).sort()
  const at = (share: number) => drawn[Math.floor(share * (DRAWS - 1))] ?? NaN
  return { low: at(0.025), high: at(0.975) }
}

const factors = new Map<number, { near: number; far: number }>()

/** Standard deviations from the mean to a limit that holds 95 of 100 differences. */
const LIMIT = 1.959963984540054

/**
 * How many standard deviations the ends of the 95 % interval of an upper limit of agreement lie above the mean difference:
 * exact factors by the noncentral t distribution (Carkeet 2015, Optom Vis Sci 92:e71; recalled). A lower limit's are the same,
 * turned round.
 * @example limitFactors(10) // { near: 1.21..., far: 3.47... }
 */
export function limitFactors(pairs: number): { near: number; far: number } {
  const known = factors.get(pairs)
  if (known) return known
  const [freedom, off] = [pairs - 1, LIMIT * Math.sqrt(pairs)]
  const at = (p: number) => noncentralStudentAt(p, freedom, off) / Math.sqrt(pairs)
  const found = { near: at(0.025), far: at(0.975) }
  factors.set(pairs, found)
  return found
}
