import type pg from 'pg'
import type { ServerDatabase } from '../db/server-store'
import { memoryBus, type Bus, type Channel } from './bus'
import { memoryShelf, type Shelf } from './shelf'

/** Everything processes tell each other goes through one channel of the server. */
const CHANNEL = 'oak_pinch'
/** The server takes less than 8,000 bytes. */
const LONGEST = 7_900
const AGAIN_AFTER_MS = 500

type Told =
  | { to: 'bus'; channel: Channel; message: Parameters<Bus['publish']>[1] }
  | { to: 'shelf'; name: string; key: string }
  | { to: 'shelves' }

/** Where news goes when this process has heard nothing for a while. */
export interface Deaf {
  /** Hears again: what was kept or shown meanwhile may be old. */
  hearsAgain: () => void
  failed: (error: unknown) => void
}

/** Bus and shelf that reach every process of one database. */
export interface Shared {
  bus: Bus
  shelf: Shelf
  close: () => void
}

/**
 * News over LISTEN and NOTIFY. What is told comes back to the process that told it as to every other one, so that each
 * sees the same order. When the connection breaks it is made anew, and whoever shows something asks again.
 */
export async function sharedPorts(server: ServerDatabase, deaf: Deaf): Promise<Shared> {
  const bus = memoryBus()
  const shelf = memoryShelf()
  let closed = false

  function hear({ payload }: pg.Notification): void {
    const told = JSON.parse(payload ?? 'null') as Told
    if (told.to === 'bus') bus.publish(told.channel, told.message)
    else if (told.to === 'shelf') shelf.forget(told.name, told.key)
    else shelf.clear()
  }

  async function listen(): Promise<void> {
    const client = await server.listener()
    client.on('notification', hear)
    client.once('error', (error) => {
      if (closed) return
      deaf.failed(error)
      void again()
    })
    await client.query(`listen ${CHANNEL}`)
  }

  async function again(): Promise<void> {
    await new Promise((later) => setTimeout(later, AGAIN_AFTER_MS))
    if (closed) return
    try {
      await listen()
      shelf.clear()
      deaf.hearsAgain()
    } catch (error) {
      deaf.failed(error)
      void again()
    }
  }

  function tell(told: Told): void {
    server.notify(CHANNEL, JSON.stringify(told)).catch(deaf.failed)
  }

  await listen()
  return {
    bus: {
      publish(channel, message) {
        const told: Told = { to: 'bus', channel, message }
        // What is too long for a notice is fetched by whoever hears that there is something.
        const fits = Buffer.byteLength(JSON.stringify(told)) <= LONGEST
        if (!fits && message.kind === 'job') {
          // Others learn that it is done; what it found is given by the process that did it.
          bus.publish(channel, message)
          tell({ ...told, message: { ...message, job: { ...message.job, result: null } } })
        } else tell(fits ? told : { ...told, message: { kind: 'changed' } })
      },
      subscribe: bus.subscribe,
    },
    shelf: {
      ...shelf,
      forget(name, key) {
        shelf.forget(name, key)
        tell({ to: 'shelf', name, key })
      },
      clear() {
        shelf.clear()
        tell({ to: 'shelves' })
      },
    },
    close: () => (closed = true),
  }
}
