import type { Protocol } from '../protocols'
import { isFold, type SiteId } from '../sites'
import type { Equation, Sex } from './equation'
import { ATHLETES } from './sources/athletes'
import { DURNIN_WOMERSLEY } from './sources/durnin-womersley'
import { EVANS } from './sources/evans'
import { INDEXES } from './sources/indexes'
import { JACKSON_POLLOCK } from './sources/jackson-pollock'
import { NAVY_TAPE } from './sources/navy-tape'
import { NINE_SITE_RATIO } from './sources/nine-site-ratio'
import { ONE_SITE_TAPE } from './sources/one-site-tape'
import { PETERSON } from './sources/peterson'
import { SLAUGHTER } from './sources/slaughter'
import { SLOAN } from './sources/sloan'
import { WELTMAN } from './sources/weltman'

/** Every equation the product knows, in the order lists show them. */
export const EQUATIONS: readonly Equation[] = [
  ...JACKSON_POLLOCK,
  ...DURNIN_WOMERSLEY,
  ...SLOAN,
  ...ATHLETES,
  ...EVANS,
  ...PETERSON,
  ...SLAUGHTER,
  ...NINE_SITE_RATIO,
  ...NAVY_TAPE,
  ...ONE_SITE_TAPE,
  ...WELTMAN,
  ...INDEXES,
]

const BY_ID = new Map(EQUATIONS.map((equation) => [equation.id, equation]))

/** The equation with this id, or null. */
export function findEquation(id: string): Equation | null {
  return BY_ID.get(id) ?? null
}

/** True when an equation was made for this sex. */
export function isFor(equation: Equation, sex: Sex): boolean {
  return equation.sex === sex || equation.sex === 'both'
}

/** Sites an equation needs, folds and girths. */
export function sitesOf(equation: Equation): SiteId[] {
  return equation.inputs.filter((input): input is SiteId => input !== 'age' && input !== 'height' && input !== 'weight')
}

/** Equations made for this sex whose sites are all among `sites` and which need at least one of them. */
export function equationsFor(sex: Sex, sites: readonly SiteId[]): Equation[] {
  return EQUATIONS.filter((equation) => {
    const needed = sitesOf(equation)
    return isFor(equation, sex) && needed.length > 0 && needed.every((site) => sites.includes(site))
  })
}

/** The equation a set of sites is followed with for this sex: the one usually taken, else the first its sites feed. */
export function usualEquation({ sites, usual }: Pick<Protocol, 'sites' | 'usual'>, sex: Sex): Equation | null {
  const named = usual?.[sex]
  return (named ? findEquation(named) : null) ?? equationsFor(sex, sites)[0] ?? null
}

/** What a check-in of a protocol is followed with: the chosen equation, if any, and the protocol's own of this sex. */
export function equationsOfProtocol(
  protocol: Pick<Protocol, 'sites' | 'usual'>,
  sex: Sex,
  chosenId: string | null,
): Equation[] {
  const chosen = chosenId ? findEquation(chosenId) : null
  const own = usualEquation(protocol, sex)
  return [...new Set([...(chosen && isFor(chosen, sex) ? [chosen] : []), ...(own ? [own] : [])])]
}

/** True when an equation works on folds. */
export function usesFolds(equation: Equation): boolean {
  return sitesOf(equation).some(isFold)
}
