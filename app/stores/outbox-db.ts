import Dexie, { type EntityTable } from 'dexie'
import type { Reading, Strike } from '#core/readings'

/** A fact on this device that the server has not confirmed yet. */
export interface Waiting {
  /** Reading id, or "strike-" and the reading's id. */
  id: string
  checkinId: string
  /** Who took it: facts go out only under the person who took them. */
  staffId: string
  savedAt: number
  reading?: Reading
  strike?: Strike
  /** The server's sentence when it would not take this fact. It stays here until somebody decides. */
  refused?: string
}

class OutboxDatabase extends Dexie {
  waiting!: EntityTable<Waiting, 'id'>

  constructor() {
    super('oak-pinch')
    this.version(1).stores({ waiting: 'id, checkinId' })
  }
}

/** The browser's own store of what is still to be sent. */
export const outboxDb = new OutboxDatabase()
