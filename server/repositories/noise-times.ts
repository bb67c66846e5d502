import type { Day } from '../../core/calendar'
import { ASSUMED_NOISE, FAMILIES, type Family, type StudioNoise } from '../../core/following'
import type { NoiseUntil } from '../../shared/schemas/following'

/** Times of a record a noise is given for, at most: a look is judged by what was known then. */
const MOST_TIMES = 4
/** Families that are asked for at earlier looks: those whose verdicts stand for a while. */
const STANDING: readonly Family[] = ['sum', 'fat', 'lean', 'percent', 'weight']

/** Days of a record's looks for which a noise is given: spread over it, the newest among them. */
function noiseDays(days: readonly Day[]): Day[] {
  const last = days.length - 1
  const count = Math.min(MOST_TIMES, last)
  const places = Array.from({ length: Math.max(0, count) }, (_, i) =>
    Math.round(last - (i * (last - 1)) / Math.max(1, count - 1)),
  )
  return [...new Set(places.map((place) => days[place] ?? ''))].sort()
}

/**
 * Noises for one client at days of their record, learnt from the others until then; oldest first. What nothing is learnt
 * of is left out: it stays as assumed.
 * @param newest families wanted at the newest of them
 */
export function noisesUntil(
  noise: StudioNoise,
  clientId: string,
  days: readonly Day[],
  { newest = FAMILIES, before = STANDING }: { newest?: readonly Family[]; before?: readonly Family[] } = {},
): NoiseUntil[] {
  const times = noiseDays(days)
  return times.map((until) => {
    const families = until === times.at(-1) ? newest : before
    const held = noise.for(clientId, until, families)
    const learnt = families.filter((family) => held[family].learntFrom.clients > 0 || held[family] !== ASSUMED_NOISE)
    return { until, noises: Object.fromEntries(learnt.map((family) => [family, held[family]])) }
  })
}
