import { wrap, type Remote } from 'comlink'
import { onScopeDispose, ref } from 'vue'

/**
 * A worker opened when it is first asked for and ended with the page that asked: heavy computation beside the page.
 * @param make opens it; its address must stand written out there for the bundler
 */
export function useWorker<Api>(make: () => Worker) {
  const running = ref(false)
  let worker: Worker | null = null
  let remote: Remote<Api> | null = null

  /** Runs something in the worker; `running` says so meanwhile. */
  async function run<Result>(act: (api: Remote<Api>) => Promise<Result>): Promise<Result> {
    worker ??= make()
    remote ??= wrap<Api>(worker)
    running.value = true
    try {
      return await act(remote)
    } finally {
      running.value = false
    }
  }

  onScopeDispose(() => worker?.terminate())
  return { run, running }
}
