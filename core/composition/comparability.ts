import { conditionChanges } from './conditions'
import { sameFolds } from './suggest-protocol'
import type { SpanEnd } from './end-figures'

/** Something that differs between two check-ins, with its sentence. */
export interface Difference {
  code: 'equation' | 'conversion' | 'school' | 'sites' | 'assessor' | 'caliper' | 'side' | 'conditions' | 'options'
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
  const sameEquation = ea !== null && eb !== null && ea.equation.id === eb.equation.id
  if (ea && eb && !sameEquation) {
    say('equation', `Two equations (${label(a)}; ${label(b)}): their percents are not compared.`)
  }
  const [ca, cb] = [a.choices, b.choices]
  const density = eb?.equation.gives === 'density'
  const sameConversion = !density || (ca?.conversion ?? 'siri') === (cb?.conversion ?? 'siri')
  if (!sameConversion) say('conversion', 'Two conversions from density to percent: their percents are not compared.')
  const sameOptions =
    (ca?.militaryRounding ?? false) === (cb?.militaryRounding ?? false) &&
    (ca?.blackAthleteTerm ?? false) === (cb?.blackAthleteTerm ?? false)
  if (!sameOptions)
    say('options', 'One of the two was rounded or adjusted differently: their percents are not compared.')
  const otherAssessor =
    a.facts.assessorId !== undefined && b.facts.assessorId !== undefined && a.facts.assessorId !== b.facts.assessorId
  if (otherAssessor) say('assessor', 'Two assessors measured: the error between assessors is added.')
  const otherCaliper =
    a.facts.caliper !== undefined && b.facts.caliper !== undefined && a.facts.caliper?.id !== b.facts.caliper?.id
  if (otherCaliper) say('caliper', 'Two calipers were used: part of a change may be theirs.')
  for (const { condition, then, now } of conditionChanges(a.facts.conditions ?? {}, b.facts.conditions ?? {})) {
    say('conditions', `${condition.label}: ${then.name} then, ${now.name} now. Water under the skin may have moved.`)
  }
  return { percent: sameEquation && sameConversion && sameOptions, otherAssessor, otherCaliper, differences }
}
