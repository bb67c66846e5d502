import { isFold, type SiteId } from '../../sites'
import { betweenMarks, bodyOrder, farFromLast, impossible, otherUnit, swapped, tooFast, wrongRow } from './rules'
import type { KnownValues, Slip, SlipEntry, SlipMeasure } from './slip'

/** In order: what blocks, then what is the most telling. */
const RULES: readonly ((entry: SlipEntry) => Slip | null)[] = [
  impossible,
  swapped,
  wrongRow,
  otherUnit,
  bodyOrder,
  farFromLast,
  tooFast,
  betweenMarks,
]

/**
 * Looks at a reading before it is kept. Gives the one warning that says most, or null. Only a value no body can have
 * blocks; all else is kept with one more press.
 * @example checkSlip({ measure: 'triceps', value: 125, last: {}, here: {} }) // range, proposes 12.5 mm
 */
export function checkSlip(entry: SlipEntry): Slip | null {
  if (!Number.isFinite(entry.value) || entry.value <= 0) {
    return { code: 'range', sentence: 'A reading is a number above zero.', blocks: true, correction: null }
  }
  for (const rule of RULES) {
    const slip = rule(entry)
    if (slip) return slip
  }
  return null
}

const COPIED_SITES = 4

/**
 * Looks at a whole round when it is complete: values that repeat another set exactly over all sites look copied rather
 * than measured. Two visits of one person agree exactly at one or two sites, never at all of them.
 * @param round the sites' readings of this round, mm or cm
 * @param other the set they may be copied from: last time's values, or the round before
 */
export function checkCopied(round: KnownValues, other: KnownValues, from: string): Slip | null {
  const sites = (Object.keys(round) as SlipMeasure[]).filter(
    (site): site is SiteId => site !== 'weight' && site !== 'height' && isFold(site),
  )
  if (sites.length < COPIED_SITES || !sites.every((site) => round[site] === other[site])) return null
  return {
    code: 'copied',
    sentence: `All ${sites.length} values are exactly those of ${from}: were they read, or copied?`,
    blocks: false,
    correction: null,
  }
}
