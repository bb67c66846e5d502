import type { SpanEnd } from '../composition/end-figures'
import { conditionChanges } from '../composition/conditions'
import { onTermsOf } from '../composition/terms'
import { ASSUMED_ERRORS, type ErrorModel } from '../error/model'
import { copyingIn } from './copies'
import { figureOver, varianceTeller, type VarianceParts } from './figures'
import { scaleOf, type Noise } from './noise'
import { modelOfParts, type LearntParts } from './parts'
import { figureTerms, foldsAmong, weightsOf, type FigureId } from './weights'

/** What the error of comparing two visits is made of. */
export const COMPONENTS = ['reading', 'mark', 'day', 'weight', 'bend', 'hand'] as const
export type Component = (typeof COMPONENTS)[number]

/** The error of a change between two visits, apportioned. */
export interface ErrorParts {
  /** Standard deviation of the change, the figure's unit. */
  sd: number
  /** Share of each component in its variance; they add up to 1. */
  shares: Record<Component, number>
  /** Variance of the figure at the later visit as the model takes it, unit squared: the noise scales it. */
  assumed: number
}

/** What could be done about it. */
export interface Remedy {
  id: 'readings' | 'marks' | 'conditions' | 'hand'
  /** What the standard deviation of a change would come down to, as a share of today's. */
  sd: number
}

/** Ways to a smaller error, by what each takes off the variance's parts. */
const REMEDIES: Record<Remedy['id'], (shares: ErrorParts['shares']) => number> = {
  // Two more readings a site beside the usual two.
  readings: ({ reading }) => reading / 2,
  // Marks drawn once and found again, half as far off.
  marks: ({ mark }) => mark * 0.75,
  // The same hour, training and food: half the day's part (common practice).
  conditions: ({ day }) => day / 2,
  hand: ({ hand }) => hand,
}

/**
 * The error of a change from the first to the last of some visits, apportioned to what it comes from: the model's parts,
 * scaled to the total that was learnt. Null where the figure is not there at both.
 * @param learnt parts of the error as far as they are learnt: what readings, marks and day share between them
 */
export function errorParts(
  figure: FigureId,
  visits: readonly SpanEnd[],
  noise: Noise,
  { model = ASSUMED_ERRORS, learnt = null }: { model?: ErrorModel; learnt?: LearntParts | null } = {},
): ErrorParts | null {
  const newest = visits.at(-1)
  if (!newest) return null
  const ends = visits.map((end) => onTermsOf(end, newest))
  const [first, last] = [ends[0], ends.at(-1)]
  if (!first || !last || first === last) return null
  const shared = last.result.session.sites
    .map(({ site }) => site)
    .filter((site) => first.result.values[site] !== undefined)
  const settings = { summed: foldsAmong(shared), model, copying: copyingIn(ends, model) }
  const terms = figureTerms(ends, last, model)
  const over = figureOver(figure, [first, last], terms, settings)
  const weights = weightsOf(figure, terms, settings.summed)
  if (!over || !weights) return null
  const partsAt = varianceTeller(weights, terms, settings)
  const differs = conditionChanges(first.facts.conditions ?? {}, last.facts.conditions ?? {}).length > 0
  const [a, b] = [partsAt(first, false), partsAt(last, differs)]
  const scale = scaleOf(noise)
  const [then, now] = over.series.hands ?? []
  const parts: Record<Component, number> = { reading: 0, mark: 0, day: 0, weight: 0, bend: 0, hand: 0 }
  for (const part of Object.keys(a) as (keyof VarianceParts)[]) parts[part] = scale * (a[part] + b[part])
  parts.hand = then === now ? 0 : (over.series.offsetVariances?.[now ?? ''] ?? 0)
  if (learnt)
    apportion(parts, varianceTeller(weights, terms, { ...settings, model: modelOfParts(learnt, model) })(last, differs))
  const total = COMPONENTS.reduce((sum, part) => sum + parts[part], 0)
  const shares = Object.fromEntries(COMPONENTS.map((part) => [part, parts[part] / total])) as ErrorParts['shares']
  const assumed = Object.values(b).reduce((sum: number, one: number) => sum + one, 0)
  return { sd: Math.sqrt(total), shares, assumed }
}

/** Parts that are told apart from what was learnt; together they stay what they are. */
const TOLD_APART = ['reading', 'mark', 'day'] as const

/** Shares readings, marks and day anew, by what they are in the learnt model. */
function apportion(parts: Record<Component, number>, learnt: VarianceParts): void {
  const together = TOLD_APART.reduce((sum, part) => sum + parts[part], 0)
  const by = TOLD_APART.reduce((sum, part) => sum + learnt[part], 0)
  if (!(by > 0)) return
  for (const part of TOLD_APART) parts[part] = (together * learnt[part]) / by
}

/** What would shrink an error, most first; what would take less than a fiftieth off is left out. */
export function remediesFor({ shares }: ErrorParts): Remedy[] {
  return (Object.keys(REMEDIES) as Remedy['id'][])
    .map((id) => ({ id, sd: Math.sqrt(1 - REMEDIES[id](shares)) }))
    .filter(({ sd }) => sd < 0.98)
    .sort((one, other) => one.sd - other.sd)
}
