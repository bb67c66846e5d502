import { EQUATIONS } from '../equations/registry'
import { composeWith, type Composition } from './checkin'
import type { CheckinFacts, Choices } from './facts'

/** From a check-in's facts to everything a page shows about it, with every equation the product knows. */
export function composeCheckin(facts: CheckinFacts, choices?: Choices): Composition {
  return composeWith(EQUATIONS, facts, choices)
}
