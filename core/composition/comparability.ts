import { studyBetween, type KnownHand } from '../error/hands'
import { conditionChanges } from './conditions'
import { caliperOf } from './facts'
import { sameFolds } from './suggest-protocol'
import { isFold, SITES } from '../sites'
import { sameWay } from './terms'
import type { SpanEnd } from './end-figures'

/** Something that differs between two check-ins, with its sentence. */
export interface Difference {
  code:
    | 'equation'
    | 'conversion'
    | 'school'
    | 'sites'
    | 'assessor'
    | 'caliper'
    | 'side'
    | 'way'
    | 'conditions'
    | 'options'
  sentence: string
}

/** What two check-ins can be compared in. Folds and girths of the same site always can. */
export interface Comparability {
  /** Percent, fat and lean mass. */
  percent: boolean
  otherAssessor: boolean
  otherCaliper: boolean
  differences: Difference[]
}

function label(end: SpanEnd): string {
  return end.result.estimate?.equation.label ?? 'no equation'
}

/** What the percents of two check-ins stand on, and which of it is the same. */
function percentTerms(a: SpanEnd, b: SpanEnd) {
  const [ea, eb] = [a.result.estimate, b.result.estimate]
  const [ca, cb] = [a.choices, b.choices]
  const density = eb?.equation.gives === 'density'
  const needed: readonly string[] = eb?.equation.inputs ?? []
  return {
    sameEquation: ea !== null && eb !== null && ea.equation.id === eb.equation.id,
    sameConversion: !density || (ca?.conversion ?? 'siri') === (cb?.conversion ?? 'siri'),
    sameOptions:
      (ca?.militaryRounding ?? false) === (cb?.militaryRounding ?? false) &&
      (ca?.abdomenOfTwo ?? false) === (cb?.abdomenOfTwo ?? false) &&
      (ca?.blackAthleteTerm ?? false) === (cb?.blackAthleteTerm ?? false),
    sameLift: b.facts.protocol.sites.every(
      (site) => !needed.includes(site) || a.result.values[site] === undefined || sameWay(a, b, site),
    ),
  }
}

/** Whether the percents of two check-ins can be compared: as `comparability` says, without the sentences. */
export function samePercent(a: SpanEnd, b: SpanEnd): boolean {
  const { sameEquation, sameConversion, sameOptions, sameLift } = percentTerms(a, b)
  return sameEquation && sameConversion && sameOptions && sameLift
}

/** What differs between two check-ins, and what may therefore be compared. */
export function comparability(a: SpanEnd, b: SpanEnd): Comparability {
  const differences: Difference[] = []
  const say = (code: Difference['code'], sentence: string) => differences.push({ code, sentence })
  const [pa, pb] = [a.facts.protocol, b.facts.protocol]
  if (pa.school !== pb.school) {
    say('school', `Measured by two schools (${pa.school}, ${pb.school}): only sites both define alike are compared.`)
  }
  if (pa.id !== pb.id && !sameFolds(pa, pb)) {
    say(
      'sites',
      `Two sets of sites (${pa.name.toLowerCase()}; ${pb.name.toLowerCase()}): the sum is of the sites they share.`,
    )
  }
  const [ea, eb] = [a.result.estimate, b.result.estimate]
  const { sameEquation, sameConversion, sameOptions, sameLift } = percentTerms(a, b)
  if (ea && eb && !sameEquation) {
    say('equation', `Two equations (${label(a)}; ${label(b)}): their percents are not compared.`)
  }
  if (!sameConversion) say('conversion', 'Two conversions from density to percent: their percents are not compared.')
  if (!sameOptions)
    say('options', 'One of the two was rounded or adjusted differently: their percents are not compared.')
  const otherAssessor =
    a.facts.assessorId !== undefined && b.facts.assessorId !== undefined && a.facts.assessorId !== b.facts.assessorId
  const studied = (of: KnownHand['of'], one: string, other: string) =>
    studyBetween(b.hands ?? [], of, one, other)?.day ?? null
  if (otherAssessor) {
    const day = studied('assessor', a.facts.assessorId ?? '', b.facts.assessorId ?? '')
    say(
      'assessor',
      day
        ? `Two assessors measured: what the study of ${day} found between them is taken off.`
        : 'Two assessors measured: the error between assessors is added.',
    )
  }
  const [caliperA, caliperB] = [caliperOf(a.facts), caliperOf(b.facts)]
  const otherCaliper = caliperA !== null && caliperB !== null && caliperA !== caliperB
  if (otherCaliper) {
    const day = studied('caliper', caliperA, caliperB)
    say(
      'caliper',
      day
        ? `Two calipers were used: what the study of ${day} found between them is taken off.`
        : 'Two calipers were used: part of a change may be theirs.',
    )
  }
  const folds = pb.sites.filter((site) => isFold(site) && a.result.values[site] !== undefined)
  const sideA = a.facts.side ?? 'right'
  const sideB = b.facts.side ?? 'right'
  if (sideA !== sideB && folds.length > 0) {
    say(
      'side',
      `Folds were taken on the ${sideA} side then and on the ${sideB} now: no fold and no percent is compared.`,
    )
  }
  const otherWays = sideA === sideB ? folds.filter((site) => !sameWay(a, b, site)) : []
  for (const site of otherWays) {
    say('way', `${SITES[site].name}: lifted another way then. It is left out of the comparison.`)
  }
  for (const { condition, then, now } of conditionChanges(a.facts.conditions ?? {}, b.facts.conditions ?? {})) {
    say('conditions', `${condition.label}: ${then.name} then, ${now.name} now. Water under the skin may have moved.`)
  }
  return {
    percent: sameEquation && sameConversion && sameOptions && sameLift,
    otherAssessor,
    otherCaliper,
    differences,
  }
}
