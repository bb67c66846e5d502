import { EventEmitter } from 'node:events'
import type { EventsInput } from '../../shared/schemas/checkin'

/** What happened in a check-in, for every screen that shows it. */
export type LiveMessage = { kind: 'events'; events: EventsInput } | { kind: 'changed' } | { kind: 'discarded' }

/** Where news goes: `checkin:<id>` for the screens of a check-in, `session:<id>` when a session ends. */
export type Channel = `checkin:${string}` | `session:${string}`

/** Carries news from whoever stored something to whoever shows it. */
export interface Bus {
  publish: (channel: Channel, message: LiveMessage | { kind: 'ended' }) => void
  /** Calls back for each message of a channel until the returned function is called. */
  subscribe: (channel: Channel, hear: (message: LiveMessage | { kind: 'ended' }) => void) => () => void
}

/** News within this process. */
export function memoryBus(): Bus {
  const emitter = new EventEmitter()
  emitter.setMaxListeners(0)
  return {
    publish: (channel, message) => void emitter.emit(channel, message),
    subscribe(channel, hear) {
      emitter.on(channel, hear)
      return () => emitter.off(channel, hear)
    },
  }
}
