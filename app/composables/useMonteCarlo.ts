import { wrap, type Remote } from 'comlink'
import { onScopeDispose, ref } from 'vue'
import { estimateInputs, inputVariances, type SpanEnd } from '#core/composition'
import type { ErrorLookup } from '#core/error'
import type { MonteCarloWorker, SimulatedEnd } from '~/workers/monte-carlo'

/** Simulated visits in a worker of their own: the page stays free. */
export function useMonteCarlo() {
  const running = ref(false)
  let worker: Worker | null = null
  let remote: Remote<MonteCarloWorker> | null = null

  function open(): Remote<MonteCarloWorker> {
    worker ??= new Worker(new URL('../workers/monte-carlo.ts', import.meta.url), { type: 'module' })
    remote ??= wrap<MonteCarloWorker>(worker)
    return remote
  }

  function plain(end: SpanEnd, errors: ErrorLookup, factor: number): SimulatedEnd | null {
    const inputs = estimateInputs(end)
    if (!inputs) return null
    const { reached, measures, settings } = inputs
    const { conversion, options, person } = settings
    return {
      equationId: reached.equation.id,
      measures: { ...measures },
      settings: { conversion, ...(options ? { options } : {}), person: { sex: person.sex } },
      variances: inputVariances(end, errors, factor),
    }
  }

  /** Standard deviation of percent fat at each end by simulation, points; null where an end has no percent. */
  async function simulate(
    ends: readonly SpanEnd[],
    errors: ErrorLookup,
    { draws, factor }: { draws: number; factor: number },
  ): Promise<number[] | null> {
    const simulated = ends.map((end) => plain(end, errors, factor))
    running.value = true
    try {
      const found: number[] = []
      for (const [i, end] of simulated.entries()) {
        const result = end && (await open().simulate(end, draws, 20261125 + i))
        if (!result) return null
        found.push(result.standardDeviation)
      }
      return found
    } finally {
      running.value = false
    }
  }

  onScopeDispose(() => worker?.terminate())
  return { simulate, running }
}
