import type { Protocol } from '../protocols'
import { isFold } from '../sites'

/** Minutes of a visit before the studio's own are known (common practice). */
const MINUTES = {
  /** A fold in two rounds with one assessor, and with a recorder: seven take 12 and 8. */
  fold: 12 / 7,
  foldRecorded: 8 / 7,
  /** A girth: four take 4. */
  girth: 1,
  marking: 3,
} as const
/** Own visits that are needed before their median counts. */
export const ENOUGH_VISITS = 5

/**
 * How long a visit takes, minutes: by the set, or the studio's own median once five visits of it are known.
 * @param own minutes of finished visits of this set, start to finish
 */
export function visitMinutes(
  protocol: Pick<Protocol, 'sites'>,
  { recorder = false, own = [] }: { recorder?: boolean; own?: readonly number[] } = {},
): number {
  const known = own.filter((minutes) => minutes > 1 && minutes < 120).sort((a, b) => a - b)
  if (known.length >= ENOUGH_VISITS) return Math.round(known[Math.floor(known.length / 2)] ?? 0)
  const folds = protocol.sites.filter((site) => isFold(site)).length
  const girths = protocol.sites.length - folds
  const reading = folds * (recorder ? MINUTES.foldRecorded : MINUTES.fold) + girths * MINUTES.girth
  return Math.round(reading + (folds > 0 ? MINUTES.marking : 0))
}
