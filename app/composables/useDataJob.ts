import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { DataJob } from '#shared/schemas/data'
import { data as calls } from '~/data-calls'

const LOOK_EVERY_MS = 400

/**
 * Long work on the server, watched until it ends.
 * @param ended called once with the work when it has ended well
 */
export function useDataJob(ended: (job: DataJob) => unknown) {
  const job = ref<DataJob | null>(null)
  const { problem, tell } = useTelling()
  const running = computed(() => job.value?.state === 'running')

  const { pause, resume } = useIntervalFn(look, LOOK_EVERY_MS, { immediate: false })

  async function look() {
    const id = job.value?.id
    if (!id) return pause()
    const isTold = await tell(async () => {
      const found = await calls.job(id)
      // Another one was begun meanwhile: this answer is about the one before.
      if (job.value?.id !== id) return
      job.value = found
      if (found.state === 'running') return
      pause()
      if (found.state === 'done') await ended(found)
    })
    if (!isTold) pause()
  }

  /** Begins work, instead of what is watched now. */
  async function begin(start: () => Promise<DataJob>): Promise<void> {
    pause()
    await tell(async () => {
      job.value = await start()
      resume()
    })
  }

  function stop() {
    const id = job.value?.id
    return id ? tell(() => calls.stop(id)) : Promise.resolve(false)
  }

  /** What went wrong: with the work, or with asking for it. */
  const sentence = computed(() => (job.value?.state === 'failed' ? job.value.sentence : problem.value))
  return { job, running, sentence, begin, stop }
}
