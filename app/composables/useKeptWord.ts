import { computed } from 'vue'
import { useOutbox } from '~/stores/outbox'

/** The state of sending in one quiet word. */
export function useKeptWord(finished: () => boolean) {
  const outbox = useOutbox()
  return computed(() => {
    if (outbox.unsent.length === 0) return finished() ? 'finished, everything kept' : 'everything kept'
    if (!outbox.trouble) return 'sending'
    return outbox.storeless
      ? `not sent yet, keep this page open: ${outbox.trouble}`
      : `kept on this device: ${outbox.trouble}`
  })
}
