import { policyOf, type PolicyId } from './policies'
import type { ReadSet, SessionPolicies } from './session'

/** Policies a coach may choose instead of each of these (common practice). */
const VARIANTS: Partial<Record<PolicyId, readonly PolicyId[]>> = {
  laboratory: ['laboratory-strict', 'laboratory-large'],
  kinanthropometry: ['kinanthropometry-learner'],
  'kinanthropometry-girth': ['kinanthropometry-girth-learner'],
  'contest-prep': ['contest-prep-twice'],
  tape: ['tape-percent'],
}

/** The policies a check-in follows where they are not the protocol's own. */
export interface ChosenPolicies {
  folds: PolicyId | null
  girths: PolicyId | null
}

export const OWN_POLICIES: ChosenPolicies = { folds: null, girths: null }

/** What may be chosen for a protocol's folds and girths, its own policy first. */
export function policyChoices(protocol: Pick<ReadSet, 'policy' | 'girthPolicy'>): {
  folds: PolicyId[]
  girths: PolicyId[]
} {
  const withVariants = (own: PolicyId) => [own, ...(VARIANTS[own] ?? [])]
  return { folds: withVariants(protocol.policy), girths: withVariants(protocol.girthPolicy) }
}

/** Whether a protocol can be read so. */
export function isChoosable(protocol: Pick<ReadSet, 'policy' | 'girthPolicy'>, chosen: ChosenPolicies): boolean {
  const { folds, girths } = policyChoices(protocol)
  return (
    (chosen.folds === null || folds.includes(chosen.folds)) &&
    (chosen.girths === null || girths.includes(chosen.girths))
  )
}

/** Chosen policies as a session takes them. */
export function sessionPolicies({ folds, girths }: ChosenPolicies): SessionPolicies {
  return { ...(folds ? { folds: policyOf(folds) } : {}), ...(girths ? { girths: policyOf(girths) } : {}) }
}
