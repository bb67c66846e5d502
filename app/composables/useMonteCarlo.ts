import { estimateInputs, type SpanEnd } from '#core/composition'
import { ASSUMED_ERRORS, gradientOf, percentVariance, usualVariances } from '#core/error'
import { useWorker } from '~/composables/useWorker'
import type { MonteCarloWorker, SimulatedEnd } from '~/workers/monte-carlo'

/** Percent fat of one check-in under errors of measuring: by simulation and by the equation's slopes, variances. */
interface Spread {
  simulated: number
  bySlopes: number
}

/** Simulated visits in a worker of their own: the page stays free. */
export function useMonteCarlo() {
  const { run, running } = useWorker<MonteCarloWorker>(
    () => new Worker(new URL('../workers/monte-carlo.ts', import.meta.url), { type: 'module' }),
  )

  function plain(end: SpanEnd): { end: SimulatedEnd; bySlopes: number } | null {
    const inputs = estimateInputs(end)
    if (!inputs) return null
    const { reached, measures, settings } = inputs
    const { conversion, options, person } = settings
    const variances = usualVariances(reached.equation, measures, ASSUMED_ERRORS)
    const gradient = gradientOf(reached.equation, measures, settings)
    return {
      end: {
        equationId: reached.equation.id,
        measures: { ...measures },
        settings: { conversion, ...(options ? { options } : {}), person: { sex: person.sex } },
        variances,
      },
      bySlopes: gradient ? percentVariance(gradient, variances) : NaN,
    }
  }

  /** Spread of percent fat at each end, points squared; null where an end has no percent. */
  function simulate(ends: readonly SpanEnd[], draws: number): Promise<Spread[] | null> {
    return run(async (worker) => {
      const found: Spread[] = []
      for (const [i, one] of ends.map(plain).entries()) {
        const result = one && (await worker.simulate(one.end, draws, 20261125 + i))
        if (!result) return null
        found.push({ simulated: result.standardDeviation ** 2, bySlopes: one.bySlopes })
      }
      return found
    })
  }

  return { simulate, running }
}
