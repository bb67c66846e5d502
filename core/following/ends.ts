import { dayNumber } from '../calendar'
import type { ErrorLookup } from '../error/assessor'
import { equationsOfProtocol } from '../equations/registry'
import type { Equation } from '../equations/equation'
import { isFold } from '../sites'
import { weightedLine, type Line } from '../trend/line'
import { sevenDayMean, type WeighIn } from '../trend/seven-day'
import { composeWith } from '../composition/checkin'
import { comparability } from '../composition/comparability'
import { endFigures, type SpanEnd } from '../composition/end-figures'
import { sameFolds } from '../composition/suggest-protocol'
import { onTermsOf } from '../composition/terms'
import { dayOf, DEFAULT_CHOICES, type CheckinFacts, type Choices } from '../composition/facts'

/** What a client's check-ins are followed with. */
export interface Following {
  choices?: Choices
  /** Daily weigh-ins, kg. */
  weighIns?: readonly WeighIn[]
  /** Equations to compute; without them the chosen one and those of the check-in's own protocol. */
  equations?: readonly Equation[]
}

/** A check-in as one end of a span: composed, with the mean of its week where it was weighed daily. */
export function followedEnd(facts: CheckinFacts, following: Following = {}): SpanEnd {
  const { choices = DEFAULT_CHOICES, weighIns = [] } = following
  const equations = following.equations ?? equationsOfProtocol(facts.protocol, facts.person.sex, choices.equationId)
  const week = sevenDayMean(weighIns, dayOf(facts))
  return { facts, choices, result: composeWith(equations, facts, choices), ...(week ? { week } : {}) }
}

/** What lines are drawn through, with three or more check-ins. */
export type LineOf = 'fat' | 'lean' | 'percent' | 'sum' | 'weight'

/** Straight lines through the check-ins of a span; null where fewer than three can be held against the last one. */
export type SpanLines = Record<LineOf, { line: Line; count: number } | null>

/**
 * Weighted lines through every check-in of a span that can be compared with its last one: percent, fat and lean where
 * the equation is the same, the sum where the same sites were read. Slopes are per day.
 */
export function spanLines(ends: readonly SpanEnd[], errors: ErrorLookup): SpanLines {
  const last = ends.at(-1)
  // Weeks' means where every check-in has one, else the weights at the visits: never both in one line.
  const byWeek = ends.every(({ week }) => week !== undefined)
  const alike = ends.map((end): SpanEnd => {
    const { week, ...visit } = last ? onTermsOf(end, last) : end
    return byWeek && week ? { ...visit, week } : visit
  })
  const newest = alike.at(-1)
  const figures = alike.map((end) => ({ end, day: dayNumber(dayOf(end.facts)), said: endFigures(end, errors) }))
  const through = (of: LineOf, fits: (end: SpanEnd) => boolean) => {
    const points = figures.flatMap(({ end, day, said }) => {
      const measured = fits(end) ? said[of] : null
      return measured ? [{ day, value: measured.value, weight: 1 / measured.variance }] : []
    })
    const line = weightedLine(points)
    return line && { line, count: points.length }
  }
  const sameEquation = (end: SpanEnd) => newest !== undefined && comparability(end, newest).percent
  return {
    fat: through('fat', sameEquation),
    lean: through('lean', sameEquation),
    percent: through('percent', sameEquation),
    weight: through('weight', () => true),
    sum: through('sum', (end) => newest !== undefined && sameSet(end, newest)),
  }
}

/** Whether the sums of two check-ins are of the same folds. */
export function sameSet(a: SpanEnd, b: SpanEnd): boolean {
  const [x, y] = [a.facts.protocol, b.facts.protocol]
  return x.id === y.id || sameFolds(x, y)
}

/** Errors as they would be if every fold were read with this technical error, a share of the value. Girths stay. */
export function withTechnique(errors: ErrorLookup, foldShare: number): ErrorLookup {
  return (site, assessorId) => {
    const own = errors(site, assessorId)
    return isFold(site) ? { ...own, share: foldShare } : own
  }
}
