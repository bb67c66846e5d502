import type { Equation, Sex } from './equation'
import { JACKSON_POLLOCK } from './jackson-pollock'

/** Every equation the product knows, in the order lists show them. */
export const EQUATIONS: readonly Equation[] = [...JACKSON_POLLOCK]

const BY_ID = new Map(EQUATIONS.map((equation) => [equation.id, equation]))

/** The equation with this id, or null. */
export function findEquation(id: string): Equation | null {
  return BY_ID.get(id) ?? null
}

/** Equations made for this sex whose folds are all among `sites`. */
export function equationsFor(sex: Sex, sites: readonly string[]): Equation[] {
  return EQUATIONS.filter(
    (equation) =>
      (equation.sex === sex || equation.sex === 'both') && equation.summed.every((site) => sites.includes(site)),
  )
}
