import type { PersonFacts } from './applicability'
import { asSite, isFold } from '../sites'
import type { Estimate, Reached } from './estimate'

/** An equation that reached a result, with why it stands where it stands. */
export interface Ranked {
  estimate: Reached
  /** Short reasons, most telling first: "made on women of 18 to 55 years", "smallest error". */
  reasons: string[]
}

function isReached(estimate: Estimate): estimate is Reached {
  return estimate.status === 'ok' || estimate.status === 'caution'
}

function foldCount({ equation }: Reached): number {
  return equation.inputs.filter((input) => {
    const site = asSite(input)
    return site !== null && isFold(site)
  }).length
}

interface Weighed extends Ranked {
  score: number
}

/** Cautions weigh most, then the fit to an athlete, then folds before indexes, then the error, then how much was measured. */
function weigh(estimate: Reached, person: PersonFacts): Weighed {
  const { equation, seePercent, cautions } = estimate
  const reasons: string[] = []
  let score = -10 * cautions.length
  if (cautions.length === 0 && equation.ages) reasons.push(`made on ${equation.sample.toLowerCase()}`)
  if (equation.population === 'athletes') {
    score += person.athlete ? 4 : -3
    if (person.athlete) reasons.push('made on athletes, as this client')
  }
  if (equation.population === 'obese' || equation.population === 'young') {
    score += cautions.length === 0 ? 4 : 0
    if (cautions.length === 0) reasons.push(`made on ${equation.sample.toLowerCase()}`)
  }
  if (equation.population === 'tracking') score -= 20
  const folds = foldCount(estimate)
  if (folds > 0) {
    score += 2
    reasons.push(`${folds} folds`)
  }
  if (seePercent !== null) {
    score += 4 - seePercent
    reasons.push(`usual error ${seePercent} points`)
  } else score -= 1
  score += Math.min(equation.inputs.length, 8) / 8
  return { estimate, score, reasons: [...new Set(reasons)] }
}

/** Equations that reached a result, best fitting first, each with its reasons. */
export function rankEquations(estimates: readonly Estimate[], person: PersonFacts): Ranked[] {
  return estimates
    .filter(isReached)
    .map((estimate) => weigh(estimate, person))
    .sort((a, b) => b.score - a.score)
    .map(({ estimate, reasons }) => ({ estimate, reasons }))
}

/** Equations that fit without a caution; those from size alone only where nothing else says anything. */
export function fittingOf(estimates: readonly Estimate[]): Reached[] {
  const reached = estimates.filter(isReached)
  const measured = reached.some(({ equation }) => !equation.sizeOnly && equation.population !== 'tracking')
  return reached.filter(({ status, equation }) => status === 'ok' && !(measured && equation.sizeOnly))
}

/** Lowest and highest percent among the equations that fit (`fittingOf`); null when fewer than two do. */
export function spreadOf(estimates: readonly Estimate[]): { low: number; high: number; count: number } | null {
  const fitting = fittingOf(estimates)
  if (fitting.length < 2) return null
  const percents = fitting.map(({ percent }) => percent)
  return { low: Math.min(...percents), high: Math.max(...percents), count: fitting.length }
}
