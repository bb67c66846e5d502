import { FOLDS, isFold, type SiteId, type WayId } from '../sites'
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
  const moved = { ...end, facts, result: composeWith(equations, facts, end.choices, end.result) }
  own.set(key, moved)
  return moved
}

/** How a fold was lifted at a check-in: by its last reading that counts, else the first way of the site; null: one way only. */
function wayOf({ result }: SpanEnd, site: SiteId, ways: readonly WayId[]): WayId | null {
  return result.session.sites.find((row) => row.site === site)?.live.at(-1)?.method ?? ways[0] ?? null
}

/** Whether a site was measured alike at two check-ins: a fold on the same side and lifted the same way. */
export function sameWay(a: SpanEnd, b: SpanEnd, site: SiteId): boolean {
  if (!isFold(site)) return true
  if ((a.facts.side ?? 'right') !== (b.facts.side ?? 'right')) return false
  const { ways } = FOLDS[site] as { ways?: readonly WayId[] }
  return !ways || wayOf(a, site, ways) === wayOf(b, site, ways)
}
