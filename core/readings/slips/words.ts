import { FOLD_RANGE_MM, GIRTHS, isFold, SITES } from '../../sites'
import { formatNumber, HEIGHT_RANGE_CM, trimZero, WEIGHT_RANGE_KG } from '../../units'
import type { SlipMeasure } from './slip'

/** What a measure is called in a sentence. */
export function nameOf(measure: SlipMeasure): string {
  if (measure === 'weight' || measure === 'height') return measure
  return SITES[measure].name.toLowerCase()
}

/** The unit results of a measure are kept in. */
export function unitOf(measure: SlipMeasure): 'mm' | 'cm' | 'kg' {
  if (measure === 'weight') return 'kg'
  return measure !== 'height' && isFold(measure) ? 'mm' : 'cm'
}

/** What a body can have: folds mm, girths and height cm, weight kg. */
export function rangeOf(measure: SlipMeasure): { low: number; high: number } {
  if (measure === 'weight') return WEIGHT_RANGE_KG
  if (measure === 'height') return HEIGHT_RANGE_CM
  const site = SITES[measure]
  return site.kind === 'fold' ? FOLD_RANGE_MM : GIRTHS[site.id as keyof typeof GIRTHS].rangeCm
}

/** A value with its unit, one decimal where it has one. */
export function say(measure: SlipMeasure, value: number): string {
  return `${trimZero(formatNumber(value, 1))} ${unitOf(measure)}`
}
