import { dayNumber, type Day } from '../calendar'
import type { SpanEnd } from '../composition/end-figures'
import { onTermsOf, weighedAlike } from '../composition/terms'
import { ASSUMED_ERRORS, type ErrorModel } from '../error/model'
import { isFold } from '../sites'
import { copyingIn } from './copies'
import { figureOver } from './figures'
import { ASSUMED_NOISE, evidenceOf, NOISE_GRID, type Evidence, type Noise } from './noise'
import { EvidencePool } from './noise-pool'
import type { ScaleSaid } from '../study/feeding'
import { figureTerms, foldsAmong, isByEquation, type FigureId } from './weights'

/** Figures whose noise is learnt together: each leading figure by itself, all folds, all girths. */
export const FAMILIES = ['sum', 'fat', 'lean', 'percent', 'weight', 'fold', 'girth'] as const
export type Family = (typeof FAMILIES)[number]

/** Noise by family. */
export type Noises = Readonly<Record<Family, Noise>>

/** What one client's check-ins say about the noise, by family, and who measured them last. */
export interface ClientEvidence {
  assessorId: string | null
  families: Partial<Record<Family, Evidence[]>>
}

/** Nothing said. */
export const NO_EVIDENCE: ClientEvidence = { assessorId: null, families: {} }

function everyFamily<T>(make: (family: Family) => T): Record<Family, T> {
  return Object.fromEntries(FAMILIES.map((family) => [family, make(family)])) as Record<Family, T>
}

/** Nothing learnt in any family. */
export const ASSUMED_NOISES: Noises = everyFamily(() => ASSUMED_NOISE)

/** The family a figure belongs to. */
export function familyOf(figure: FigureId): Family {
  if (figure === 'lean-less-fat') return 'fat'
  if (figure === 'sum' || figure === 'weight' || isByEquation(figure)) return figure
  return figure.startsWith('corrected-') || !isFold(figure as never) ? 'girth' : 'fold'
}

/** Weeks from a zero that all clients share. */
export function weekOf(day: Day): number {
  return dayNumber(day) / 7
}

/** What a client's check-ins say about the noise, on the terms of the newest. Oldest first. */
export function clientEvidence(
  visits: readonly SpanEnd[],
  { model = ASSUMED_ERRORS, families = FAMILIES }: { model?: ErrorModel; families?: readonly Family[] } = {},
): ClientEvidence {
  const newest = visits.at(-1)
  // A line needs three.
  if (!newest) return NO_EVIDENCE
  if (visits.length < 3) return { ...NO_EVIDENCE, assessorId: newest.facts.assessorId ?? null }
  const ends = weighedAlike(visits.map((end) => onTermsOf(end, newest)))
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
    if (!over || over.ends.length < 3) continue
    const weeks = over.days.map(weekOf)
    ;(found[family] ??= []).push(evidenceOf({ ...over.series, weeks }))
  }
  return { assessorId: newest.facts.assessorId ?? null, families: found }
}

type Pools = Partial<Record<Family, EvidencePool>>

function poolsOf(all: readonly ClientEvidence[]): Pools {
  const pools: Pools = {}
  for (const family of FAMILIES) {
    const own = all.flatMap(({ families }) => families[family] ?? [])
    if (own.length > 0) pools[family] = new EvidencePool(own)
  }
  return pools
}

/** Degrees of freedom from which an assessor's own clients speak for them alone. */
const ENOUGH_ALONE = 60

/** Families a repeat study speaks about: weights do not enter it, so fat and lean mass are left to what is learnt. */
const OF_STUDY = ['sum', 'fold', 'girth'] as const

/** What a repeat study of an assessor says, beside what is learnt from clients, from the day it was closed. */
export function studyEvidence(said: readonly ScaleSaid[], source: { assessorId: string; day: Day }): ClientEvidence {
  const families: ClientEvidence['families'] = {}
  for (const { figure, freedom, squares } of said) {
    if (!OF_STUDY.includes(figure)) continue
    // Alike under every model: people measured twice a day say nothing about what lasts from week to week.
    const step = { freedom, squares: NOISE_GRID.map(() => squares), logs: NOISE_GRID.map(() => 0) }
    families[figure] = [{ weeks: [weekOf(source.day)], steps: [step], ofStudy: true }]
  }
  return { assessorId: source.assessorId, families }
}

/**
 * Noises learnt from the clients of a studio: for each of them from all others, of their assessor where those are enough,
 * and from their assessor's repeat studies.
 */
export class StudioNoise {
  private readonly everybody: Pools
  private readonly byAssessor = new Map<string, Pools>()

  /**
   * @param all evidence of every client, by their id
   * @param studies evidence of repeat studies (see `studyEvidence`)
   */
  constructor(
    private readonly all: ReadonlyMap<string, ClientEvidence>,
    private readonly studies: readonly ClientEvidence[] = [],
  ) {
    const given = [...all.values()]
    this.everybody = poolsOf(given)
    const assessors = new Set(given.flatMap(({ assessorId }) => assessorId ?? []))
    if (assessors.size < 2) return
    for (const id of assessors) {
      this.byAssessor.set(id, poolsOf(given.filter(({ assessorId }) => assessorId === id)))
    }
  }

  /**
   * What is held of the noise for one client, on a day: learnt from the others up to it.
   * @param until without it everything counts
   */
  for(clientId: string, until?: Day): Noises {
    const week = until === undefined ? Infinity : weekOf(until)
    const own = this.all.get(clientId) ?? NO_EVIDENCE
    const theirs = this.byAssessor.get(own.assessorId ?? '')
    const studied = own.assessorId ? this.studies.filter(({ assessorId }) => assessorId === own.assessorId) : []
    return everyFamily((family) => {
      const given = own.families[family] ?? []
      const said = studied.flatMap(({ families }) => families[family] ?? [])
      const alone = theirs?.[family]?.noiseWithout(given, week, said)
      if (alone && alone.learntFrom.freedom >= ENOUGH_ALONE) return alone
      return (this.everybody[family] ?? new EvidencePool([])).noiseWithout(given, week, said)
    })
  }
}
