import { expose } from 'comlink'
import { findEquation, type EstimateSettings, type Measures } from '#core/equations'
import { simulatePercent, type InputVariances, type MonteCarlo } from '#core/error'

/** What one end of a span is simulated from; equations travel by name. */
export interface SimulatedEnd {
  equationId: string
  measures: Measures
  variances: InputVariances
  settings: EstimateSettings
}

const api = {
  /** Percent fat of repeated visits, or null for an unknown equation. */
  simulate(
    { equationId, measures, variances, settings }: SimulatedEnd,
    draws: number,
    seed: number,
  ): MonteCarlo | null {
    const equation = findEquation(equationId)
    return equation && simulatePercent(equation, measures, variances, settings, { draws, seed })
  },
}

export type MonteCarloWorker = typeof api

expose(api)
