import { JAWS_MM } from '../cautions'
import type { Sex } from '../equations/equation'
import { LARGE_FOLDS_BMI } from '../equations/applicability'
import { findProtocol, type ProtocolId } from '../sites'

/** What a set of sites is chosen from. Null: not known. */
export interface ProtocolFacts {
  sex: Sex
  ageYears: number
  bmi: number | null
  largestFoldMm: number | null
  lastProtocolId: string | null
}

/** A set of sites with why. */
export interface ProtocolSuggestion {
  protocolId: ProtocolId
  reason: string
}

/**
 * The sets to offer, best first: tape where folds serve badly, children's folds under 18, then the same as last time,
 * because the same set every time beats a better one.
 */
export function suggestProtocols(facts: ProtocolFacts): ProtocolSuggestion[] {
  const offered: ProtocolSuggestion[] = []
  if ((facts.bmi ?? 0) >= LARGE_FOLDS_BMI || (facts.largestFoldMm ?? 0) >= JAWS_MM) {
    offered.push({
      protocolId: 'navy-tape',
      reason: 'Folds this large are hard to lift: tape and weight serve better.',
    })
  }
  if (facts.ageYears < 18) {
    offered.push({ protocolId: 'youth-2', reason: 'Under 18: the two folds the equations for children need.' })
  }
  const last = facts.lastProtocolId ? findProtocol(facts.lastProtocolId) : null
  if (last) offered.push({ protocolId: last.id as ProtocolId, reason: 'As last time: the same set every time.' })
  if (facts.ageYears >= 18 && !last) {
    offered.push({ protocolId: 'laboratory-7', reason: 'The widest look at trunk and limbs.' })
  }
  return offered
}

/** What a chosen set would break, in a sentence; null when the history goes on. */
export function breaksHistory(chosen: string, last: string | null): string | null {
  if (!last || chosen === last) return null
  const before = findProtocol(last)?.name.toLowerCase() ?? last
  return `This breaks the history: last time ${before}. Percents of two sets are not compared, only the sites they share.`
}
