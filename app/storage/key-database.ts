import Dexie, { type EntityTable } from 'dexie'

/** Holds the key that seals what is kept on this device, and nothing else. */
export class KeyDatabase extends Dexie {
  keys!: EntityTable<{ id: 'studio'; key: CryptoKey }, 'id'>
  constructor(name: string) {
    super(name)
    this.version(1).stores({ keys: 'id' })
  }
}
