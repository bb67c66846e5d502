import { intraclassInterval } from './intervals'
import { twoWay } from './tem'
import type { WithInterval } from './agreement'

/**
 * Intraclass correlation (2,1): people and assessors both drawn at random, agreement of single measurements (Shrout &
 * Fleiss 1979), its 95 % interval by a generalised pivotal quantity (`intraclassInterval`): it holds also where two or three
 * assessors stand for others.
 * @param table people by assessors
 * @returns null with fewer than three people or two assessors, or where nothing differs at all
 * @example intraclass([[9, 2, 5, 8], [6, 1, 3, 2], [8, 4, 6, 8], [7, 1, 2, 6], [10, 5, 6, 9], [6, 2, 4, 7]])?.value // 0.29
 */
export function intraclass(table: readonly (readonly number[])[]): WithInterval | null {
  const pens = table[0]?.length ?? 0
  if (table.length < 3 || pens < 2) return null
  const { people, rows, columns, rest } = twoWay(table)
  const between = rows / (people - 1)
  const ofPens = columns / (pens - 1)
  const left = rest / ((people - 1) * (pens - 1))
  const whole = between + (pens - 1) * left + (pens * (ofPens - left)) / people
  if (!(whole > 0) || !(left > 0)) return null
  const value = (between - left) / whole
  return { value, ...intraclassInterval({ people, pens, rows, columns, rest }) }
}
