import { scanNumbers } from './scan'

const SIGNED = /^\s*([-−+]?)(.*)$/s

/**
 * One plain number as people type it: a point or a comma, a sign or none, no unit.
 * @returns NaN where it is anything else
 * @example parseNumber('−0,5') // -0.5
 */
export function parseNumber(text: string): number {
  const [, sign = '', rest = ''] = SIGNED.exec(text) ?? []
  const [first, ...more] = scanNumbers(rest) ?? []
  if (!first || more.length > 0 || first.unit !== '') return NaN
  return sign === '-' || sign === '−' ? -first.value : first.value
}
