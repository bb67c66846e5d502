import { equationsOfProtocol } from '../equations/registry'
import type { Equation } from '../equations/equation'
import { sevenDayMean, type WeighIn } from '../trend/seven-day'
import { composeWith } from '../composition/checkin'
import type { SpanEnd } from '../composition/end-figures'
import { sameFolds } from '../composition/suggest-protocol'
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

/** Whether the sums of two check-ins are of the same folds. */
export function sameSet(a: SpanEnd, b: SpanEnd): boolean {
  const [x, y] = [a.facts.protocol, b.facts.protocol]
  return x.id === y.id || sameFolds(x, y)
}
