import { useEventSource } from '@vueuse/core'
import { ref, watch } from 'vue'
import type { EventsInput } from '#shared/schemas/checkin'

type LiveMessage = { kind: 'events'; events: EventsInput } | { kind: 'changed' } | { kind: 'discarded' }

/**
 * Hears the messages of a stream of the server. After a lost connection everything is fetched again, so that nothing sent
 * in between is missed.
 */
function useStream(path: string, hear: (message: LiveMessage) => void) {
  const { data, status } = useEventSource(path, ['message'] as const, { autoReconnect: { delay: 1500 } })
  const lost = ref(false)

  // Each as it comes: messages that come together would else be heard as the last of them.
  watch(data, (text) => text && hear(JSON.parse(text) as LiveMessage), { flush: 'sync' })
  watch(status, (now) => {
    if (now === 'CLOSED') lost.value = true
    if (now === 'OPEN' && lost.value) {
      lost.value = false
      hear({ kind: 'changed' })
    }
  })
  return { status }
}

/** Hears what other screens store in a check-in. */
export function useLive(
  checkinId: string,
  hear: { events: (events: EventsInput) => void; changed: () => void; discarded: () => void },
) {
  return useStream(`/api/checkins/${checkinId}/stream`, (message) => {
    if (message.kind === 'events') hear.events(message.events)
    else if (message.kind === 'discarded') hear.discarded()
    else hear.changed()
  })
}

/** Hears that something in a study was begun or done on another tablet. */
export function useLiveStudy(studyId: string, changed: () => void) {
  return useStream(`/api/studies/${studyId}/stream`, changed)
}
