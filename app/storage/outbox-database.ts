import Dexie, { type EntityTable } from 'dexie'
import type { PendingStart, Waiting } from './outbox-db'
import { sealRow, type Kept } from './sealed-rows'

export class OutboxDatabase extends Dexie {
  waiting!: EntityTable<Kept<Waiting>, 'id'>
  starts!: EntityTable<Kept<PendingStart>, 'id'>
  /** Facts the server has confirmed: kept a while, so that a session can be shown without the server. */
  sent!: EntityTable<Kept<Waiting>, 'id'>

  constructor() {
    super('oak-pinch')
    this.version(1).stores({ waiting: 'id, checkinId' })
    this.version(2).stores({ waiting: 'id, checkinId', starts: 'id', sent: 'id, checkinId, savedAt' })
  }

  /** Seals what an earlier version of this application, or a visit without the key, left as it is. */
  async sealAgain(facts: readonly Waiting[], begun: readonly PendingStart[]): Promise<void> {
    const [sealed, starting] = [await Promise.all(facts.map(sealRow)), await Promise.all(begun.map(sealRow))]
    await this.transaction('rw', this.waiting, this.starts, async () => {
      // Sent meanwhile, it is not put back.
      for (const row of sealed) if (await this.waiting.get(row.id)) await this.waiting.put(row)
      for (const row of starting) if (await this.starts.get(row.id)) await this.starts.put(row)
    })
  }
}

/** The browser's own database of what is still to be sent; its rows are sealed (sealed-rows.ts). */
export const outboxDatabase = new OutboxDatabase()

// A page that goes away in the middle of a transaction has been seen to leave the database stuck for the next one.
if (typeof window !== 'undefined') {
  window.addEventListener('pagehide', () => outboxDatabase.close({ disableAutoOpen: false }))
}
