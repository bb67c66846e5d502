import { useEventSource } from '@vueuse/core'
import { ref, watch } from 'vue'
import type { EventsInput } from '#shared/schemas/checkin'

type LiveMessage = { kind: 'events'; events: EventsInput } | { kind: 'changed' } | { kind: 'discarded' }

/**
 * Hears what other screens store in a check-in. After a lost connection everything is fetched again, so that nothing
 * sent in between is missed.
 */
export function useLive(
  checkinId: string,
  hear: { events: (events: EventsInput) => void; changed: () => void; discarded: () => void },
) {
  const { data, status } = useEventSource(`/api/checkins/${checkinId}/stream`, ['message'] as const, {
    autoReconnect: { delay: 1500 },
  })
  const lost = ref(false)

  // Each as it comes: messages that come together would else be heard as the last of them.
  watch(
    data,
    (text) => {
      if (!text) return
      const message = JSON.parse(text) as LiveMessage
      if (message.kind === 'events') hear.events(message.events)
      else if (message.kind === 'discarded') hear.discarded()
      else hear.changed()
    },
    { flush: 'sync' },
  )
  watch(status, (now) => {
    if (now === 'CLOSED') lost.value = true
    if (now === 'OPEN' && lost.value) {
      lost.value = false
      hear.changed()
    }
  })
  return { status }
}
