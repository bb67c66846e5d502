import { dayNumber, type Day } from '../calendar'
import type { SpanEnd } from '../composition/end-figures'
import { dayOf } from '../composition/facts'
import { onTermsOf } from '../composition/terms'
import { ASSUMED_ERRORS, type ErrorModel } from '../error/model'
import { isFold } from '../sites'
import { copyingIn } from './copies'
import { figureOver, type FigureSeriesOf } from './figures'
import { Speaker, SPEAKS_FROM, type Evidence } from './evidence'
import { thinned, type Noise } from './noise'
import { Counts, HandPool, longestOf, noiseFromOthers, type Longest } from './noise-pool'
import { ASSUMED_NOISE } from './studio-grid'
import type { ScaleSaid } from '../study/feeding'
import { figureTerms, foldsAmong, isByEquation, type FigureId } from './weights'

/** Figures whose noise is learnt together: each leading figure by itself, all folds, all girths. */
export const FAMILIES = ['sum', 'fat', 'lean', 'percent', 'weight', 'fold', 'girth'] as const
export type Family = (typeof FAMILIES)[number]

/** Noise by family. */
export type Noises = Readonly<Record<Family, Noise>>

/** What one client's check-ins say about the noise, by family and hand, and who took them. */
export interface ClientEvidence {
  /** Weeks of the check-ins, and who took each. */
  taken: readonly { week: number; assessorId: string | null }[]
  families: Partial<Record<Family, Evidence[]>>
}

/** Nothing said. */
export const NO_EVIDENCE: ClientEvidence = { taken: [], families: {} }

function everyFamily<T>(make: (family: Family) => T): Record<Family, T> {
  return Object.fromEntries(FAMILIES.map((family) => [family, make(family)])) as Record<Family, T>
}

/** Nothing learnt in any family. */
export const ASSUMED_NOISES: Noises = everyFamily(() => ASSUMED_NOISE)

/** The family a figure belongs to. */
export function familyOf(figure: FigureId): Family {
  if (figure === 'lean-less-fat') return 'fat'
  if (figure === 'week-weight') return 'weight'
  if (figure === 'sum' || figure === 'weight' || isByEquation(figure)) return figure
  return figure.startsWith('corrected-') || !isFold(figure as never) ? 'girth' : 'fold'
}

/** Weeks from a zero that all clients share. */
export function weekOf(day: Day): number {
  return dayNumber(day) / 7
}

/**
 * A figure's history by hand: what one hand read speaks for that hand alone, and what lies between two hands for neither.
 * A scale weighs alike for every hand.
 */
function byHand(figure: FigureId, { series, days, ends }: FigureSeriesOf): Evidence[] {
  const weeks = days.map(weekOf)
  const assessorAt = (place: number) => ends[place]?.facts.assessorId ?? null
  const hands = figure === 'weight' ? days.map(() => '') : (series.hands ?? days.map(() => ''))
  return [...new Set(hands)].map((hand) => {
    const places = hands.flatMap((one, place) => (one === hand ? [place] : []))
    const of = (all: readonly number[]) => places.map((place) => all[place] as number)
    return {
      assessorId: assessorAt(places.at(-1) as number),
      weeks: of(weeks),
      values: of(series.values),
      variances: of(series.variances),
    }
  })
}

/** What a client's check-ins say about the noise, on the terms of the newest. Oldest first. */
export function clientEvidence(
  visits: readonly SpanEnd[],
  { model = ASSUMED_ERRORS, families = FAMILIES }: { model?: ErrorModel; families?: readonly Family[] } = {},
): ClientEvidence {
  const newest = visits.at(-1)
  if (!newest) return NO_EVIDENCE
  const taken = visits.map(({ facts }) => ({ week: weekOf(dayOf(facts)), assessorId: facts.assessorId ?? null }))
  if (visits.length < SPEAKS_FROM) return { taken, families: {} }
  const ends = visits.map((end) => onTermsOf(end, newest))
  const now = ends.at(-1) ?? newest
  const sites = now.result.session.sites.filter(({ value }) => value !== null).map(({ site }) => site)
  const terms = figureTerms(ends, now, model)
  const settings = { summed: foldsAmong(sites), model, copying: copyingIn(ends, model) }
  const figures: FigureId[] = ['sum', 'fat', 'lean', 'percent', 'weight', ...sites]
  const found: ClientEvidence['families'] = {}
  for (const figure of figures) {
    const family = familyOf(figure)
    if (!families.includes(family)) continue
    const over = figureOver(figure, ends, terms, settings)
    if (!over) continue
    const own = byHand(figure, over).filter(({ weeks }) => weeks.length >= SPEAKS_FROM)
    if (own.length > 0) (found[family] ??= []).push(...own)
  }
  return { taken, families: found }
}

/** Families a repeat study speaks about: weights do not enter it, so fat and lean mass are left to what is learnt. */
const OF_STUDY = ['sum', 'fold', 'girth'] as const

/** What a repeat study of an assessor says, beside what is learnt from clients, from the day it was closed. */
export function studyEvidence(said: readonly ScaleSaid[], source: { assessorId: string; day: Day }): ClientEvidence {
  const families: ClientEvidence['families'] = {}
  const week = weekOf(source.day)
  for (const { figure, freedom, squares } of said) {
    if (!OF_STUDY.includes(figure)) continue
    const study = { freedom: Math.round(freedom), squares }
    families[figure] = [{ weeks: [week], values: [], variances: [], study, assessorId: source.assessorId }]
  }
  return { taken: [{ week, assessorId: source.assessorId }], families }
}

/** Noises kept of a family. */
const MOST_TOLD = 500

/** One family of a studio: every client's histories, added up by hand. */
class FamilyPool {
  private readonly own = new Map<string, Speaker[]>()
  private readonly longest = new Map<string, Longest>()
  private readonly hands = new Map<string | null, HandPool>()
  private readonly counts: Counts
  private readonly told = new Map<string, Noise>()

  constructor(all: ReadonlyMap<string, ClientEvidence>, family: Family) {
    const byHand = new Map<string | null, Speaker[]>()
    for (const [id, { families }] of all) {
      const given = families[family]
      if (!given) continue
      const speakers = given.map((one) => new Speaker(one))
      this.own.set(id, speakers)
      const longest = longestOf(given)
      if (longest) this.longest.set(id, longest)
      for (const speaker of speakers) {
        const hand = speaker.evidence.assessorId
        const have = byHand.get(hand)
        if (have) have.push(speaker)
        else byHand.set(hand, [speaker])
      }
    }
    for (const [hand, speakers] of byHand) this.hands.set(hand, new HandPool(speakers))
    this.counts = new Counts([...this.longest.values()])
  }

  *adding(): Generator<void, void> {
    for (const pool of this.hands.values()) yield* pool.adding()
  }

  noiseFor(clientId: string, until: number, hands: ReadonlySet<string | null>, studies: readonly Speaker[]): Noise {
    const own = this.own.get(clientId) ?? []
    const of = (near: boolean) =>
      [...this.hands].flatMap(([hand, pool]) => (hands.has(hand) === near ? [pool.without(own, until)] : []))
    const counted = this.counts.until(until, this.longest.get(clientId))
    // All clients whose histories are not among those added up have the same noise.
    const isOutside =
      studies.length === 0 && own.every((one) => ![...this.hands.values()].some((pool) => pool.holds(one)))
    const places = [...this.hands].map(([hand, pool]) => `${hand} ${hands.has(hand)} ${pool.placeAt(until)}`)
    const key = isOutside ? JSON.stringify([places, counted]) : null
    const known = key === null ? undefined : this.told.get(key)
    if (known) return known
    const noise = noiseFromOthers(of(true), of(false), studies, counted)
    const found = noise === ASSUMED_NOISE ? noise : thinned(noise)
    if (key !== null && this.told.size < MOST_TOLD) this.told.set(key, found)
    return found
  }
}

/**
 * Noises learnt from the clients of a studio: for each of them from all others, those of the hands that measured them
 * first, and from repeat studies of these hands.
 */
export class StudioNoise {
  private readonly pools = new Map<Family, FamilyPool>()

  /**
   * @param all evidence of every client, by their id
   * @param studies evidence of repeat studies (see `studyEvidence`)
   */
  constructor(
    private readonly all: ReadonlyMap<string, ClientEvidence>,
    private readonly studies: readonly ClientEvidence[] = [],
  ) {}

  private pool(family: Family): FamilyPool {
    const known = this.pools.get(family)
    if (known) return known
    const made = new FamilyPool(this.all, family)
    this.pools.set(family, made)
    return made
  }

  /** Learns everything there is, one history at a time. */
  *learning(): Generator<void, void> {
    for (const family of FAMILIES) yield* this.pool(family).adding()
  }

  /**
   * What is held of the noise for one client, on a day: learnt from the others up to it.
   * @param until without it everything counts
   * @param families others stay as assumed
   */
  for(clientId: string, until?: Day, families: readonly Family[] = FAMILIES): Noises {
    const week = until === undefined ? Infinity : weekOf(until)
    const { taken } = this.all.get(clientId) ?? NO_EVIDENCE
    const hands = new Set(taken.flatMap((one) => (one.week <= week ? [one.assessorId] : [])))
    const closed = this.studies.filter(({ taken: [at] }) => at && at.week <= week && hands.has(at.assessorId))
    return everyFamily((family) => {
      if (!families.includes(family)) return ASSUMED_NOISE
      const studies = closed.flatMap((one) => (one.families[family] ?? []).map((said) => new Speaker(said)))
      return this.pool(family).noiseFor(clientId, week, hands, studies)
    })
  }
}
