import { percentTem, technicalError } from '../error/tem'
import { sumOfVariances } from './intervals'
import { chiSquareAt } from './quantiles'

/** A technical error with what is known of it. Folds mm, girths cm. */
export interface TemResult {
  tem: number
  /** In percent of the mean; null where the mean is zero or below. */
  percent: number | null
  mean: number
  pairs: number
  /** 95 % interval, in the unit and in percent. */
  low: number
  high: number
  percentLow: number | null
  percentHigh: number | null
  /** Every pair was the same: the error lies below what the marks of the instrument show. */
  belowMarks: boolean
}

/** Fewest pairs an interval is given for. */
export const FEWEST_PAIRS = 2

/** A technical error from squares on some degrees of freedom, with its chi-square interval. */
export function temFrom(squares: number, freedom: number, mean: number, pairs: number): TemResult {
  const tem = Math.sqrt(squares / freedom)
  const low = Math.sqrt(squares / chiSquareAt(0.975, freedom))
  const high = Math.sqrt(squares / chiSquareAt(0.025, freedom))
  const share = (one: number) => (mean > 0 ? percentTem(one, mean) : null)
  return {
    tem,
    percent: share(tem),
    mean,
    pairs,
    low,
    high,
    percentLow: share(low),
    percentHigh: share(high),
    belowMarks: squares === 0,
  }
}

/**
 * Technical error of one assessor measuring everybody twice: sqrt(sum d^2 / 2n), which is Dahlberg's error, with the
 * 95 % interval of n degrees of freedom (sum d^2 / 2 is sigma^2 chi-square on n, the true difference being none).
 * @param pairs first and second value of each person
 * @returns null with fewer than two pairs
 * @example temOfPairs([[10, 11], [12, 12], [8, 9]])?.tem // 0.577
 */
export function temOfPairs(pairs: readonly (readonly [number, number])[]): TemResult | null {
  const tem = technicalError(pairs)
  if (tem === null || pairs.length < FEWEST_PAIRS) return null
  const mean = pairs.reduce((sum, [a, b]) => sum + (a + b) / 2, 0) / pairs.length
  return temFrom(tem ** 2 * pairs.length, pairs.length, mean, pairs.length)
}

/** Two-way table of people (rows) and assessors or calipers (columns), without holes. */
export interface TwoWay {
  people: number
  pens: number
  mean: number
  /** Sums of squares: between people, between pens, what is left. */
  rows: number
  columns: number
  rest: number
}

/**
 * Sums of squares of a table of people by pens.
 * @throws RangeError when the rows are not alike long
 */
export function twoWay(table: readonly (readonly number[])[]): TwoWay {
  const people = table.length
  const pens = table[0]?.length ?? 0
  if (table.some((row) => row.length !== pens)) throw new RangeError('every person needs a value of every pen')
  const all = table.flat()
  const mean = all.reduce((sum, one) => sum + one, 0) / all.length
  const meanOf = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length
  const rows = pens * table.reduce((sum, row) => sum + (meanOf(row) - mean) ** 2, 0)
  const columnMeans = Array.from({ length: pens }, (_, j) => meanOf(table.map((row) => row[j] as number)))
  const columns = people * columnMeans.reduce((sum, one) => sum + (one - mean) ** 2, 0)
  const rest = table.reduce(
    (sum, row) =>
      sum + row.reduce((own, one, j) => own + (one - meanOf(row) - (columnMeans[j] as number) + mean) ** 2, 0),
    0,
  )
  return { people, pens, mean, rows, columns, rest }
}

/**
 * Technical error between assessors or calipers: the root of the mean square within people, pens' biases included. With
 * two of them it is sqrt(sum d^2 / 2n).
 * Its interval is by the modified large-sample method (`sumOfVariances`): the pens stand for others, and two or three of them
 * say little of how far others lie apart.
 * @returns null with fewer than two people or pens
 */
export function temBetween(table: readonly (readonly number[])[]): TemResult | null {
  if (table.length < FEWEST_PAIRS || (table[0]?.length ?? 0) < 2) return null
  const { people, pens, mean, columns, rest } = twoWay(table)
  const found = temFrom(columns + rest, people * (pens - 1), mean, people)
  const { low, high } = sumOfVariances([
    { value: columns / (pens - 1), freedom: pens - 1, share: 1 / people },
    { value: rest / ((people - 1) * (pens - 1)), freedom: (people - 1) * (pens - 1), share: (people - 1) / people },
  ])
  const share = (one: number) => (mean > 0 ? percentTem(one, mean) : null)
  const ends = { low: Math.sqrt(low), high: Math.sqrt(high) }
  return { ...found, ...ends, percentLow: share(ends.low), percentHigh: share(ends.high) }
}
