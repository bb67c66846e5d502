import { JAWS_MM } from '../cautions'
import type { Sex } from '../equations/equation'
import { LARGE_FOLDS_BMI } from '../equations/applicability'
import { findProtocol, foldsOf, type Protocol } from '../protocols'

/** What a set of sites is chosen from. Null: not known. */
export interface ProtocolFacts {
  sex: Sex
  ageYears: number
  bmi: number | null
  largestFoldMm: number | null
  lastProtocolId: string | null
  pregnant?: boolean
  /** Folds are lifted gently or not at all: bleeds easily. */
  gentle?: boolean
}

/** A set of sites with why. */
export interface ProtocolSuggestion {
  protocolId: string
  reason: string
}

/**
 * The sets to offer, best first: tape where folds serve badly, children's folds under 18, then the same as last time,
 * because the same set every time beats a better one.
 */
export function suggestProtocols(facts: ProtocolFacts): ProtocolSuggestion[] {
  if (facts.pregnant) {
    return [
      {
        protocolId: 'full-tape',
        reason:
          'Pregnant or recently so: no folds and no percent; girths as far as the client wishes, each can be left out.',
      },
    ]
  }
  const offered: ProtocolSuggestion[] = []
  if ((facts.bmi ?? 0) >= LARGE_FOLDS_BMI || (facts.largestFoldMm ?? 0) >= JAWS_MM) {
    offered.push({
      protocolId: 'navy-tape',
      reason: 'Folds this large are hard to lift: tape and weight serve better.',
    })
  }
  if (facts.gentle)
    offered.push({ protocolId: 'navy-tape', reason: 'Bleeds easily: tape alone, or folds lifted gently.' })
  if (facts.ageYears < 18) {
    offered.push({ protocolId: 'youth-2', reason: 'Under 18: the two folds the equations for children need.' })
  }
  const last = facts.lastProtocolId ? findProtocol(facts.lastProtocolId) : null
  if (last) offered.push({ protocolId: last.id, reason: 'As last time: the same set every time.' })
  if (facts.ageYears >= 18 && !last) {
    offered.push({ protocolId: 'laboratory-7', reason: 'The widest look at trunk and limbs.' })
  }
  return offered
}

/** True when two sets hold the same folds of the same school: their sums and equations go on from one to the other. */
export function sameFolds(a: Protocol, b: Protocol): boolean {
  const [x, y] = [foldsOf(a), foldsOf(b)]
  return a.school === b.school && x.length > 0 && x.length === y.length && x.every((site) => y.includes(site))
}

/** What a chosen set would break, in a sentence; null when the history goes on. */
export function breaksHistory(chosen: string, last: string | null): string | null {
  if (!last || chosen === last) return null
  const [next, before] = [findProtocol(chosen), findProtocol(last)]
  if (next && before && sameFolds(next, before)) return null
  const name = before?.name.toLowerCase() ?? last
  return `This breaks the history: last time ${name}. Percents of two sets are not compared, only the sites they share.`
}
