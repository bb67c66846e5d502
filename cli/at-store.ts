import { join, resolve } from 'node:path'
import { eq } from 'drizzle-orm'
import { openStore, type Store } from '../server/db/database'
import { openServerStore } from '../server/db/server-store'
import { staff } from '../server/db/schema'
import { memoryBus } from '../server/ports/bus'
import { folderPhotos, type PhotoStore } from '../server/ports/photo-store'
import { s3FromEnvironment, s3Photos } from '../server/ports/s3-photos'
import { sealedPhotos } from '../server/ports/sealed-photos'
import { dataKeys } from '../server/sealed/keys'
import { memoryShelf } from '../server/ports/shelf'
import { sentenceOf } from '../server/exchange/sentences'
import type { Progress } from '../server/exchange/progress'
import { learnSets } from '../server/repositories/sets'
import type { SignedIn } from '../server/repositories/staff'
import { changeIn, type Change, type Unit } from '../server/write/change'
import type { Transaction } from '../server/db/database'
import { FolderDamaged } from '../server/db/data-folder'
import { FolderInUse } from '../server/db/folder-lock'

/** A studio opened by a command: the same database and pictures the application would use. */
export interface AtStore {
  store: Store
  photos: PhotoStore
  /** The same, as they lie there: sealed where there is a key. */
  kept: PhotoStore
  folder: string
  /** The lead coach in whose name a command works; null: there is no studio yet. */
  who: SignedIn | null
  change: <Result>(what: Change, work: (tx: Transaction, unit: Unit) => Promise<Result>) => Promise<Result>
}

/** How far work is, on one line of standard error. */
export const shownProgress: Progress = {
  tell: ({ done, total, of }) => void process.stderr.write(`\r${done}${total > 0 ? ` of ${total}` : ''} ${of}      `),
  stopped: () => undefined,
}

async function leadOf({ database }: Store): Promise<SignedIn | null> {
  const [lead] = await database
    .select({ staffId: staff.id, studioId: staff.studioId, role: staff.role })
    .from(staff)
    .where(eq(staff.role, 'lead'))
    .limit(1)
  return lead ? { ...lead, sessionId: '' } : null
}

/**
 * Opens what DATABASE_URL names, or a data folder, does something there and closes it. What goes wrong for a reason of
 * the file or the folder is said in one sentence, with exit code 2.
 */
export async function atStore(dataDir: string, work: (at: AtStore) => Promise<void>): Promise<void> {
  const folder = resolve(dataDir)
  const url = process.env.DATABASE_URL
  let store: Store | null = null
  try {
    store = url ? await openServerStore(url, 4) : await openStore(folder)
    const opened = store
    await learnSets(opened.database)
    const s3 = s3FromEnvironment(process.env)
    const kept = s3 ? s3Photos(s3) : folderPhotos(join(folder, 'photos'))
    const who = await leadOf(opened)
    await work({
      store: opened,
      photos: sealedPhotos(kept, dataKeys()),
      kept,
      folder,
      who,
      change: (what, inside) => {
        if (!who) throw new Error('There is no studio here yet.')
        // What the application has kept of before is another process's: it looks at what was touched.
        return changeIn(
          { store: opened, ports: { bus: memoryBus(), shelf: memoryShelf() } },
          { kind: 'staff', ...who },
          what,
          inside,
        )
      },
    })
  } catch (error) {
    const known = error instanceof FolderInUse || error instanceof FolderDamaged ? error.message : sentenceOf(error)
    if (!known) throw error
    console.error(`\n${known}`)
    process.exitCode = 2
  } finally {
    await store?.close()
  }
}
