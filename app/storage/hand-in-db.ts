import Dexie, { type EntityTable } from 'dexie'
import type { ClientHome, HandInInput, HomeWeighIn } from '#shared/schemas/link'
import type { Pose } from '#shared/schemas/photo'

/** Something to be sent, in the order it was made. `refused`: the server's sentence; it steps aside until it is changed. */
export type Delivery = { id: string; at: number; refused?: string } & (
  | { kind: 'weigh-in'; weighIn: HomeWeighIn }
  | { kind: 'week'; week: HandInInput }
  | { kind: 'photo'; photo: { id: string; handInId: string; pose: Pose; takenAt: string }; picture: Blob }
)

/** A week that is being put together: everything typed and taken stays until it has been handed in. */
export interface Draft {
  key: 'draft'
  id: string
  day: string
  /** What is typed by place and turn, as typed. */
  girths: Record<string, string[]>
  unit: 'cm' | 'in'
  conditions: Record<string, string>
  fit: HandInInput['fit']
  words: string
}

/** A picture of the week that is being put together. */
export interface DraftPicture {
  pose: Pose
  takenAt: string
  picture: Blob
}

class HandInDatabase extends Dexie {
  deliveries!: EntityTable<Delivery, 'id'>
  drafts!: EntityTable<Draft, 'key'>
  pictures!: EntityTable<DraftPicture, 'pose'>
  /** The last answer of the server: what is shown without a network. */
  kept!: EntityTable<{ key: 'home'; home: ClientHome }, 'key'>

  constructor() {
    super('oak-pinch-hand-in')
    this.version(1).stores({ deliveries: 'id, at', drafts: 'key', pictures: 'pose', kept: 'key' })
  }
}

/** A client's phone's own database: what waits to be sent and the week under way. */
export const handInDatabase = new HandInDatabase()

/** Empties the phone of everything of this client's. */
export async function emptyHandIn(): Promise<void> {
  await Promise.all(handInDatabase.tables.map((table) => table.clear()))
}

if (typeof window !== 'undefined') {
  window.addEventListener('pagehide', () => handInDatabase.close({ disableAutoOpen: false }))
}
