import { composeWith } from './checkin'
import type { SpanEnd } from './end-figures'

/** What has been asked for already, by end and terms: a dragged jaw asks for the same again and again. */
const known = new WeakMap<SpanEnd, Map<string, SpanEnd>>()

/**
 * A check-in on the terms of another: its age and height. A birthday in an equation with age bands, or a height measured
 * anew, is no change of the body. The same one where the terms are the same already.
 * @param end the check-in to be held against `newest`
 */
export function onTermsOf<End extends SpanEnd>(end: End, newest: SpanEnd): End {
  const { ageYears } = newest.result
  const heightCm = newest.result.heightCm ?? end.result.heightCm
  if (ageYears === end.result.ageYears && heightCm === end.result.heightCm) return end
  const key = `${ageYears}/${heightCm}`
  const own = known.get(end) ?? new Map<string, SpanEnd>()
  known.set(end, own)
  const before = own.get(key)
  if (before) return before as End
  const equations = end.result.estimates.map(({ equation }) => equation)
  const facts = { ...end.facts, terms: { ageYears, heightCm } }
  const moved = { ...end, facts, result: composeWith(equations, facts, end.choices) }
  own.set(key, moved)
  return moved
}
