import { EventEmitter } from 'node:events'
import type { EventsInput } from '../../shared/schemas/checkin'

/** What happened in a check-in, for every screen that shows it. */
export type LiveMessage = { kind: 'events'; events: EventsInput } | { kind: 'changed' }

/** One process serves all screens of a studio: a plain emitter is enough. */
const bus = new EventEmitter()
bus.setMaxListeners(0)

export function publish(checkinId: string, message: LiveMessage): void {
  bus.emit(checkinId, message)
}

/** Calls back for each message of a check-in until the returned function is called. */
export function subscribe(checkinId: string, hear: (message: LiveMessage) => void): () => void {
  bus.on(checkinId, hear)
  return () => bus.off(checkinId, hear)
}
