import { EventEmitter } from 'node:events'
import type { EventsInput } from '../../shared/schemas/checkin'
import type { DataJob } from '../../shared/schemas/data'

/** What happened in a check-in, for every screen that shows it. */
export type LiveMessage = { kind: 'events'; events: EventsInput } | { kind: 'changed' } | { kind: 'discarded' }

/** Where news goes: `checkin:<id>` for the screens of a check-in, `study:<id>` for those of a study, `session:<id>` when a session ends, `sets` when a studio has another set of sites, `jobs` for long work. */
export type Channel = `checkin:${string}` | `session:${string}` | `study:${string}` | 'sets' | 'jobs'

/** What goes over a channel. */
export type Message =
  | LiveMessage
  | { kind: 'ended' }
  | { kind: 'job'; job: DataJob; studioId: string }
  | { kind: 'stop-job'; id: string }
  | { kind: 'forget-files' }

/** Carries news from whoever stored something to whoever shows it. */
export interface Bus {
  publish: (channel: Channel, message: Message) => void
  /** Calls back for each message of a channel until the returned function is called. */
  subscribe: (channel: Channel, hear: (message: Message) => void) => () => void
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
